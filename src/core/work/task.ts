import type { RemovalReason } from '../components/history';
import type { Component } from '../engine/quantities';

/* A task: one action on one component at some places. A work order, one stay of one vehicle, has one or more. */

/** replace: old out, new in; inspect: looked at, and back in; test: measured or swapped. */
export const TASK_ACTIONS = ['replace', 'inspect', 'test'] as const;
export type TaskAction = (typeof TASK_ACTIONS)[number];

/** What can be worked on. */
export const TASK_COMPONENTS = ['plug', 'coil', 'rail', 'boot', 'lead', 'lead_set', 'cap', 'rotor', 'seal'] as const;
export type TaskComponent = (typeof TASK_COMPONENTS)[number];

export const isTaskComponent = (component: Component): component is TaskComponent =>
  (TASK_COMPONENTS as readonly string[]).includes(component);

/** Why a task is done. */
export const TASK_WHYS = [
  'due',
  'with_other_work',
  'finding',
  'misfire',
  'reported',
  'follow_up',
  'trial',
  'recalled_lot',
] as const;
export type TaskWhy = (typeof TASK_WHYS)[number];

/** open; done; moved: to another visit; left: as it was, for a reason. */
export const PLACE_STATES = ['open', 'done', 'moved', 'left'] as const;
export type PlaceState = (typeof PLACE_STATES)[number];

/** What became of a place: where it is moved nothing else counts, and what is done is not left. */
export function placeState(place: {
  readonly moved: boolean;
  readonly done: boolean;
  readonly left: boolean;
}): PlaceState {
  if (place.moved) return 'moved';
  if (place.done) return 'done';
  return place.left ? 'left' : 'open';
}

/** Why a part comes out, by why its task is done, unless somebody says otherwise at its place. */
const REASON_OF: Readonly<Record<TaskWhy, RemovalReason>> = {
  due: 'planned',
  with_other_work: 'with_other_work',
  finding: 'found_damaged',
  misfire: 'failed',
  reported: 'failed',
  follow_up: 'planned',
  trial: 'planned',
  recalled_lot: 'recalled_lot',
};

/** Why the parts of a task come out. What an inspection or a test replaces on the spot was found damaged. */
export const removalReasonOf = (action: TaskAction, why: TaskWhy): RemovalReason =>
  action === 'replace' ? REASON_OF[why] : 'found_damaged';
