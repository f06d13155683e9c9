import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type CaseEntry, homeOf, type Said, storyOf, whereNow } from './case-entry';
import { afterDecision, CASE_STATES, DECISIONS, isSameCase } from './case-state';
import { rangeChange, rangePerTank } from './tank';

const entries = (...said: readonly Said[]): readonly CaseEntry[] =>
  said.map((one, i) => ({ id: String(i), said: one }));
const swapped = (from: number, to: number, part: 'coil' | 'plug' = 'coil'): Said => ({
  kind: 'swapped',
  moved: [part],
  from,
  to,
});
const drove = (from: number, to: number): Said => ({
  kind: 'test',
  test: { test: 'swap', moved: ['coil'], from, to, outcome: 'stayed' },
});

describe('what the entries of a case come to', () => {
  it('gathers codes, symptoms and finds, the last counts, and the worst that the lamp did', () => {
    const story = storyOf(
      entries(
        { kind: 'complaint', words: 'shakes', symptoms: ['load'], lamp: 'flashing', cylinders: [3] },
        { kind: 'codes', codes: [{ code: 'P0302', freeze: {} }], source: 'typed' },
        { kind: 'counts', counts: [{ cylinder: 2, misfires: 10 }] },
        { kind: 'complaint', words: 'now at idle too', symptoms: ['load', 'idle'], lamp: 'on', cylinders: [] },
        { kind: 'counts', counts: [{ cylinder: 2, misfires: 143 }] },
        {
          kind: 'codes',
          codes: [
            { code: 'P0302', freeze: {} },
            { code: 'P0300', freeze: {} },
          ],
          source: 'reader',
        },
        { kind: 'found', cylinder: 2, word: 'well_wet' },
      ),
    );
    expect(story).toMatchObject({
      codes: ['P0302', 'P0300'],
      symptoms: ['load', 'idle'],
      lamp: 'flashing',
      spoken: [3],
      counts: [{ cylinder: 2, per1000: 143 }],
      found: [{ cylinder: 2, word: 'well_wet' }],
      underway: null,
    });
  });

  it('knows a swap that nobody has driven yet, and forgets it once it is driven or put back', () => {
    expect(storyOf(entries(swapped(2, 4))).underway).toEqual({ moved: ['coil'], from: 2, to: 4 });
    expect(storyOf(entries(swapped(2, 4), drove(2, 4))).underway).toBeNull();
    expect(storyOf(entries(swapped(2, 4), drove(2, 4))).away).toHaveLength(1);
    const back: Said = { kind: 'put_back', moved: ['coil'], from: 4, to: 2 };
    expect(storyOf(entries(swapped(2, 4), back))).toMatchObject({ underway: null, away: [] });
  });

  it('finds a part again wherever swaps have taken it, and each place its own part', () => {
    const pair = fc.tuple(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 6 })).filter(([a, b]) => a !== b);
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 6 }), (swaps) => {
        const { away } = storyOf(entries(...swaps.map(([from, to]) => swapped(from, to))));
        const at = [1, 2, 3, 4, 5, 6].map((home) => whereNow(away, 'coil', home));
        expect([...at].sort()).toEqual([1, 2, 3, 4, 5, 6]);
        for (const home of [1, 2, 3, 4, 5, 6]) {
          expect(homeOf(away, 'coil', whereNow(away, 'coil', home))).toBe(home);
          expect(whereNow(away, 'plug', home)).toBe(home);
        }
      }),
    );
  });
});

describe('the range of a tank', () => {
  it('brings a drive on part of a tank to a whole one', () => {
    expect(rangePerTank({ km: 300, from: 1, to: 0.5 })).toBe(600);
    expect(rangePerTank({ km: 30, from: 1, to: 0.9 })).toBeNull();
  });

  it('says what it lost, however much of a tank each drive took', () => {
    const share = fc.double({ min: 0.2, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.double({ min: 100, max: 900, noNaN: true }), share, share, (range, a, b) => {
        const drive = (km: number, used: number) => ({ km: km * used, from: 1, to: 1 - used });
        const change = rangeChange(drive(range, a), drive(range * 0.88, b));
        // 1 - 0.2 used again may be a hair under it.
        if (change !== null) expect(change).toBeCloseTo(-0.12, 9);
      }),
    );
  });
});

describe('how a case goes on', () => {
  it('ends from wherever it is looked into, and comes back from wherever it went', () => {
    expect(afterDecision('open', 'mend')).toBe('mending');
    expect(afterDecision('mending', 'watch')).toBe('watching');
    expect(afterDecision('watching', 'close')).toBe('closed');
    for (const state of CASE_STATES.filter((one) => one !== 'open'))
      expect(afterDecision(state, 'reopen')).toBe('open');
    for (const decision of DECISIONS.filter((one) => one !== 'reopen'))
      expect(afterDecision('closed', decision)).toBeNull();
  });

  it('is the same case where it comes back soon', () => {
    expect(isSameCase(100_000, 100_700)).toBe(true);
    expect(isSameCase(100_000, 109_000)).toBe(false);
    expect(isSameCase(null, 100_000)).toBe(false);
  });
});
