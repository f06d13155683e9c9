'use client';

import { Box, Button, chakra, Flex, Input, NativeSelect } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { type FormEvent, type ReactNode, type RefObject, useEffect, useRef } from 'react';
import type { Choice } from '../primitives/options';
import { Options } from '../primitives/options';
import { COLUMN_WORDS, DUE_COLUMNS, type DueColumn } from './due-row';

interface DueFilterChoice {
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
  depots,
  groups,
  states,
  chosen,
}: {
  depots: readonly string[];
  groups: readonly string[];
  states: readonly Choice[];
  chosen: DueFilterChoice;
}) {
  const router = useRouter();
  const form = useRef<HTMLFormElement>(null);
  useSlashToSearch(form);
  const show = () => form.current && router.replace(`/due?${queryOf(form.current)}`);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    show();
  };
  const key = JSON.stringify(chosen);
  return (
    <chakra.form ref={form} action="/due" onSubmit={submit} mb="4" role="search" key={key} data-no-print>
      <Flex gap="3" wrap="wrap" align="end">
        <Labelled label="Search unit (press /)" id="due-search">
          <Input
            id="due-search"
            name="search"
            defaultValue={chosen.search}
            size="sm"
            bg="sheet"
            rounded="sm"
            borderColor="line"
            w="170px"
          />
        </Labelled>
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
        <chakra.details fontSize="sm" alignSelf="center">
          <summary>Columns</summary>
          <Box>
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
          </Box>
        </chakra.details>
        <Button type="submit" size="sm" variant="outline" rounded="sm" borderColor="line">
          Show
        </Button>
      </Flex>
    </chakra.form>
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
    <chakra.label display="flex" gap="2" alignItems="center" minH="28px">
      <input type="checkbox" name={name} value={value} defaultChecked={ticked} onChange={onChange} />
      {label}
    </chakra.label>
  );
}

function Labelled({ label, id, children }: { label: string; id: string; children: ReactNode }) {
  return (
    <Box color="soft" fontSize="sm">
      <chakra.label htmlFor={id} display="block">
        {label}
      </chakra.label>
      {children}
    </Box>
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
      <NativeSelect.Root size="sm" w="auto" minW="120px" color="ink">
        <NativeSelect.Field
          id={`due-${name}`}
          name={name}
          defaultValue={chosen ?? ''}
          onChange={onChange}
          bg="sheet"
          rounded="sm"
          borderColor="line"
        >
          {all && <option value="">{all}</option>}
          <Options choices={choices} />
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
    </Labelled>
  );
}
