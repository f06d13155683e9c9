'use client';

import { Box, Grid } from '@chakra-ui/react';
import type { KeyboardEvent } from 'react';
import { type ItemFields, itemFromFields } from '@/core/engine/access-item-fields';
import { itemFaults } from '@/core/engine/access-items';
import type { Layout } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { EngineDrawing } from '../drawings/engine-drawing';
import { ActionForm, type FormAction } from '../primitives/action-form';
import { Button, SubmitButton } from '../primitives/button';
import { Section } from '../primitives/page';
import { AccessItemFields } from './access-item-fields';
import { useRows } from './use-rows';

interface EditorProps {
  readonly familyId: string;
  readonly version: number;
  readonly layout: Layout;
  readonly saved: readonly ItemFields[];
  /** Another family's, to begin with. */
  readonly copied: { readonly code: string; readonly rows: readonly ItemFields[] } | null;
  readonly action: FormAction;
}

const EMPTY: ItemFields = { part: 'cover', what: '', opens: 'all', minutes_off: '', minutes_on: '' };

/** The way to the plugs as rows in their order: added, moved by keys or by pointer, checked as they are typed, and drawn. */
export function AccessEditor({ familyId, version, layout, saved, copied, action }: EditorProps) {
  const { rows, at, setAt, change, move, undo } = useRows(copied?.rows ?? saved);
  const read = rows.map((row) => itemFromFields(layout.model, row));
  const items = read.map(({ item }) => item);
  const listed = itemFaults(layout.model, items);
  const now = rows[at];
  const minutes = items.reduce((sum, { minutesOff, minutesOn }) => sum + minutesOff + minutesOn, 0);
  return (
    <ActionForm action={action}>
      <input type="hidden" name="familyId" value={familyId} />
      <input type="hidden" name="version" value={version} />
      <input type="hidden" name="rows" value={JSON.stringify(rows)} />
      {copied && (
        <Box role="status" color="caution.ink" mb="3">
          These are the items of {copied.code}. Nothing is saved yet: go through each, then save them as this engine’s
          own.
        </Box>
      )}
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }} columnGap="8">
        <Section title="In their order" aside={`${minutes} min off and on, all of it`}>
          <ol className="item-rows">
            {rows.map((row, i) => (
              <ItemRow
                // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place alone
                key={i}
                place={i}
                row={row}
                chosen={i === at}
                faults={Object.keys(read[i]?.faults ?? {}).length + listed.filter((fault) => fault.at === i + 1).length}
                last={i === rows.length - 1}
                onChoose={() => setAt(i)}
                onMove={(to) => move(i, to)}
              />
            ))}
          </ol>
          {rows.length === 0 && (
            <Box color="soft" mb="2">
              Nothing stands in the way, or nobody has written it: then the steps go by how each bank is reached.
            </Box>
          )}
          <div className="press-row">
            <Button onClick={() => change([...rows, EMPTY], rows.length)}>Add an item</Button>
            <Button disabled={!undo} onClick={() => undo?.()}>
              Undo
            </Button>
            <SubmitButton main>Save the way</SubmitButton>
          </div>
        </Section>
        <Section title="What it opens" aside="seen from the front of the vehicle">
          <Opened layout={layout} opens={items[at]?.opens ?? []} what={now?.what ?? ''} />
        </Section>
      </Grid>
      {now && (
        <AccessItemFields
          row={now}
          place={at}
          faults={read[at]?.faults ?? {}}
          listed={listed.filter((fault) => fault.at === at + 1).map(({ says }) => says)}
          onChange={(field, value) => change(rows.with(at, { ...now, [field]: value }), at, field)}
          onRemove={() => change(rows.toSpliced(at, 1), Math.max(0, at - 1))}
        />
      )}
    </ActionForm>
  );
}

/** One row: pressed to be edited, moved by its handle, by its buttons, or with Alt and the arrow keys. */
function ItemRow({
  place,
  row,
  chosen,
  faults,
  last,
  onChoose,
  onMove,
}: {
  place: number;
  row: ItemFields;
  chosen: boolean;
  faults: number;
  last: boolean;
  onChoose: () => void;
  onMove: (to: number) => void;
}) {
  const name = row.what || 'no name yet';
  const byKey = (event: KeyboardEvent) => {
    const to = event.altKey ? { ArrowUp: place - 1, ArrowDown: place + 1 }[event.key] : undefined;
    if (to === undefined) return;
    event.preventDefault();
    onMove(to);
  };
  return (
    <li
      data-chosen={chosen || undefined}
      draggable
      onDragStart={(event) => event.dataTransfer.setData('text/plain', String(place))}
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const from = Number(event.dataTransfer.getData('text/plain'));
        // Dropped on this row: the one that is dragged takes its place.
        if (Number.isInteger(from) && from !== place) onMove(-1 - from);
      }}
    >
      <button type="button" aria-pressed={chosen} onClick={onChoose} onKeyDown={byKey}>
        <span>{place + 1}</span>
        <span>
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
      <Button disabled={place === 0} onClick={() => onMove(place - 1)}>
        ↑<span className="aloud"> {name} earlier</span>
      </Button>
      <Button disabled={last} onClick={() => onMove(place + 1)}>
        ↓<span className="aloud"> {name} later</span>
      </Button>
    </li>
  );
}

/** The engine with the plugs that an item gives access to. */
function Opened({ layout, opens, what }: { layout: Layout; opens: readonly number[]; what: string }) {
  const marks = Object.fromEntries(
    layout.sites.map((site) => [
      siteId(site),
      { state: opens.includes(site.cylinder) ? ('now' as const) : ('plain' as const) },
    ]),
  );
  return <EngineDrawing layout={layout} marks={marks} title={`Plugs to which ${what || 'this item'} opens the way`} />;
}
