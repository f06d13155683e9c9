'use client';

import { FileUpload } from '@chakra-ui/react';
import { useState } from 'react';
import { useFormState } from './form-state';

/** Takes files that are dropped on the field or chosen by a press, shows them, and says which were not taken. */
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
  const fault = useFormState().fields[name];
  const [refused, setRefused] = useState<readonly string[]>([]);
  return (
    <FileUpload.Root
      name={name}
      accept={accept}
      maxFiles={multiple ? Number.POSITIVE_INFINITY : 1}
      invalid={Boolean(fault)}
      onFileChange={({ rejectedFiles }) => setRefused(rejectedFiles.map(({ file }) => file.name))}
    >
      <FileUpload.HiddenInput />
      <FileUpload.Dropzone disableClick>
        <FileUpload.Label>{label}</FileUpload.Label>
        <span className="soft small">{hint}</span>
      </FileUpload.Dropzone>
      <FileUpload.List showSize clearable />
      {refused.length > 0 && (
        <div role="alert" className="wrong small">
          Not taken: {refused.join(', ')}. {hint}
        </div>
      )}
    </FileUpload.Root>
  );
}
