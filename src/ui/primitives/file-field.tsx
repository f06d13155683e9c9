'use client';

import { useState } from 'react';
import { useFormState } from './action-form';

/** Takes files that are dropped on it or chosen by a press, and says which they are. The control lies over the whole field. */
export function FileField({
  name,
  label,
  hint,
  accept,
  multiple = false,
}: {
  name: string;
  label: string;
  hint: string;
  accept: string;
  multiple?: boolean;
}) {
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const fault = useFormState().fields[name];
  return (
    <div className="file-field">
      <strong>{chosen.length > 0 ? chosen.join(', ') : label}</strong>
      <span className="soft small">{chosen.length > 0 ? 'press, or drop others here, to change' : hint}</span>
      <input
        type="file"
        name={name}
        aria-label={label}
        accept={accept}
        multiple={multiple}
        aria-invalid={fault ? true : undefined}
        onChange={({ currentTarget }) => setChosen([...(currentTarget.files ?? [])].map((file) => file.name))}
      />
    </div>
  );
}
