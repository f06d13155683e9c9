'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide-react';
import type { KeyboardEvent } from 'react';
import type { ItemFields } from '@/core/engine/access-item-fields';
import { Button } from '../primitives/button';

interface Props {
  readonly place: number;
  readonly row: ItemFields;
  readonly chosen: boolean;
  readonly faults: number;
  readonly last: boolean;
  readonly onChoose: () => void;
  readonly onMove: (to: number) => void;
}

/** What a row is called while rows are dragged: its place, from 1. */
export const rowId = (place: number): string => `row ${place + 1}`;

/** One row: pressed to be edited, moved by its handle, by its buttons, or with Alt and the arrow keys. */
export function AccessItemRow({ place, row, chosen, faults, last, onChoose, onMove }: Props) {
  const name = row.what || 'no name yet';
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition } = useSortable({
    id: rowId(place),
  });
  const byKey = (event: KeyboardEvent) => {
    const to = event.altKey ? { ArrowUp: place - 1, ArrowDown: place + 1 }[event.key] : undefined;
    if (to === undefined) return;
    event.preventDefault();
    onMove(to);
  };
  return (
    <li
      ref={setNodeRef}
      data-chosen={chosen || undefined}
      style={{ transform: CSS.Transform.toString(transform), transition }}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        className="row-handle"
        aria-label={`Move ${name}`}
        aria-describedby={attributes['aria-describedby']}
        {...listeners}
      >
        <GripVertical size={16} />
      </button>
      <button type="button" className="row-words" aria-pressed={chosen} onClick={onChoose} onKeyDown={byKey}>
        <span className="row-number">{place + 1}</span>
        <span className="row-name">
          {name}
          <span className="soft small">
            {' '}
            {row.opens || 'all'}
            {row.only_with && `, only with ${row.only_with}`}
            {row.instead_of && `, instead of ${row.instead_of}`}
          </span>
        </span>
        <span className="soft small">
          {row.minutes_off || '–'} + {row.minutes_on || '–'} min
        </span>
        {faults > 0 && <span className="wrong small">{faults} to mend</span>}
      </button>
      <Button disabled={place === 0} aria-label={`${name} earlier`} onClick={() => onMove(place - 1)}>
        <ArrowUp size={16} />
      </Button>
      <Button disabled={last} aria-label={`${name} later`} onClick={() => onMove(place + 1)}>
        <ArrowDown size={16} />
      </Button>
    </li>
  );
}
