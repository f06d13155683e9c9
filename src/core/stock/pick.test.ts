import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Box, pickBoxes, pickWords } from './pick';

const box = (number: string, onHand: number | null): Box => ({ number, onHand });

describe('pickBoxes', () => {
  it('takes old numbers first and mixes boxes of a renumbering', () => {
    expect(pickBoxes(6, [box('OLD', 4), box('NEW', 8)], [])).toEqual({
      kind: 'own',
      lines: [
        { number: 'OLD', count: 4 },
        { number: 'NEW', count: 2 },
      ],
      newest: 'NEW',
    });
  });

  it.each([
    [[box('OLD', 4), box('NEW', 8)], 'Take 4 × OLD: the older number of NEW, the same part.'],
    [[box('OLD', 0), box('NEW', 8)], 'Take 4 × NEW.'],
    [
      [box('OLD', 3), box('NEW', 8)],
      'Take 3 × OLD and 1 × NEW: the same part under its older and its newer number, boxes may be mixed.',
    ],
  ])('says which number is the older of the same part', (own, words) => {
    expect(pickWords(pickBoxes(4, own, []))).toBe(words);
  });

  it('takes a redesign for the whole set or not at all', () => {
    expect(pickBoxes(8, [box('A', 5)], [box('B', 8)])).toEqual({
      kind: 'redesign',
      lines: [{ number: 'B', count: 8 }],
    });
    expect(pickBoxes(8, [box('A', 5)], [box('B', 7)])).toEqual({
      kind: 'short',
      lines: [{ number: 'A', count: 5 }],
      missing: 3,
    });
  });

  it('tells what is not counted from what is not there', () => {
    expect(pickBoxes(4, [box('A', null)], [])).toEqual({ kind: 'uncounted' });
    expect(pickBoxes(4, [box('A', 0)], [])).toEqual({ kind: 'short', lines: [], missing: 4 });
  });

  it('never mixes, never takes more than lies there, and is short by what is missing', () => {
    const shelf = fc.array(fc.record({ number: fc.uuid(), onHand: fc.option(fc.nat(12)) }), { maxLength: 4 });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 16 }), shelf, shelf, (wanted, own, redesign) => {
        const pick = pickBoxes(wanted, own, redesign);
        if (pick.kind === 'uncounted') return;
        const from = pick.kind === 'redesign' ? redesign : own;
        for (const { number, count } of pick.lines)
          expect(count).toBeLessThanOrEqual(from.find((one) => one.number === number)?.onHand ?? 0);
        const taken = pick.lines.reduce((sum, { count }) => sum + count, 0);
        expect(taken + (pick.kind === 'short' ? pick.missing : 0)).toBe(wanted);
      }),
    );
  });
});
