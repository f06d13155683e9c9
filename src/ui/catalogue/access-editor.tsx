'use client';

import { Box, Grid } from '@chakra-ui/react';
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type ItemFields, itemFromFields } from '@/core/engine/access-item-fields';
import { itemFaults } from '@/core/engine/access-items';
import type { Layout } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { EngineDrawing } from '../drawings/engine-drawing';
import type { FormAction } from '../primitives/action-form';
import { Button, SubmitButton } from '../primitives/button';
import { Form } from '../primitives/form';
import { Section } from '../primitives/page';
import { AccessItemFields } from './access-item-fields';
import { AccessItemRow, rowId } from './access-item-row';
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

/** The access to the plugs as rows in their order: added, moved by keys or by pointer, checked as they are typed, and drawn. */
export function AccessEditor({ familyId, version, layout, saved, copied, action }: EditorProps) {
  const { rows, at, setAt, change, move, undo } = useRows(copied?.rows ?? saved);
  const read = rows.map((row) => itemFromFields(layout.model, row));
  const items = read.map(({ item }) => item);
  const listed = itemFaults(layout.model, items);
  const now = rows[at];
  const ids = rows.map((_, i) => rowId(i));
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) move(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
  };
  const minutes = items.reduce((sum, { minutesOff, minutesOn }) => sum + minutesOff + minutesOn, 0);
  return (
    <Form action={action}>
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
          <DndContext id="access" sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
            <SortableContext items={ids} strategy={verticalListSortingStrategy}>
              <ol className="item-rows">
                {rows.map((row, i) => (
                  <AccessItemRow
                    key={rowId(i)}
                    place={i}
                    row={row}
                    chosen={i === at}
                    faults={
                      Object.keys(read[i]?.faults ?? {}).length + listed.filter((fault) => fault.at === i + 1).length
                    }
                    last={i === rows.length - 1}
                    onChoose={() => setAt(i)}
                    onMove={(to) => move(i, to)}
                  />
                ))}
              </ol>
            </SortableContext>
          </DndContext>
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
            <SubmitButton main>Save the access</SubmitButton>
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
    </Form>
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
