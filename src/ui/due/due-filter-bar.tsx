'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, type ReactNode, type RefObject, useEffect, useRef, useState } from 'react';
import type { Choice } from '../primitives/options';
import { Options } from '../primitives/options';
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
  readonly dense: boolean;
}

const SORTS: readonly Choice[] = [
  { value: 'life', label: 'Life used' },
  { value: 'pressure', label: 'Service pressure' },
  { value: 'due', label: 'Due date' },
  { value: 'unit', label: 'Unit number' },
  { value: 'depot', label: 'Depot' },
  { value: 'odometer', label: 'Odometer' },
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
        <Labelled label="Search unit (press /)" id="due-search">
          <input className="field" id="due-search" name="search" defaultValue={chosen.search} />
        </Labelled>
        <button type="button" className="button filters-fold" aria-expanded={open} onClick={() => setOpen(!open)}>
          Filter and sort
        </button>
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
          <Picker
            name="order"
            label="Order"
            choices={[{ value: 'reversed', label: 'Reversed' }]}
            chosen={chosen.order}
            onChange={show}
            all="Usual"
          />
          <details className="small">
            <summary>Columns</summary>
            <div>
              {DUE_COLUMNS.map((column) => (
                <Tick
                  key={column}
                  name="show"
                  value={column}
                  label={COLUMN_WORDS[column]}
                  ticked={!chosen.hide.includes(column)}
                  onChange={show}
                />
              ))}
              <Tick name="dense" value="1" label="One line a vehicle" ticked={chosen.dense} onChange={show} />
            </div>
          </details>
          <button type="submit" className="button">
            Show
          </button>
        </div>
      </form>
    </search>
  );
}

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

function Labelled({ label, id, children }: { label: string; id: string; children: ReactNode }) {
  return (
    <div>
      <label htmlFor={id} className="soft small">
        {label}
      </label>
      {children}
    </div>
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

function Picker({ name, label, choices, chosen, onChange, all }: PickerProps) {
  return (
    <Labelled label={label} id={`due-${name}`}>
      <select id={`due-${name}`} name={name} className="field" defaultValue={chosen ?? ''} onChange={onChange}>
        {all && <option value="">{all}</option>}
        <Options choices={choices} />
      </select>
    </Labelled>
  );
}
