'use client';

import type { FormAction } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import { DateField, TextField } from '../primitives/fields';
import { Form } from '../primitives/form';

/** Defers what several vehicles have due until a day. @param ids of the vehicles, with commas between */
export const DeferForm = ({ action, ids }: { action: FormAction; ids: string }) => (
  <Form action={action} input="deferForm">
    <input type="hidden" name="ids" value={ids} />
    <DateField name="until" label="Until" />
    <TextField name="reason" label="Why" />
    <SubmitButton>Defer</SubmitButton>
  </Form>
);
