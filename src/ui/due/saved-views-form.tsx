'use client';

import { PressForm } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import { TextField } from '../primitives/fields';
import { Form } from '../primitives/form';
import { TextLink } from '../primitives/links';
import type { SavedViewsProps } from './saved-views';

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
