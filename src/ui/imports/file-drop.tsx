'use client';

import type { FormAction } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import type { Choice } from '../primitives/field-frame';
import { SelectField } from '../primitives/fields';
import { FileField } from '../primitives/file-field';
import { Form } from '../primitives/form';

/** One or several CSV files at once; what each is, is told from its header. */
export function FileDrop({ action, kinds }: { action: FormAction; kinds: readonly Choice[] }) {
  return (
    <Form action={action}>
      <FileField
        name="files"
        label="Drop CSV files here, or press to choose them"
        hint="comma, semicolon or tab; km or mi; several at once"
        accept=".csv,.txt,.tsv,text/csv"
        multiple
      />
      <div className="form-line">
        <SelectField
          name="kind"
          label="What they are"
          choices={[{ value: '', label: 'Recognise it by its header' }, ...kinds]}
        />
        <SubmitButton main>Check</SubmitButton>
      </div>
    </Form>
  );
}
