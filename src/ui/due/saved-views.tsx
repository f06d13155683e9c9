'use client';

import { Popover } from '@chakra-ui/react';
import { Bookmark } from 'lucide-react';
import { type FormAction, PressForm } from '../primitives/action-form';
import { Button, SubmitButton } from '../primitives/button';
import { TextField } from '../primitives/fields';
import { Form } from '../primitives/form';
import { TextLink } from '../primitives/links';

interface Props {
  readonly views: readonly { readonly id: string; readonly name: string; readonly query: string }[];
  /** What is shown now. */
  readonly query: string;
  readonly save: FormAction;
  readonly remove: FormAction;
}

/** Lists that this person comes back to, by name. */
export const SavedViews = ({ views, query, save, remove }: Props) => (
  <Popover.Root positioning={{ placement: 'bottom-end' }} lazyMount>
    <Popover.Trigger asChild>
      <Button>
        <Bookmark size={16} /> Views
      </Button>
    </Popover.Trigger>
    <Popover.Positioner>
      <Popover.Content>
        <Popover.Body>
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
        </Popover.Body>
      </Popover.Content>
    </Popover.Positioner>
  </Popover.Root>
);
