'use client';

import { Popover } from '@chakra-ui/react';
import { Bookmark } from 'lucide-react';
import dynamic from 'next/dynamic';
import { Button } from '../primitives/button';
import type { SavedViewsProps } from './saved-views-form';

/** Loaded as the box is opened. */
const SavedViewsForm = dynamic(() => import('./saved-views-form').then((module) => module.SavedViewsForm), {
  loading: () => null,
});

/** Lists that this person comes back to, by name. */
export const SavedViews = (props: SavedViewsProps) => (
  <Popover.Root positioning={{ placement: 'bottom-end' }} lazyMount>
    <Popover.Trigger asChild>
      <Button>
        <Bookmark size={16} /> Views
      </Button>
    </Popover.Trigger>
    <Popover.Positioner>
      <Popover.Content>
        <Popover.Body>
          <SavedViewsForm {...props} />
        </Popover.Body>
      </Popover.Content>
    </Popover.Positioner>
  </Popover.Root>
);
