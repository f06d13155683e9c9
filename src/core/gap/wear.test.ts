import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fastWear, type Wear, wearRate } from './wear';

const at = (cylinder: number, removedMm: number, over: Partial<Wear> = {}) => ({
  cylinder,
  position: 'A' as const,
  wear: { fittedMm: 1.05, removedMm, sinceKm: 92_400, ...over },
});
const fast = (...removed: number[]) => [...fastWear(removed.map((mm, i) => at(i + 1, mm))).keys()];

describe('wearRate', () => {
  it('is the growth over the distance', () => {
    expect(wearRate({ fittedMm: 1.05, removedMm: 1.31, sinceKm: 92_400 })).toBeCloseTo(2.81, 2);
  });
});

describe('fastWear', () => {
  it('tells a bank from the other', () => {
    expect(fast(1.31, 1.17, 1.36, 1.16, 1.33, 1.18)).toEqual(['1A', '3A', '5A']);
    const [one] = fastWear([1.31, 1.17, 1.36, 1.16, 1.33, 1.18].map((mm, i) => at(i + 1, mm))).values();
    expect(one?.others).toBeCloseTo(1.3, 1);
  });

  it('tells one alone, and none where all are alike or a gauge cannot tell them apart', () => {
    expect(fast(1.17, 1.16, 1.4, 1.18)).toEqual(['3A']);
    expect(fast(1.4, 1.41, 1.4, 1.42)).toEqual([]);
    expect(fast(1.06, 1.1, 1.06, 1.1)).toEqual([]);
  });

  it('compares rates, not gaps: one that has been in for twice as long may have grown twice as much', () => {
    const sites = [at(1, 1.15), at(2, 1.15), at(3, 1.25, { sinceKm: 184_800 }), at(4, 1.25)];
    expect([...fastWear(sites).keys()]).toEqual(['4A']);
  });

  it('says nothing of fewer than three', () => {
    expect(fast(1.1, 1.6)).toEqual([]);
    expect(fastWear([at(1, 1.1), at(2, 1.6), { ...at(3, 1), wear: null }]).size).toBe(0);
  });

  it('is never the whole engine, misses nobody who wears as fast as one that is told, and is the same in any order', () => {
    const gaps = fc.array(fc.double({ min: 0.9, max: 2, noNaN: true }), { minLength: 3, maxLength: 16 });
    fc.assert(
      fc.property(gaps, (removed) => {
        const sites = removed.map((mm, i) => at(i + 1, mm));
        const found = fastWear(sites);
        expect(found.size).toBeLessThan(sites.length);
        const slowest = Math.min(...[...found.values()].map(({ rate }) => rate));
        for (const { cylinder, wear } of sites) expect(found.has(`${cylinder}A`)).toBe(wearRate(wear) >= slowest);
        expect(fastWear(sites.toReversed())).toEqual(new Map([...found].toReversed()));
      }),
    );
  });
});
