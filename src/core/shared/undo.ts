import type { AuditAction, AuditEntity } from './audit';

/* What a person can undo from the record, and what keeps a change from being undone. */

/** Changes that build on each other, by what they are done to: the last of a group may be undone, the others not. */
const GROUPS: { readonly [E in AuditEntity]?: readonly (readonly AuditAction<E>[])[] } = {
  'work-order': [
    ['add tasks', 'take off task', 'split'],
    ['plan', 'unplan'],
  ],
  vehicle: [['defer', 'block', 'take back deferral']],
  odometer: [['record', 'accept', 'correct', 'meter_replaced', 'reject']],
};

const UNDOABLE: { readonly [E in AuditEntity]?: readonly AuditAction<E>[] } = {
  'work-order': ['add tasks', 'take off task', 'plan', 'unplan'],
  vehicle: ['defer', 'block'],
  odometer: ['record'],
};

interface Change {
  readonly id: number;
  readonly action: string;
}

/** Whether a kind of change can be undone at all. */
export const isUndoable = (entity: AuditEntity, action: string): boolean =>
  (UNDOABLE[entity] as readonly string[] | undefined)?.includes(action) ?? false;

/**
 * What was built on a change since: the last later change of the same group.
 *
 * @param changes of one thing, in any order
 * @returns null: nothing was, so that the change may be undone
 */
export function builtOn<C extends Change>(entity: AuditEntity, change: Change, changes: readonly C[]): C | null {
  const group = (GROUPS[entity] as readonly (readonly string[])[] | undefined)?.find((actions) =>
    actions.includes(change.action),
  );
  const later = changes.filter(({ id, action }) => id > change.id && group?.includes(action));
  return later.reduce<C | null>((last, each) => (last !== null && last.id > each.id ? last : each), null);
}
