'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import NextLink from 'next/link';
import { usePathname } from 'next/navigation';
import type { ReactNode } from 'react';

const Anchor = chakra(NextLink);

export interface Place {
  readonly href: string;
  readonly label: string;
}

export function TopBar({ places, children }: { places: readonly Place[]; children: ReactNode }) {
  const path = usePathname();
  // At the vehicle the work has the screen; the rest is one press on the name away.
  const atVehicle = path.endsWith('/floor');
  return (
    <Flex
      as="header"
      bg="sheet"
      borderBottom="1px solid"
      borderColor="line"
      px={{ base: '3', md: '6' }}
      minH="52px"
      align="center"
      gap={{ base: '2', md: '5' }}
      wrap="wrap"
      data-no-print
    >
      <Anchor
        href="/pressure"
        display="flex"
        alignItems="center"
        gap="2"
        fontWeight="700"
        fontSize="18px"
        aria-label="Isobar, to the pressure chart"
      >
        <svg width="24" height="22" viewBox="0 0 24 22" aria-hidden="true">
          <g fill="none" stroke="currentColor" strokeWidth="2" strokeLinecap="round">
            <path d="M2 14c6-1 7-8 13-8 3 0 4 2 7 2" />
            <path d="M2 8c5-1 6-6 11-6" opacity="0.6" />
            <path d="M5 20c5-1 6-7 11-7 3 0 4 1 6 1" opacity="0.6" />
          </g>
        </svg>
        isobar
      </Anchor>
      <Flex
        as="nav"
        aria-label="Main"
        gap={{ base: '3', md: '3.5' }}
        wrap="wrap"
        flex={{ base: '1 0 100%', lg: '1' }}
        order={{ base: 3, lg: 0 }}
        display={atVehicle ? { base: 'none', lg: 'flex' } : 'flex'}
      >
        {places.map(({ href, label }) => {
          const here = path === href || path.startsWith(`${href}/`);
          return (
            <Anchor
              key={href}
              href={href}
              aria-current={here ? 'page' : undefined}
              py={{ base: '2', lg: '3' }}
              color={here ? 'ink' : 'soft'}
              fontWeight={here ? '650' : '400'}
              borderBottom="3px solid"
              borderColor={here ? 'action' : 'transparent'}
            >
              {label}
            </Anchor>
          );
        })}
      </Flex>
      <Box
        display="flex"
        alignItems="center"
        gap={{ base: '2', md: '3' }}
        fontSize="sm"
        ml="auto"
        flexWrap="wrap"
        css={atVehicle ? { '& > [data-aside]': { display: { base: 'none', md: 'block' } } } : undefined}
      >
        {children}
      </Box>
    </Flex>
  );
}
