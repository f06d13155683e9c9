import type { AuditAction, AuditEntity } from './audit';

/* What a person can undo from the record, and what keeps a change from being undone. */

interface Group {
  /** What its changes change, within a sentence. */
  readonly what: string;
  readonly actions: readonly string[];
}

/** Changes that build on each other, by what they are done to: the last of a group may be undone, the others not. */
const GROUPS: { readonly [E in AuditEntity]?: readonly (Group & { readonly actions: readonly AuditAction<E>[] })[] } = {
  'work-order': [
    { what: 'tasks', actions: ['add tasks', 'take off task', 'split'] },
    { what: 'booking', actions: ['plan', 'unplan'] },
  ],
  vehicle: [{ what: 'deferral', actions: ['defer', 'block', 'take back deferral'] }],
  absence: [{ what: 'absence', actions: ['create', 'remove'] }],
  costs: [{ what: 'costs', actions: ['change'] }],
  'electrode-ceiling': [{ what: 'limit', actions: ['choose', 'take back'] }],
  policy: [{ what: 'choice', actions: ['choose', 'take back'] }],
  odometer: [{ what: 'readings', actions: ['record', 'accept', 'correct', 'meter_replaced', 'reject'] }],
};

/** What a change changes, with all changes of the same kind; null: it can never be undone. */
export const changeGroup = (entity: AuditEntity, action: string): Group | null =>
  (GROUPS[entity] as readonly Group[] | undefined)?.find(({ actions }) => actions.includes(action)) ?? null;

type Kinds = { readonly [E in AuditEntity]: `${E} ${AuditAction<E>}` }[AuditEntity];

/** Kinds of changes that can be undone. */
export const UNDOABLE = [
  'work-order add tasks',
  'work-order take off task',
  'work-order plan',
  'work-order unplan',
  'vehicle defer',
  'vehicle block',
  'odometer record',
  'absence create',
  'absence remove',
  'costs change',
  'electrode-ceiling choose',
  'electrode-ceiling take back',
  'policy choose',
  'policy take back',
] as const satisfies readonly Kinds[];

interface Change {
  readonly id: number;
  readonly action: string;
}

/** The kind of a change, where it can be undone; null: it cannot. */
export const undoableKind = (entity: string, action: string): (typeof UNDOABLE)[number] | null =>
  UNDOABLE.find((kind) => kind === `${entity} ${action}`) ?? null;

/**
 * What was built on a change since: the last later change of the same group.
 *
 * @param changes of one thing, in any order
 * @returns null: nothing was, so that the change may be undone
 */
export function builtOn<C extends Change>(entity: AuditEntity, change: Change, changes: readonly C[]): C | null {
  const group = changeGroup(entity, change.action);
  const later = changes.filter(({ id, action }) => id > change.id && group?.actions.includes(action));
  return later.reduce<C | null>((last, each) => (last !== null && last.id > each.id ? last : each), null);
}
