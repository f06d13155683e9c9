import { describe, expect, it } from 'vitest';
import { type Closing, closingBlockers } from './closing';

const step = (state: 'open' | 'done' | 'not_done', perSite = false) => ({ title: 'Road test', perSite, state });
const done = { name: '2', done: true, redo: false };
const closing = (over: Partial<Closing> = {}): Closing => ({
  sites: [done],
  steps: [],
  counts: [],
  differences: 0,
  waits: [],
  sheetChanged: null,
  ...over,
});

describe('closingBlockers', () => {
  it('names open sites and silent steps, and takes "not done" as an answer', () => {
    expect(
      closingBlockers(
        closing({
          sites: [
            { name: '2', done: false, redo: false },
            { name: '3', done: false, redo: false },
          ],
          steps: [step('open')],
        }),
      ),
    ).toEqual(['Sites 2, 3 not done yet.', 'Neither done nor marked as not done: Road test.']);
    expect(closingBlockers(closing({ steps: [step('done'), step('not_done'), step('open', true)] }))).toEqual([]);
  });

  it('holds for a count that is open, a part that is awaited, two answers to one field', () => {
    const rags = { key: 'rags_1', what: 'rags in ports', expected: 3, out: 3, back: 2 };
    expect(closingBlockers(closing({ counts: [rags], differences: 1, waits: ['a boot is torn, 1 × CB-5'] }))).toEqual([
      'One field has two answers: choose at the vehicle.',
      'Waits: a boot is torn, 1 × CB-5.',
      'rags in ports: 3 out and 2 back. Find the missing 1 before anything turns.',
    ]);
    expect(closingBlockers(closing({ counts: [{ ...rags, back: 3 }] }))).toEqual([]);
  });

  it('holds for another sheet, and for what was done under the one before', () => {
    expect(
      closingBlockers(closing({ sites: [{ ...done, redo: true }], sheetChanged: 'Another sheet is in force now.' })),
    ).toEqual([
      'Another sheet is in force now. Take it over, or have a supervisor decide.',
      'Site 2 done under another sheet than the one in force: redo, or release with a reason.',
    ]);
  });
});
