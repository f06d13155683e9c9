'use client';

import { type FormAction, PressForm } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import { TextField } from '../primitives/fields';
import { Form } from '../primitives/form';
import { TextLink } from '../primitives/links';

export interface SavedViewsProps {
  readonly views: readonly { readonly id: string; readonly name: string; readonly query: string }[];
  /** What is shown now. */
  readonly query: string;
  readonly save: FormAction;
  readonly remove: FormAction;
}

/** The lists of this person by name, and a name for the list that is shown. */
export const SavedViewsForm = ({ views, query, save, remove }: SavedViewsProps) => (
  <>
    {views.map((view) => (
      <PressForm key={view.id} action={remove} quiet>
        <input type="hidden" name="viewId" value={view.id} />
        <TextLink href={`/due?${view.query}`}>{view.name}</TextLink>{' '}
        <SubmitButton aria-label={`Remove ${view.name}`}>Remove</SubmitButton>
      </PressForm>
    ))}
    <Form action={save} clears input="saveViewForm">
      <input type="hidden" name="query" value={query} />
      <TextField name="name" label="Name of this view" />
      <SubmitButton>Save this view</SubmitButton>
    </Form>
  </>
);
