import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { builtOn, undoableKind } from './undo';

const trail = fc
  .array(fc.constantFrom('add tasks', 'take off task', 'split', 'plan', 'unplan', 'record', 'close'), { maxLength: 12 })
  .map((actions) => actions.map((action, i) => ({ id: i + 1, action })));
const GROUP: Readonly<Record<string, string>> = {
  'add tasks': 'tasks',
  'take off task': 'tasks',
  split: 'tasks',
  plan: 'plan',
  unplan: 'plan',
};

describe('what was built on a change', () => {
  it('is the last later one of its group, in whatever order the record is given', () => {
    fc.assert(
      fc.property(trail, fc.nat(), (changes, pick) => {
        const change = changes[pick % Math.max(1, changes.length)];
        if (!change) return;
        const later = changes.filter(
          ({ id, action }) => id > change.id && GROUP[action] !== undefined && GROUP[action] === GROUP[change.action],
        );
        expect(builtOn('work-order', change, changes)).toEqual(later.at(-1) ?? null);
        expect(builtOn('work-order', change, changes.toReversed())).toEqual(later.at(-1) ?? null);
      }),
    );
  });

  it('is asked only of what can be undone', () => {
    expect(['add tasks', 'unplan', 'close', 'split'].map((action) => undoableKind('work-order', action))).toEqual([
      'work-order add tasks',
      'work-order unplan',
      null,
      null,
    ]);
    expect(undoableKind('person', 'change password')).toBeNull();
  });
});
