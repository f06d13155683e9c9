'use client';

import { Popover } from '@chakra-ui/react';
import { Columns3 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { type FormEvent, type RefObject, useEffect, useRef, useState } from 'react';
import { Button } from '../primitives/button';
import type { Choice } from '../primitives/field-frame';
import { SelectControl, TextControl } from '../primitives/field-frame';
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
  const data = [...new FormData(form)].filter(
    (pair): pair is [string, string] => typeof pair[1] === 'string' && pair[1] !== '',
  );
  const query = new URLSearchParams(data.filter(([name]) => name !== 'show'));
  const shown = new Set(data.flatMap(([name, value]) => (name === 'show' ? [value] : [])));
  const hide = DUE_COLUMNS.filter((column) => !shown.has(column));
  if (hide.length > 0) query.set('hide', hide.join(','));
  return query;
}

/** “/” goes to the search, unless somebody is typing. */
function useSlashToSearch(form: RefObject<HTMLFormElement | null>) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && /^(INPUT|SELECT|TEXTAREA)$/.test(event.target.tagName);
      if (event.key !== '/' || typing || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      form.current?.querySelector<HTMLInputElement>('[name=search]')?.focus();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [form]);
}

/** Filters live in the address, so that a filtered list can be sent to someone. "/" goes to the search. */
export function DueFilterBar({
  components,
  depots,
  groups,
  states,
  chosen,
}: {
  components: readonly Choice[];
  depots: readonly string[];
  groups: readonly string[];
  states: readonly Choice[];
  chosen: DueFilterChoice;
}) {
  const router = useRouter();
  const form = useRef<HTMLFormElement>(null);
  // On a phone only: elsewhere there is room for all.
  const [open, setOpen] = useState(false);
  useSlashToSearch(form);
  const show = () => form.current && router.replace(`/due?${queryOf(form.current)}`);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    show();
  };
  const key = JSON.stringify(chosen);
  return (
    <search>
      <form
        ref={form}
        action="/due"
        onSubmit={submit}
        className="filters"
        data-open={open || undefined}
        key={key}
        data-no-print
      >
        <TextControl
          name="search"
          aria-label="Search unit (press /)"
          placeholder="Unit, name, engine ( / )"
          defaultValue={chosen.search}
        />
        <Button className="filters-fold" aria-expanded={open} onClick={() => setOpen(!open)}>
          Filter and sort
        </Button>
        <div>
          <Picker
            name="component"
            label="Component"
            choices={components}
            chosen={chosen.component}
            onChange={show}
            all="What binds first"
          />
          <Picker
            name="depot"
            label="Depot"
            choices={plain(depots)}
            chosen={chosen.depot}
            onChange={show}
            all="All depots"
          />
          <Picker
            name="group"
            label="Group"
            choices={plain(groups)}
            chosen={chosen.group}
            onChange={show}
            all="All groups"
          />
          <Picker name="state" label="State" choices={states} chosen={chosen.state} onChange={show} all="All states" />
          <Picker name="sort" label="Sort by" choices={SORTS} chosen={chosen.sort} onChange={show} />
          <Laying chosen={chosen} onChange={show} />
        </div>
      </form>
    </search>
  );
}

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

interface PickerProps {
  readonly name: string;
  readonly label: string;
  readonly choices: readonly Choice[];
  readonly chosen?: string;
  readonly onChange: () => void;
  readonly all?: string;
}

const Picker = ({ name, label, choices, chosen, onChange, all }: PickerProps) => (
  <SelectControl
    name={name}
    aria-label={label}
    choices={all ? [{ value: '', label: all }, ...choices] : choices}
    defaultValue={chosen ?? ''}
    onChange={onChange}
  />
);
