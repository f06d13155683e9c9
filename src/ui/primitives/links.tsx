'use client';

import { chakra } from '@chakra-ui/react';
import NextLink from 'next/link';
import type { ReactNode } from 'react';

const Anchor = chakra(NextLink);

export function TextLink({ href, children }: { href: string; children: ReactNode }) {
  return (
    <Anchor
      href={href}
      color="action"
      textDecoration="underline"
      textUnderlineOffset="3px"
      textDecorationThickness="1px"
    >
      {children}
    </Anchor>
  );
}

/** A link that looks like a button; `download` for files, which must not be prefetched. */
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
  const look = {
    display: 'inline-flex',
    alignItems: 'center',
    minH: '36px',
    px: '3',
    rounded: 'sm',
    border: '1px solid',
    borderColor: main ? 'action' : 'line',
    bg: main ? 'action' : 'transparent',
    color: main ? 'onAction' : 'ink',
    fontSize: 'sm',
    fontWeight: '600',
    whiteSpace: 'nowrap',
  } as const;
  if (download)
    return (
      <chakra.a href={href} {...look} download>
        {children}
      </chakra.a>
    );
  return (
    <Anchor href={href} {...look}>
      {children}
    </Anchor>
  );
}
