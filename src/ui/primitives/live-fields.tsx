'use client';

import { chakra } from '@chakra-ui/react';
import { type ReactNode, useId } from 'react';
import { describedBy, FieldFrame } from './field-frame';
import type { Choice } from './options';
import { Options } from './options';

interface LiveProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly hint?: ReactNode;
  readonly fault?: string | null;
  readonly name?: string;
}

/** A field whose value is used as it is typed. */
export function LiveText({
  mono = false,
  inputMode,
  placeholder,
  ...props
}: LiveProps & { mono?: boolean; inputMode?: 'decimal' | 'numeric' | 'text'; placeholder?: string }) {
  const id = useId();
  return (
    <FieldFrame id={id} label={props.label} hint={props.hint} fault={props.fault}>
      <input
        id={id}
        name={props.name}
        value={props.value}
        onChange={(event) => props.onChange(event.target.value)}
        inputMode={inputMode}
        placeholder={placeholder}
        aria-invalid={props.fault ? true : undefined}
        aria-describedby={describedBy(id, props.hint, props.fault)}
        className="field"
        data-mono={mono || undefined}
      />
    </FieldFrame>
  );
}

export function LiveSelect({ choices, ...props }: LiveProps & { choices: readonly Choice[] }) {
  const id = useId();
  return (
    <FieldFrame id={id} label={props.label} hint={props.hint} fault={props.fault}>
      <select
        id={id}
        name={props.name}
        value={props.value}
        onChange={(event) => props.onChange(event.target.value)}
        aria-describedby={describedBy(id, props.hint, props.fault)}
        className="field"
      >
        <Options choices={choices} />
      </select>
    </FieldFrame>
  );
}

/** A few lines, such as a pasted column of figures. */
export function LiveLines({ rows = 3, ...props }: LiveProps & { rows?: number }) {
  const id = useId();
  return (
    <FieldFrame id={id} label={props.label} hint={props.hint} fault={props.fault}>
      <chakra.textarea
        id={id}
        name={props.name}
        value={props.value}
        rows={rows}
        onChange={(event) => props.onChange(event.target.value)}
        aria-invalid={props.fault ? true : undefined}
        aria-describedby={describedBy(id, props.hint, props.fault)}
        w="100%"
        bg="sheet"
        border="1px solid"
        borderColor="line"
        rounded="sm"
        px="2"
        py="1"
        fontFamily="mono"
        fontSize="sm"
      />
    </FieldFrame>
  );
}

/** Choices of a list, shown as they are or in words. */
export const choicesOf = (values: readonly string[], words: Readonly<Record<string, string>> = {}): Choice[] =>
  values.map((value) => ({ value, label: words[value] ?? value.replaceAll('_', ' ') }));
