import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { effectiveRate, groupAround, groupRate, ownRateOfFew, ownRate as useRate } from './use-rate';

interface Vector {
  days: number[];
  odometer_km: number[];
  expect: { rate_km_per_day: number; rate_ci80: [number, number] };
}
const vectors: { cases: Vector[] } = JSON.parse(readFileSync('tests/vectors/theil_sen.json', 'utf8'));
const zip = (v: Vector) => v.days.map((day, i) => ({ day, km: v.odometer_km[i] ?? 0 }));

describe('useRate', () => {
  it.each(vectors.cases.map((v, i) => [i, v] as const))('agrees with the reference, case %i', (_, v) => {
    const rate = useRate(zip(v));
    expect(rate?.kmPerDay).toBeCloseTo(v.expect.rate_km_per_day, 8);
    expect(rate?.ci80[0]).toBeCloseTo(v.expect.rate_ci80[0], 8);
    expect(rate?.ci80[1]).toBeCloseTo(v.expect.rate_ci80[1], 8);
    expect(rate?.used).toBe(v.days.length);
  });

  it('looks at the last 180 days only', () => {
    const old = [0, 10, 20].map((day) => ({ day, km: day * 500 }));
    const recent = [300, 320, 340, 360].map((day) => ({ day, km: 10_000 + day * 40 }));
    expect(useRate([...old, ...recent])).toMatchObject({ kmPerDay: 40, used: 4 });
  });

  it('borrows from the group below 3 readings or 14 days, and says so', () => {
    const group = groupAround(50);
    const short = [0, 5, 10].map((day) => ({ day, km: day * 90 }));
    expect(useRate(short)).toBeNull();
    expect(effectiveRate(useRate(short), group)).toMatchObject({ kmPerDay: 50, borrowed: true, used: 0 });
    expect(effectiveRate(useRate([]), group)?.groupSpread).toBeCloseTo(Math.log(3) / 2 / 1.2816, 3);
    const own = useRate([0, 30, 60].map((day) => ({ day, km: day * 90 })));
    expect(effectiveRate(own, group)).toBe(own);
  });

  it('of a vehicle read once a quarter comes from its last three, over two years at most', () => {
    const every = (days: number) => [0, 1, 2, 3].map((i) => ({ day: i * days, km: i * days * 30 }));
    expect(useRate(every(91))).toBeNull();
    expect(ownRateOfFew(every(91))).toMatchObject({ kmPerDay: 30, used: 3, observedDays: 182 });
    expect(ownRateOfFew(every(400))).toBeNull();
    expect(ownRateOfFew(every(30))).toEqual(useRate(every(30)));
  });

  it('recovers a steady rate whatever the order, and its interval holds it', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 180 }), { minLength: 6, maxLength: 30 }),
        fc.double({ min: 0.5, max: 900, noNaN: true }),
        (days, perDay) => {
          fc.pre(Math.max(...days) - Math.min(...days) >= 14);
          const rate = useRate(days.map((day) => ({ day, km: 1000 + perDay * day })));
          expect(rate?.kmPerDay).toBeCloseTo(perDay, 6);
          expect((rate?.ci80[0] ?? 0) - 1e-9).toBeLessThanOrEqual(rate?.kmPerDay ?? 0);
          expect((rate?.ci80[1] ?? 0) + 1e-9).toBeGreaterThanOrEqual(rate?.kmPerDay ?? 0);
        },
      ),
    );
  });
});

describe('groupRate', () => {
  it('is none without vehicles, and spans their middle otherwise', () => {
    expect(groupRate([])).toBeNull();
    expect(groupRate([30, 50, 40])?.medianKmPerDay).toBe(40);
    expect(groupRate([40])).toEqual(groupAround(40));
  });
});
