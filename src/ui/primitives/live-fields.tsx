'use client';

import type { Choice } from './field-frame';
import { FieldFrame, type Framing, LinesControl, SelectControl, TextControl } from './field-frame';

interface LiveProps extends Framing {
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly name?: string;
}

interface LiveTextProps extends LiveProps {
  readonly mono?: boolean;
  readonly inputMode?: 'decimal' | 'numeric' | 'text';
  readonly placeholder?: string;
}

/** A field whose value is used as it is typed. */
export const LiveText = ({ label, hint, fault, onChange, ...rest }: LiveTextProps) => (
  <FieldFrame label={label} hint={hint} fault={fault}>
    <TextControl onChange={(event) => onChange(event.target.value)} {...rest} />
  </FieldFrame>
);

export const LiveSelect = ({
  label,
  hint,
  fault,
  onChange,
  ...rest
}: LiveProps & { readonly choices: readonly Choice[] }) => (
  <FieldFrame label={label} hint={hint} fault={fault}>
    <SelectControl onChange={(event) => onChange(event.target.value)} {...rest} />
  </FieldFrame>
);

/** A few lines, such as a pasted column of figures. */
export const LiveLines = ({
  label,
  hint,
  fault,
  onChange,
  rows = 3,
  ...rest
}: LiveProps & { readonly rows?: number }) => (
  <FieldFrame label={label} hint={hint} fault={fault}>
    <LinesControl mono rows={rows} onChange={(event) => onChange(event.target.value)} {...rest} />
  </FieldFrame>
);

/** Choices of a list, shown as they are or in words. */
export const choicesOf = (values: readonly string[], words: Readonly<Record<string, string>> = {}): Choice[] =>
  values.map((value) => ({ value, label: words[value] ?? value.replaceAll('_', ' ') }));
