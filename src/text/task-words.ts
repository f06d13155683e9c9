import type { Ohm } from '@/core/shared/kinds';
import { sayOhms } from '@/core/units/say';
import type { PlaceResult } from '@/core/work/place-fields';
import { PART_WORDS } from '@/core/work/say-places';
import type { PlaceState, TaskAction, TaskComponent, TaskWhy } from '@/core/work/task';

export const ACTION_WORDS: Readonly<Record<TaskAction, string>> = {
  replace: 'Replace',
  inspect: 'Inspect',
  test: 'Test',
};

export const WHY_WORDS: Readonly<Record<TaskWhy, string>> = {
  due: 'due',
  with_other_work: 'with other work',
  finding: 'answers a finding',
  misfire: 'misfire',
  reported: 'reported fault',
  follow_up: 'follow-up',
  trial: 'trial',
  recalled_lot: 'lot recalled',
};

export const PLACE_STATE_WORDS: Readonly<Record<PlaceState, string>> = {
  open: 'to do',
  done: 'done',
  moved: 'on another visit',
  left: 'left as it was',
};

export const RESULT_WORDS: Readonly<Record<PlaceResult, string>> = {
  good: 'good',
  replaced: 'replaced',
  bad: 'bad, still in',
};

const PLURALS: Readonly<Record<TaskComponent, string>> = {
  plug: 'plugs',
  coil: 'coils',
  rail: 'coil rails',
  boot: 'boots',
  lead: 'leads',
  lead_set: 'lead sets',
  cap: 'distributor caps',
  rotor: 'rotors',
  seal: 'tube seals',
};

/** A component as a list names it: "coils"; one of them: "coil". */
export const partsText = (component: TaskComponent, count: number): string =>
  count === 1 ? PART_WORDS[component] : PLURALS[component];

/** What was measured at a part that is no plug, a phrase each; empty: nothing. */
export const measuredTexts = ({
  primaryOhm,
  secondaryOhm,
  ohm,
}: {
  readonly primaryOhm: Ohm | null;
  readonly secondaryOhm: Ohm | null;
  readonly ohm: Ohm | null;
}): readonly string[] => [
  ...(primaryOhm === null ? [] : [`primary ${sayOhms(primaryOhm)}`]),
  ...(secondaryOhm === null ? [] : [`secondary ${sayOhms(secondaryOhm)}`]),
  ...(ohm === null ? [] : [sayOhms(ohm)]),
];

/** "Replace plugs", "Test coil" */
export const taskText = (action: TaskAction, component: TaskComponent, count: number): string =>
  `${ACTION_WORDS[action]} ${partsText(component, count)}`;
