'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, type ReactNode, useRef, useState } from 'react';
import { Button } from './button';
import { DateControl } from './date-control';
import { type Choice, SelectControl, TextControl } from './field-frame';
import { useSlashToSearch } from './slash-to-search';

interface Filter {
  readonly name: string;
  readonly label: string;
  readonly chosen?: string;
  /** What can be chosen; left out: a day. */
  readonly choices?: readonly Choice[];
  /** The words for “no filter”; left out: one of the choices always holds. */
  readonly all?: string;
}

interface Props {
  /** The page that is filtered: its address carries the filter. */
  readonly action: string;
  /** The search field: what it finds, and what it holds. */
  readonly search: { readonly placeholder: string; readonly chosen?: string };
  readonly filters: readonly Filter[];
  /** The address' query for the form as it is; by default each field that is not empty. */
  readonly queryOf?: (form: HTMLFormElement) => URLSearchParams;
  /** More controls, given what shows the list anew. */
  readonly more?: (show: () => void) => ReactNode;
}

/** Filters live in the address, so that a filtered list can be sent to someone. "/" goes to the search. */
export function FilterBar({ action, search, filters, queryOf = plainQuery, more }: Props) {
  const router = useRouter();
  const form = useRef<HTMLFormElement>(null);
  const field = useRef<HTMLInputElement>(null);
  // On a phone only: elsewhere there is room for all.
  const [open, setOpen] = useState(false);
  useSlashToSearch(field);
  const show = () => form.current && router.replace(`${action}?${queryOf(form.current)}`);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    show();
  };
  return (
    <search>
      <form
        ref={form}
        action={action}
        onSubmit={submit}
        className="filters"
        data-open={open || undefined}
        key={JSON.stringify([search, filters])}
        data-no-print
      >
        {/* With several text fields the Enter key sends a form only by a button. */}
        <button type="submit" hidden />
        <TextControl
          ref={field}
          name="search"
          aria-label="Search (press /)"
          placeholder={search.placeholder}
          defaultValue={search.chosen}
        />
        <Button className="filters-fold" aria-expanded={open} onClick={() => setOpen(!open)}>
          Filter and sort
        </Button>
        <div>
          {filters.map((filter) => (
            <FilterControl key={filter.name} filter={filter} onChange={show} />
          ))}
          {more?.(show)}
        </div>
      </form>
    </search>
  );
}

function FilterControl({ filter, onChange }: { filter: Filter; onChange: () => void }) {
  const { name, label, chosen = '', choices, all } = filter;
  if (!choices)
    return (
      <span className="filter-day">
        <span aria-hidden>{label}</span>
        <DateControl name={name} aria-label={label} defaultValue={chosen} onChange={onChange} />
      </span>
    );
  return (
    <SelectControl
      name={name}
      aria-label={label}
      choices={all ? [{ value: '', label: all }, ...choices] : choices}
      defaultValue={chosen}
      onChange={onChange}
    />
  );
}

/** The fields of a form that hold something, each as one parameter. */
export const plainQuery = (form: HTMLFormElement): URLSearchParams =>
  new URLSearchParams(
    [...new FormData(form)].filter((pair): pair is [string, string] => typeof pair[1] === 'string' && pair[1] !== ''),
  );
