import { Box, Flex, Heading } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** The head of a page: what it is, one sentence of figures, and at the right what can be done. */
export function PageHead({
  title,
  children,
  actions,
}: {
  title: ReactNode;
  children?: ReactNode;
  actions?: ReactNode;
}) {
  return (
    <Flex justify="space-between" align="flex-start" gap="4" wrap="wrap" mb="4">
      <Box minW="0">
        <Heading as="h1" fontSize="22px" fontWeight="650" lineHeight="1.2">
          {title}
        </Heading>
        {children && (
          <Box color="soft" mt="1">
            {children}
          </Box>
        )}
      </Box>
      {actions && (
        <Flex gap="2" wrap="wrap" align="center" data-no-print>
          {actions}
        </Flex>
      )}
    </Flex>
  );
}

/** A part of a page, parted from the last by a hairline rather than a box. */
export function Section({
  title,
  aside,
  children,
  id,
}: {
  title: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
  id?: string;
}) {
  return (
    <Box as="section" mb="6" id={id}>
      <Flex justify="space-between" align="baseline" gap="3" borderBottom="1px solid" borderColor="line" pb="1" mb="3">
        <Heading as="h2" fontSize="16px" fontWeight="650">
          {title}
        </Heading>
        {aside && (
          <Box color="soft" fontSize="sm">
            {aside}
          </Box>
        )}
      </Flex>
      {children}
    </Box>
  );
}

/** A hazard, where it is. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <Flex
      role="note"
      aria-label="Caution"
      gap="3"
      bg="caution.bg"
      color="caution.ink"
      px="4"
      py="2"
      rounded="sm"
      align="center"
    >
      <svg width="22" height="20" viewBox="0 0 22 20" aria-hidden="true" style={{ flexShrink: 0 }}>
        <path
          d="M11 1 21 19H1Z M11 7v6 M11 15.5v1.5"
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
          strokeLinejoin="round"
        />
      </svg>
      <Box>{children}</Box>
    </Flex>
  );
}

/** An empty state that says what would stand here and how to get it there. */
export function Empty({ children }: { children: ReactNode }) {
  return (
    <Box color="soft" py="6" px="2" maxW="60ch">
      {children}
    </Box>
  );
}

/** Name and value pairs, values aligned. */
export function Facts({ rows }: { rows: readonly (readonly [string, ReactNode])[] }) {
  return (
    <Box as="dl" display="grid" gridTemplateColumns="minmax(7rem, max-content) 1fr" columnGap="4" rowGap="1">
      {rows.map(([name, value]) => (
        <Box key={name} display="contents">
          <Box as="dt" color="soft">
            {name}
          </Box>
          <Box as="dd" minW="0">
            {value}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** Numbers and codes where 0 and O, 1 and l must differ. */
export function Code({ children }: { children: ReactNode }) {
  return (
    <Box as="span" fontFamily="mono" whiteSpace="nowrap">
      {children}
    </Box>
  );
}
