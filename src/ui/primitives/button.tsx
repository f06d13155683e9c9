'use client';

import { Button as ChakraButton, type ButtonProps as ChakraProps } from '@chakra-ui/react';
import { useFormState } from './form-state';

interface ButtonProps extends ChakraProps {
  /** The one filled button of a screen; others are quiet. */
  readonly main?: boolean;
  /** For gloves. */
  readonly large?: boolean;
}

export const Button = ({ main, large, ...props }: ButtonProps) => (
  <ChakraButton data-main={main || undefined} data-large={large || undefined} {...props} />
);

/** Sends its form, and says so until the answer is here. */
export function SubmitButton({ children, ...props }: Omit<ButtonProps, 'type'>) {
  const { pending } = useFormState();
  return (
    <Button {...props} type="submit" disabled={pending}>
      {pending ? 'Saving…' : children}
    </Button>
  );
}
