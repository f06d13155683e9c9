import { TASK_COMPONENTS, type TaskComponent } from './task';

/* What an entry can be about: one place, step or count of an order, or the order itself. */

/** The record of one place: "site 3A" of a plug, "coil 3A", "cap engine". */
export const placeTarget = (component: TaskComponent, id: string): string =>
  component === 'plug' ? siteTarget(id) : `${component} ${id}`;
export const siteTarget = (id: string): string => `site ${id}`;
export const stepTarget = (key: string): string => `step ${key}`;
export const countTarget = (key: string): string => `count ${key}`;
export const ORDER_TARGET = 'order';

/** Which part at which place a target means; null: it means something else. */
export function readPlaceTarget(target: string): { readonly component: TaskComponent; readonly id: string } | null {
  const [name, id] = split(target);
  const component = name === 'site' ? 'plug' : TASK_COMPONENTS.find((known) => known === name && known !== 'plug');
  return component ? { component, id } : null;
}

const TARGET_KINDS = ['step', 'count', ORDER_TARGET] as const;
type TargetKind = 'place' | (typeof TARGET_KINDS)[number];

/** The kind of a target, null for one that no order has, and which one it is. */
export function readTarget(target: string): { readonly kind: TargetKind | null; readonly key: string } {
  const [name, key] = split(target);
  if (readPlaceTarget(target)) return { kind: 'place', key };
  return { kind: TARGET_KINDS.find((kind) => kind === name) ?? null, key };
}

function split(target: string): readonly [string, string] {
  const [name = '', ...rest] = target.split(' ');
  return [name, rest.join(' ')];
}

/** What may be said of any step besides its asks: why it is not done, what was missing or broken on arrival, a note for the next. */
export const REMARKS = ['why', 'found', 'note'] as const;
export type Remark = (typeof REMARKS)[number];

/** The answer to an ask, as a field of its step. */
export const answerField = (ask: string): string => `answer.${ask}`;
