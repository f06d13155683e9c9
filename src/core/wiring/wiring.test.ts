import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine } from '../engine/any-engine.fixture';
import { companions } from '../engine/coils';
import { checkIndexing, leadSwapEffect, towerMap, wastePolarity } from './firing-map';
import { matchLeads } from './lead-match';

const order = [1, 5, 3, 6, 2, 4];
const clockwise = { rotation: 'clockwise', towerOfCylinder1: 5 } as const;

describe('towerMap', () => {
  it('runs through the towers in firing order, the way the rotor turns', () => {
    const cylinders = (map: ReturnType<typeof towerMap>): number[] => map.map((t) => t.cylinder);
    expect(cylinders(towerMap(order, clockwise))).toEqual([3, 6, 2, 4, 1, 5]);
    expect(cylinders(towerMap(order, { ...clockwise, rotation: 'counterclockwise' }))).toEqual([2, 6, 3, 5, 1, 4]);
    expect(cylinders(towerMap([1, 3, 4, 2], { rotation: 'clockwise', towerOfCylinder1: 1 }))).toEqual([1, 3, 4, 2]);
  });

  it('for any engine gives each tower one cylinder, and walking the rotor gives back the firing order', () => {
    fc.assert(
      fc.property(
        anyEngine,
        fc.nat(),
        fc.constantFrom('clockwise' as const, 'counterclockwise' as const),
        ({ firingOrder }, at, rotation) => {
          const n = firingOrder.length;
          const tower = (at % n) + 1;
          const map = towerMap(firingOrder, { rotation, towerOfCylinder1: tower });
          expect(map.map((t) => t.tower)).toEqual(Array.from({ length: n }, (_, i) => i + 1));
          const step = rotation === 'clockwise' ? 1 : n - 1;
          const walked = Array.from({ length: n }, (_, i) => map[(tower - 1 + i * step) % n]?.cylinder ?? 0);
          const from = firingOrder.indexOf(1);
          expect(walked).toEqual([...firingOrder.slice(from), ...firingOrder.slice(0, from)]);
        },
      ),
    );
  });

  it('refuses an order without cylinder 1', () => {
    expect(() => towerMap([2, 3], clockwise)).toThrow(RangeError);
  });
});

describe('checkIndexing', () => {
  it('tells a turned distributor from swapped leads by two traced leads', () => {
    expect(
      checkIndexing(order, clockwise, [
        { tower: 5, cylinder: 1 },
        { tower: 6, cylinder: 5 },
      ]),
    ).toEqual({ kind: 'as-recorded' });
    expect(
      checkIndexing(order, clockwise, [
        { tower: 1, cylinder: 1 },
        { tower: 2, cylinder: 5 },
      ]),
    ).toEqual({
      kind: 'turned',
      towers: 2,
      towerOfCylinder1: 1,
    });
    expect(
      checkIndexing(order, clockwise, [
        { tower: 5, cylinder: 5 },
        { tower: 6, cylinder: 1 },
      ]).kind,
    ).toBe('contradiction');
    expect(checkIndexing(order, clockwise, [{ tower: 5, cylinder: 1 }]).kind).toBe('contradiction');
    expect(
      checkIndexing(order, clockwise, [
        { tower: 1, cylinder: 9 },
        { tower: 2, cylinder: 9 },
      ]).kind,
    ).toBe('contradiction');
  });

  it('finds any turn from any two leads', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 5 }),
        fc.shuffledSubarray([0, 1, 2, 3, 4, 5], { minLength: 2, maxLength: 2 }),
        (turn, at) => {
          const truth = towerMap(order, { ...clockwise, towerOfCylinder1: ((4 + turn) % 6) + 1 });
          const seen = at.flatMap((i) => truth[i] ?? []);
          const found = checkIndexing(order, clockwise, seen);
          expect(found.kind === 'turned' ? found.towers : 0).toBe(turn);
          expect(found.kind).not.toBe('contradiction');
        },
      ),
    );
  });
});

describe('waste spark', () => {
  const pairs = companions(order);
  it('swapped leads do nothing between companions and stop both elsewhere', () => {
    expect(leadSwapEffect(pairs, 1, 6)).toBe('polarity-only');
    expect(leadSwapEffect(pairs, 1, 5)).toBe('both-misfire');
    expect(leadSwapEffect(pairs, 4, 4)).toBe('none');
  });

  it('wears the two plugs of a coil differently', () => {
    const wear = new Map(wastePolarity(pairs).map((p) => [p.cylinder, p.wearsMore]));
    for (const [a, b] of pairs) expect(new Set([wear.get(a), wear.get(b)])).toEqual(new Set(['centre', 'ground']));
  });
});

describe('matchLeads', () => {
  const vectors = JSON.parse(readFileSync('tests/vectors/lead_match.json', 'utf8'));
  it.each(
    vectors.cases as {
      needed_mm: number[];
      new_set_mm: number[];
      expect: { feasible: boolean; total_slack_mm: number | null };
    }[],
  )('agrees with a general assignment solver: $expect', ({ needed_mm, new_set_mm, expect: expected }) => {
    const found = matchLeads(needed_mm, new_set_mm);
    expect(found.feasible).toBe(expected.feasible);
    if (expected.total_slack_mm === null) expect(found.totalSlackMm).toBeNull();
    else expect(found.totalSlackMm).toBeCloseTo(expected.total_slack_mm, 9);
  });

  const best = (needed: readonly number[], leads: readonly number[]): number | null => {
    const [first, ...rest] = needed;
    if (first === undefined) return 0;
    const tries = leads.flatMap((length, i) => {
      if (length < first) return [];
      const others = best(
        rest,
        leads.filter((_, j) => j !== i),
      );
      return others === null ? [] : [length - first + others];
    });
    return tries.length > 0 ? Math.min(...tries) : null;
  };

  it('finds the least slack that trying every assignment finds, with leads to spare too', () => {
    const length = fc.integer({ min: 3, max: 12 }).map((n) => n * 100);
    fc.assert(
      fc.property(
        fc.array(length, { minLength: 1, maxLength: 5 }),
        fc.array(length, { maxLength: 6 }),
        (needed, leads) => {
          const found = matchLeads(needed, leads);
          expect(found.totalSlackMm).toBe(best(needed, leads));
          expect(new Set(found.assignment).size).toBe(found.assignment.length);
          found.assignment.forEach((lead, place) => {
            expect(leads[lead]).toBeGreaterThanOrEqual(needed[place] ?? Number.POSITIVE_INFINITY);
          });
          if (found.feasible) expect(found.assignment.length + found.spare.length).toBe(leads.length);
        },
      ),
    );
  });

  it('keeps the order of lengths, shows ties, and names the place that no lead reaches', () => {
    expect(matchLeads([400, 600], [650, 500])).toMatchObject({ assignment: [1, 0], ties: [] });
    expect(matchLeads([400, 420], [500, 500])).toMatchObject({ ties: [0, 1] });
    expect(matchLeads([400, 900], [500, 800])).toMatchObject({ feasible: false, tooShortFor: 1, totalSlackMm: null });
    expect(matchLeads([400, 600], [650])).toMatchObject({ feasible: false });
    expect(matchLeads([], [500])).toMatchObject({ feasible: true, totalSlackMm: 0, spare: [0] });
  });
});
