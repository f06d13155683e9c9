'use client';

import { Field, Input, NativeSelect, Textarea, type TextareaProps } from '@chakra-ui/react';
import type { ComponentProps, ReactNode } from 'react';

export interface Choice {
  readonly value: string;
  readonly label: string;
}

export interface Framing {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly fault?: string | null;
}

/** Label and hint over a control, and under it what is wrong with it; whoever hears the page hears all three. */
export const FieldFrame = ({ label, hint, fault, children }: Framing & { children: ReactNode }) => (
  <Field.Root invalid={Boolean(fault)}>
    <div className="field__head">
      <Field.Label>{label}</Field.Label>
      {hint && <Field.HelperText>{hint}</Field.HelperText>}
    </div>
    {children}
    <Field.ErrorText role="alert">{fault}</Field.ErrorText>
  </Field.Root>
);

interface Mono {
  /** Numbers and codes, in which 0 and O must differ. */
  readonly mono?: boolean;
}

export const TextControl = ({ mono, ...props }: ComponentProps<typeof Input> & Mono) => (
  <Input data-mono={mono || undefined} {...props} />
);

export const LinesControl = ({ mono, ...props }: TextareaProps & Mono) => (
  <Textarea data-mono={mono || undefined} {...props} />
);

/** A list of the browser's own: it works before the scripts have come, and is a wheel on a phone. */
export const SelectControl = ({
  choices,
  large,
  ...props
}: ComponentProps<typeof NativeSelect.Field> & { choices: readonly Choice[]; large?: boolean }) => (
  <NativeSelect.Root>
    <NativeSelect.Field data-large={large || undefined} {...props}>
      {choices.map(({ value, label }) => (
        <option key={value} value={value}>
          {label}
        </option>
      ))}
    </NativeSelect.Field>
    <NativeSelect.Indicator />
  </NativeSelect.Root>
);
