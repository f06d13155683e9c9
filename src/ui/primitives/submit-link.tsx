'use client';

import { chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { useFormState } from './action-form';

/** A form's button that looks like a link. */
export function SubmitLink({ children }: { children: ReactNode }) {
  const { pending } = useFormState();
  return (
    <chakra.button
      type="submit"
      disabled={pending}
      color="soft"
      textDecoration="underline"
      textUnderlineOffset="3px"
      cursor="pointer"
      minH="32px"
    >
      {children}
    </chakra.button>
  );
}
