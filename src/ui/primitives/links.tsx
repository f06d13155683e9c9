import NextLink from 'next/link';
import type { ReactNode } from 'react';

/* Pages are made for the one who asks when they are asked for: none is fetched before. */

export function TextLink({ href, children }: { href: string; children: ReactNode }) {
  return (
    <NextLink href={href} className="link" prefetch={false}>
      {children}
    </NextLink>
  );
}

/** A link that looks like a button; `download` for files. */
export function ButtonLink({
  href,
  children,
  main = false,
  download = false,
}: {
  href: string;
  children: ReactNode;
  main?: boolean;
  download?: boolean;
}) {
  if (download)
    return (
      <a href={href} className="button" download>
        {children}
      </a>
    );
  return (
    <NextLink href={href} className="button" data-main={main || undefined} prefetch={false}>
      {children}
    </NextLink>
  );
}
