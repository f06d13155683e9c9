'use client';

import { Box } from '@chakra-ui/react';
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
  // Plain, with its looks in the theme: there are fifty on a page, and every press draws them again.
  return (
    <button
      type="button"
      className="press"
      onClick={onPress}
      disabled={disabled}
      aria-pressed={chosen || undefined}
      aria-label={label}
      data-main={main || undefined}
      data-wide={wide || undefined}
      data-mono={mono || undefined}
    >
      {chosen && '✓ '}
      {children}
    </button>
  );
}

/** Name at the left, what is known at the right, the field under both. */
export function FieldHead({ name, known }: { name: ReactNode; known?: ReactNode }) {
  return (
    <div className="field-head">
      <span>{name}</span>
      <span>{known}</span>
    </div>
  );
}

/** What a figure or a number means here. */
export function Verdict({ words, good }: { words: string; good: boolean }) {
  return (
    <span className="verdict" data-good={good || undefined}>
      {good ? '✓ ' : '✕ '}
      {words}
    </span>
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
