'use client';

import { type ClipboardEvent, useState } from 'react';
import { Button } from '../primitives/button';
import { SelectControl, TextControl } from '../primitives/field-frame';
import { useFormState } from '../primitives/form-state';
import { choicesOf } from '../primitives/live-fields';
import { type Row, type RowShape, rowsOf, textOf } from './row-shapes';

/** A list typed as rows of fields; a list that is pasted becomes rows. The form sends it as one text. */
export function RowsField({
  name,
  label,
  value,
  shape,
  onChange,
}: {
  name: string;
  label: string;
  value: string;
  shape: RowShape;
  onChange: (text: string) => void;
}) {
  // Rows that are not whole yet have no text of their own, so they are kept as they are typed.
  const [rows, setRows] = useState<readonly Row[]>(() => rowsOf(shape, value));
  const fault = useFormState().fields[name];
  const change = (next: readonly Row[]) => {
    setRows(next);
    onChange(textOf(shape, next));
  };
  const paste = (at: number) => (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain');
    if (!shape.between.test(text)) return;
    event.preventDefault();
    change([...rows.slice(0, at), ...rowsOf(shape, text), ...rows.slice(at + 1)]);
  };
  const tracks = `${shape.columns.map(({ share }) => `minmax(0, ${share}fr)`).join(' ')} auto`;
  return (
    <fieldset className="rows-field" aria-describedby={fault ? `${name}-fault` : undefined}>
      <legend>{label}</legend>
      <input type="hidden" name={name} value={value} />
      {rows.map((row, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place alone
        <div key={at} style={{ gridTemplateColumns: tracks }} onPaste={paste(at)}>
          {shape.columns.map((column) => (
            <Cell
              key={column.key}
              column={column}
              at={at}
              value={row[column.key] ?? ''}
              onChange={(text) => change(rows.with(at, { ...row, [column.key]: text }))}
            />
          ))}
          <Button onClick={() => change(rows.toSpliced(at, 1))}>
            Remove<span className="aloud"> {`${shape.noun} ${at + 1}`}</span>
          </Button>
        </div>
      ))}
      <Button onClick={() => change([...rows, startOf(shape)])}>Add a {shape.noun}</Button>
      {fault && (
        <div id={`${name}-fault`} role="alert">
          {fault}
        </div>
      )}
    </fieldset>
  );
}

/** What stands in a new row before anything is typed: the first of each choice. */
const startOf = ({ columns }: RowShape): Row =>
  Object.fromEntries(columns.flatMap(({ key, choices }) => (choices ? [[key, choices[0] ?? '']] : [])));

function Cell({
  column: { label, choices },
  at,
  value,
  onChange,
}: {
  column: RowShape['columns'][number];
  at: number;
  value: string;
  onChange: (text: string) => void;
}) {
  const shared = { 'aria-label': `${label} ${at + 1}`, value };
  if (!choices)
    return <TextControl {...shared} placeholder={label} onChange={(event) => onChange(event.target.value)} />;
  const words = { '': `${label.toLowerCase()}: by its name` };
  return (
    <SelectControl {...shared} choices={choicesOf(choices, words)} onChange={(event) => onChange(event.target.value)} />
  );
}
