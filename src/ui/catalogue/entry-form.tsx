'use client';

import { Grid } from '@chakra-ui/react';
import { capital } from '@/core/shared/capital';
import type { FormAction } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import { SelectField, TextField } from '../primitives/fields';
import { Form } from '../primitives/form';

interface EntryColumn {
  readonly key: string;
  readonly help: string;
  readonly required?: boolean;
  readonly choices?: readonly string[];
}

const label = (key: string): string => {
  const words = key.replaceAll('_', ' ');
  return capital(words);
};

/** One row entered by hand, in the columns of its import file and judged by the same rules. */
export function EntryForm({
  kind,
  columns,
  values,
  hidden = {},
  action,
  save,
}: {
  kind: string;
  columns: readonly EntryColumn[];
  values: Readonly<Record<string, string>>;
  hidden?: Readonly<Record<string, string>>;
  action: FormAction;
  save: string;
}) {
  return (
    <Form action={action}>
      {Object.entries({ kind, ...hidden }).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr', xl: '1fr 1fr 1fr' }} columnGap="6" rowGap="1">
        {columns.map(({ key, help, required, choices }) =>
          choices ? (
            <SelectField
              key={key}
              name={key}
              label={label(key)}
              choices={choices.map((value) => ({ value, label: value === '' ? '–' : value.replaceAll('_', ' ') }))}
              defaultValue={values[key] ?? ''}
            />
          ) : (
            <TextField
              key={key}
              name={key}
              label={`${label(key)}${required ? ' *' : ''}`}
              placeholder={help.length > 60 ? undefined : help}
              defaultValue={values[key] ?? ''}
            />
          ),
        )}
      </Grid>
      <SubmitButton main>{save}</SubmitButton>
    </Form>
  );
}
