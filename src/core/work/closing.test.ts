import { describe, expect, it } from 'vitest';
import { type Closing, missingToClose, roadTestFault } from './closing';
import type { PlaceState, TaskComponent } from './task';

const step = (state: 'open' | 'done' | 'not_done', perSite = false) => ({ title: 'Road test', perSite, state });
const at = (name: string, state: PlaceState, component: TaskComponent = 'plug') => ({
  name,
  component,
  state,
  redo: false,
});
const done = at('2', 'done');
const missing = (closing: Closing): readonly string[] =>
  missingToClose(closing).map(({ says, at: where }) => `${where}: ${says}`);
const closing = (over: Partial<Closing> = {}): Closing => ({
  places: [done],
  steps: [],
  counts: [],
  gates: [],
  differences: 0,
  waits: [],
  sheetChanged: null,
  ...over,
});

describe('missingToClose', () => {
  it('names open sites and silent steps, and takes "not done" as an answer', () => {
    expect(
      missing(
        closing({
          places: [at('2', 'open'), at('3', 'open'), at('coil 3', 'open', 'coil'), at('4', 'left'), at('5', 'moved')],
          steps: [step('open')],
        }),
      ),
    ).toEqual([
      'sites: Cylinders 2, 3, coil 3 not done yet.',
      'steps: Neither done nor marked as not done: Road test.',
    ]);
    expect(missing(closing({ steps: [step('done'), step('not_done'), step('open', true)] }))).toEqual([]);
  });

  it('holds for a count that is open, a part that is awaited, two answers to one field', () => {
    const rags = { key: 'rags_1', what: 'rags in ports', expected: 3, out: 3, back: 2, found: '' };
    expect(missing(closing({ counts: [rags], differences: 1, waits: ['a boot is torn, 1 × CB-5'] }))).toEqual([
      'sites: One field has two answers: choose at the vehicle.',
      'head: Waits: a boot is torn, 1 × CB-5.',
      'steps: rags in ports: 3 out and 2 back. Find the missing 1 before anything turns.',
    ]);
    expect(missing(closing({ counts: [{ ...rags, back: 3 }] }))).toEqual([]);
  });

  it('holds for another sheet, and for what was done under the one before', () => {
    expect(
      missing(closing({ places: [{ ...done, redo: true }], sheetChanged: 'Another sheet is in force now.' })),
    ).toEqual([
      'head: Another sheet is in force now. Take it over, or have a supervisor decide.',
      'head: Cylinder 2 done under another sheet than the one in force: redo, or release with a reason.',
    ]);
  });
});

describe('the odometer at the close', () => {
  it('follows the end of the road test on the same dash', () => {
    expect(roadTestFault(102_912, '102,912', false)).toBeNull();
    expect(roadTestFault(102_920, '102912 km', false)).toBeNull();
    expect(roadTestFault(102_920, '102 912.4 km', false)).toBeNull();
    expect(roadTestFault(102_912, '42912', false)).toContain('ended at 42912');
    expect(roadTestFault(102_900, '102912', false)).toContain('ended at 102912');
    // What is only about so much may lie a little below.
    expect(roadTestFault(102_900, '102912', true)).toBeNull();
    expect(roadTestFault(102_900, undefined, false)).toBeNull();
  });
});
