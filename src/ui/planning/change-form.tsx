'use client';

import { useState } from 'react';
import { sayDay } from '@/core/calendar/day-names';
import { named, type PlanProblem } from '@/core/planning/plan-problem';
import { WHAT_IF_KINDS, type WhatIfChange } from '@/core/planning/what-if';
import { Button } from '../primitives/button';
import type { Choice } from '../primitives/field-frame';
import { LiveSelect } from '../primitives/live-fields';
import { CHANGE_KIND_WORDS, type ChangeKind } from './change-words';

interface Props {
  readonly problem: PlanProblem;
  readonly onAdd: (change: WhatIfChange) => void;
}

const choicesOf = (list: readonly { readonly id: string; readonly name?: string }[]): readonly Choice[] =>
  list.map((item) => ({ value: item.id, label: named(item) }));

/** Says one thing that would be otherwise. */
export function ChangeForm({ problem, onAdd }: Props) {
  const { days, bays, people, jobs } = problem;
  const [kind, setKind] = useState<ChangeKind>('person_away');
  const depots = [...new Set([...bays, ...jobs].map(({ depot }) => depot))].map((depot) => ({
    value: depot,
    label: depot,
  }));
  const choices: Readonly<Record<ChangeKind, readonly Choice[]>> = {
    bay_more: depots,
    bay_closed: choicesOf(bays),
    person_away: choicesOf(people),
    vehicle_away: choicesOf(jobs),
    parts_late: choicesOf(jobs),
  };
  const [chosen, setChosen] = useState<Readonly<Record<string, string>>>({});
  const which = chosen[kind] ?? choices[kind][0]?.value ?? '';
  const [from, setFrom] = useState(days[0] ?? '');
  const [to, setTo] = useState(days[0] ?? '');
  const hasSpan = kind !== 'bay_more' && kind !== 'parts_late';
  const last = to < from ? from : to;
  const dayChoices = days.map((day) => ({ value: day, label: sayDay(day) }));
  return (
    <div className="change-form">
      <LiveSelect
        label="What if"
        value={kind}
        onChange={(next) => setKind(WHAT_IF_KINDS.find((known) => known === next) ?? kind)}
        choices={WHAT_IF_KINDS.map((value) => ({ value, label: CHANGE_KIND_WORDS[value] }))}
      />
      <LiveSelect
        label={WHICH_WORDS[kind]}
        value={which}
        onChange={(next) => setChosen({ ...chosen, [kind]: next })}
        choices={[...choices[kind]]}
      />
      <LiveSelect label={DAY_WORDS[kind]} value={from} onChange={setFrom} choices={dayChoices} />
      {hasSpan && <LiveSelect label="to" value={last} onChange={setTo} choices={dayChoices} />}
      <Button disabled={which === ''} onClick={() => onAdd(changeOf(kind, which, from, last))}>
        Add
      </Button>
    </div>
  );
}

const WHICH_WORDS: Readonly<Record<ChangeKind, string>> = {
  bay_more: 'At',
  bay_closed: 'Bay',
  person_away: 'Person',
  vehicle_away: 'Vehicle',
  parts_late: 'Vehicle',
};
const DAY_WORDS: Readonly<Record<ChangeKind, string>> = {
  bay_more: 'on',
  bay_closed: 'from',
  person_away: 'from',
  vehicle_away: 'from',
  parts_late: 'not before',
};

function changeOf(kind: ChangeKind, which: string, from: string, to: string): WhatIfChange {
  switch (kind) {
    case 'bay_more':
      return { kind, depot: which, day: from };
    case 'bay_closed':
      return { kind, bay: which, from, to };
    case 'person_away':
      return { kind, person: which, from, to };
    case 'vehicle_away':
      return { kind, job: which, from, to };
    case 'parts_late':
      return { kind, job: which, until: from };
  }
}
