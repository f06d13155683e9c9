'use client';

import NextLink from 'next/link';
import type { ComponentProps, ReactNode } from 'react';
import { Button } from './button';

/* Pages are made for the one who asks when they are asked for: none is fetched before. */

export function TextLink({ href, children }: { href: string; children: ReactNode }) {
  return (
    <NextLink href={href} className="link" prefetch={false}>
      {children}
    </NextLink>
  );
}

/** To a page, or to a file that is saved; what the link stands in says how it looks. */
export const PlainLink = ({ href = '', download, ...rest }: ComponentProps<'a'>) =>
  download ? <a href={href} download {...rest} /> : <NextLink href={href} prefetch={false} {...rest} />;

/** A link that looks like a button; `download` for files. */
export const ButtonLink = ({
  href,
  children,
  main = false,
  download = false,
}: {
  href: string;
  children: ReactNode;
  main?: boolean;
  download?: boolean;
}) => (
  <Button asChild main={main}>
    <PlainLink href={href} download={download}>
      {children}
    </PlainLink>
  </Button>
);
