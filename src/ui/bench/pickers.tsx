'use client';

import { LiveSelect } from '../primitives/live-fields';
import type { BenchData } from './bench-data';

interface PickerProps {
  readonly data: BenchData;
  readonly value: string;
  readonly onChange: (id: string) => void;
}

/** A spec sheet of the catalogue, or the figures typed instead. */
export const SheetPicker = ({ data, value, onChange }: PickerProps) => (
  <LiveSelect
    label="Spec sheet"
    value={value}
    onChange={onChange}
    choices={[...data.sheets.map((s) => ({ value: s.id, label: s.label })), { value: '', label: 'type it instead' }]}
  />
);

export const EnginePicker = ({ data, value, onChange }: PickerProps) => (
  <LiveSelect
    label="Engine"
    value={value}
    onChange={onChange}
    choices={data.engines.map((e) => ({ value: e.id, label: `${e.code}, ${e.name}` }))}
  />
);
