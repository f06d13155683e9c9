'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface FieldFrameProps {
  readonly id: string;
  readonly label: string;
  readonly hint?: ReactNode;
  readonly fault?: string | null;
  /** The hint under the label, with its place kept where there is none. */
  readonly stacked?: boolean;
}

/** Label and hint over a field, and under it what is wrong with it. */
export function FieldFrame({
  id,
  label,
  hint,
  fault,
  stacked = false,
  children,
}: FieldFrameProps & { children: ReactNode }) {
  return (
    <Box mb="3">
      <Flex justify="space-between" columnGap="3" align="baseline" direction={stacked ? 'column' : 'row'}>
        <chakra.label htmlFor={id} color="soft" fontSize="sm">
          {label}
        </chakra.label>
        {(hint || stacked) && (
          <Box
            as="span"
            id={`${id}-hint`}
            color="soft"
            fontSize="sm"
            minH={stacked ? '20px' : undefined}
            textAlign={stacked ? undefined : 'right'}
          >
            {hint}
          </Box>
        )}
      </Flex>
      {children}
      {fault && (
        <Box id={`${id}-fault`} role="alert" mt="1" color="wrong.ink" fontSize="sm" fontWeight="600">
          {fault}
        </Box>
      )}
    </Box>
  );
}

/** Ties a control to its hint and fault for those who hear the page. */
export const describedBy = (id: string, hint: unknown, fault: unknown): string | undefined =>
  [hint ? `${id}-hint` : '', fault ? `${id}-fault` : ''].filter(Boolean).join(' ') || undefined;
