import NextLink from 'next/link';
import type { ReactNode } from 'react';
import { Button } from './button';

/* Pages are made for the one who asks when they are asked for: none is fetched before. */

export function TextLink({ href, children }: { href: string; children: ReactNode }) {
  return (
    <NextLink href={href} className="link" prefetch={false}>
      {children}
    </NextLink>
  );
}

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
    {download ? (
      <a href={href} download>
        {children}
      </a>
    ) : (
      <NextLink href={href} prefetch={false}>
        {children}
      </NextLink>
    )}
  </Button>
);
