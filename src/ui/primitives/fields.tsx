'use client';

import type { ReactNode } from 'react';
import { DateControl } from './date-control';
import type { Choice } from './field-frame';
import { FieldFrame, SelectControl, TextControl } from './field-frame';
import { useFormState } from './form-state';
import type { SecretField } from './secret-fields';

interface FieldProps {
  readonly name: string;
  readonly label: string;
  readonly hint?: ReactNode;
}

/** What was typed before the form came back, and what is wrong with it. */
function useAnswered(name: string, defaultValue?: string) {
  const { fields, typed, register } = useFormState();
  const control = { name, defaultValue: typed?.[name]?.[0] ?? defaultValue, ...register?.(name) };
  return { fault: fields[name], control };
}

interface TextProps extends FieldProps {
  readonly type?: string;
  readonly defaultValue?: string;
  readonly autoComplete?: string;
  readonly inputMode?: 'decimal' | 'numeric' | 'email' | 'text';
  readonly placeholder?: string;
  readonly mono?: boolean;
  readonly autoFocus?: boolean;
}

export function TextField({ name, label, hint, defaultValue, ...rest }: TextProps) {
  const { fault, control } = useAnswered(name, defaultValue);
  return (
    <FieldFrame label={label} hint={hint} fault={fault}>
      <TextControl {...control} {...rest} />
    </FieldFrame>
  );
}

/** A day, typed or chosen from a calendar. */
export function DateField({ name, label, hint, defaultValue }: FieldProps & { readonly defaultValue?: string }) {
  const { fault, control } = useAnswered(name, defaultValue);
  return (
    <FieldFrame label={label} hint={hint} fault={fault}>
      <DateControl {...control} />
    </FieldFrame>
  );
}

interface PasswordProps extends FieldProps {
  readonly name: SecretField;
  readonly autoComplete: 'current-password' | 'new-password';
}

export const PasswordField = (props: PasswordProps) => <TextField {...props} type="password" />;

export function SelectField({
  name,
  label,
  hint,
  defaultValue,
  ...rest
}: FieldProps & { readonly choices: readonly Choice[]; readonly defaultValue?: string; readonly large?: boolean }) {
  const { fault, control } = useAnswered(name, defaultValue);
  return (
    <FieldFrame label={label} hint={hint} fault={fault}>
      <SelectControl {...control} {...rest} />
    </FieldFrame>
  );
}
