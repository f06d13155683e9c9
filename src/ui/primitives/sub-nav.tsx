'use client';

import { chakra, Flex } from '@chakra-ui/react';
import NextLink from 'next/link';
import { usePathname } from 'next/navigation';
import type { Place } from './top-bar';

const Anchor = chakra(NextLink);

/** Places within one part of the work. */
export function SubNav({ label, places }: { label: string; places: readonly Place[] }) {
  const path = usePathname();
  return (
    <Flex as="nav" aria-label={label} gap="4" wrap="wrap" mb="4" fontSize="sm" data-no-print>
      {places.map(({ href, label: text }) => {
        const here = path === href;
        return (
          <Anchor
            key={href}
            href={href}
            aria-current={here ? 'page' : undefined}
            py="1"
            color={here ? 'ink' : 'action'}
            fontWeight={here ? '650' : '400'}
            borderBottom="2px solid"
            borderColor={here ? 'action' : 'transparent'}
          >
            {text}
          </Anchor>
        );
      })}
    </Flex>
  );
}
