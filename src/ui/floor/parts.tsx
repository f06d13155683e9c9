'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A large target for a gloved finger. Chosen: filled and ticked, so that colour is not the only sign. */
export function Press({
  children,
  onPress,
  chosen = false,
  main = false,
  wide = false,
  disabled = false,
  label,
  mono = false,
}: {
  children: ReactNode;
  onPress: () => void;
  chosen?: boolean;
  main?: boolean;
  wide?: boolean;
  disabled?: boolean;
  label?: string;
  mono?: boolean;
}) {
  return (
    <chakra.button
      type="button"
      onClick={onPress}
      disabled={disabled}
      aria-pressed={chosen || undefined}
      aria-label={label}
      minH={main ? '64px' : '48px'}
      px="3"
      w={wide ? '100%' : undefined}
      rounded="sm"
      border="1px solid"
      borderColor={main ? 'action' : chosen ? 'ink' : 'line'}
      bg={main ? 'action' : chosen ? 'ink' : 'sheet'}
      color={main ? 'onAction' : chosen ? 'sheet' : 'ink'}
      fontSize={main ? '20px' : '17px'}
      fontWeight={main ? '700' : '500'}
      fontFamily={mono ? 'mono' : undefined}
      cursor="pointer"
      textAlign="center"
      css={{ touchAction: 'manipulation', '&:disabled': { opacity: 0.5, cursor: 'default' } }}
    >
      {chosen && '✓ '}
      {children}
    </chakra.button>
  );
}

/** Name at the left, what is known at the right, the field under both. */
export function FieldHead({ name, known }: { name: ReactNode; known?: ReactNode }) {
  return (
    <Flex justify="space-between" gap="3" wrap="wrap" color="soft" fontSize="15px" mb="1" mt="3">
      <span>{name}</span>
      <Box as="span" textAlign="right">
        {known}
      </Box>
    </Flex>
  );
}

/** Loud: work stops here. */
export function Stop({ children }: { children: ReactNode }) {
  return (
    <Box
      role="alert"
      bg="wrong.bg"
      color="wrong.ink"
      px="4"
      py="3"
      rounded="sm"
      fontSize="18px"
      fontWeight="650"
      my="3"
    >
      {children}
    </Box>
  );
}
