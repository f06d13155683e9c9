'use client';

import { Popover } from '@chakra-ui/react';
import { Columns3 } from 'lucide-react';
import { Button } from '../primitives/button';
import type { Choice } from '../primitives/field-frame';
import { FilterBar, plainQuery } from '../primitives/filter-bar';
import { COLUMN_WORDS, DUE_COLUMNS, type DueColumn } from './due-row';

interface DueFilterChoice {
  readonly component?: string;
  readonly depot?: string;
  readonly group?: string;
  readonly state?: string;
  readonly search?: string;
  readonly sort: string;
  readonly order: string;
  readonly hide: readonly DueColumn[];
  /** Two lines a vehicle instead of one. */
  readonly comfortable: boolean;
}

const SORTS: readonly Choice[] = [
  { value: 'pressure', label: 'By service pressure' },
  { value: 'life', label: 'By life used' },
  { value: 'due', label: 'By due date' },
  { value: 'unit', label: 'By unit number' },
  { value: 'depot', label: 'By depot' },
  { value: 'odometer', label: 'By odometer' },
];

const plain = (values: readonly string[]): Choice[] => values.map((value) => ({ value, label: value }));

/** What a filtered list is asked by; columns that are not ticked are hidden. */
function queryOf(form: HTMLFormElement): URLSearchParams {
  const query = plainQuery(form);
  const shown = query.getAll('show');
  query.delete('show');
  const hide = DUE_COLUMNS.filter((column) => !shown.includes(column));
  if (hide.length > 0) query.set('hide', hide.join(','));
  return query;
}

interface Props {
  readonly components: readonly Choice[];
  readonly depots: readonly string[];
  readonly groups: readonly string[];
  readonly states: readonly Choice[];
  readonly chosen: DueFilterChoice;
}

export const DueFilterBar = ({ components, depots, groups, states, chosen }: Props) => (
  <FilterBar
    action="/due"
    search={{ placeholder: 'Unit, name, engine ( / )', chosen: chosen.search }}
    queryOf={queryOf}
    filters={[
      {
        name: 'component',
        label: 'Component',
        choices: components,
        chosen: chosen.component,
        all: 'What binds first',
      },
      { name: 'depot', label: 'Depot', choices: plain(depots), chosen: chosen.depot, all: 'All depots' },
      { name: 'group', label: 'Group', choices: plain(groups), chosen: chosen.group, all: 'All groups' },
      { name: 'state', label: 'State', choices: states, chosen: chosen.state, all: 'All states' },
      { name: 'sort', label: 'Sort by', choices: SORTS, chosen: chosen.sort },
    ]}
    more={(show) => <Laying key={JSON.stringify(chosen)} chosen={chosen} onChange={show} />}
  />
);

/** How the list is laid out. Within the form, as what is not ticked would otherwise be sent as hidden. */
const Laying = ({ chosen, onChange }: { chosen: DueFilterChoice; onChange: () => void }) => (
  <Popover.Root positioning={{ placement: 'bottom-end' }}>
    <Popover.Trigger asChild>
      <Button>
        <Columns3 size={16} /> Columns
      </Button>
    </Popover.Trigger>
    <Popover.Positioner>
      <Popover.Content>
        <Popover.Body>
          {DUE_COLUMNS.map((column) => (
            <Tick
              key={column}
              name="show"
              value={column}
              label={COLUMN_WORDS[column]}
              ticked={!chosen.hide.includes(column)}
              onChange={onChange}
            />
          ))}
          <Tick
            name="rows"
            value="comfortable"
            label="Two lines a vehicle"
            ticked={chosen.comfortable}
            onChange={onChange}
          />
          <Tick
            name="order"
            value="reversed"
            label="Reverse the order"
            ticked={chosen.order === 'reversed'}
            onChange={onChange}
          />
          <Button type="submit">Show</Button>
        </Popover.Body>
      </Popover.Content>
    </Popover.Positioner>
  </Popover.Root>
);

function Tick({
  name,
  value,
  label,
  ticked,
  onChange,
}: {
  name: string;
  value: string;
  label: string;
  ticked: boolean;
  onChange: () => void;
}) {
  return (
    <label className="tick">
      <input type="checkbox" name={name} value={value} defaultChecked={ticked} onChange={onChange} />
      {label}
    </label>
  );
}
