import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lookAhead, waitingCost, withMore } from './look-ahead';

const minutes = fc.integer({ min: 0, max: 20_000 });
const anyMonths = fc.array(
  fc.record({ mean: minutes, sd: fc.integer({ min: 0, max: 2000 }), bays: minutes, people: minutes }),
  { minLength: 1, maxLength: 6 },
);
type Months = { mean: number; sd: number; bays: number; people: number }[];
const workOf = (months: Months) => months.map(({ mean, sd }) => ({ mean, variance: sd * sd }));

describe('looking ahead', () => {
  it('carries over what hours do not do, and says which of bays and people run out', () => {
    const work = [600, 600, 100].map((mean) => ({ mean, variance: 0 }));
    const hours = [
      { bays: 480, people: 900 },
      { bays: 900, people: 480 },
      { bays: 480, people: 480 },
    ];
    const ahead = lookAhead(work, hours, 0.01);
    expect(ahead.map(({ left }) => left)).toEqual([120, 240, 0]);
    expect(ahead.map(({ carried }) => carried)).toEqual([0, 120, 240]);
    expect(ahead.map(({ binds }) => binds)).toEqual(['bays', 'people', 'bays']);
    expect(ahead.map(({ chance }) => chance)).toEqual([1, 1, 0]);
    expect(waitingCost(ahead)).toBeCloseTo(360 * 0.01 * 4.348, 2);
  });

  it('never gets worse by more bays or people, and loses nothing', () => {
    fc.assert(
      fc.property(anyMonths, minutes, (months, more) => {
        const work = workOf(months);
        const before = lookAhead(work, months, 0.02);
        const after = lookAhead(
          work,
          withMore(
            months,
            months.map(() => ({ bays: more, people: more })),
          ),
          0.02,
        );
        expect(waitingCost(after)).toBeLessThanOrEqual(waitingCost(before) + 1e-3);
        for (const [i, month] of before.entries()) {
          expect(after[i]?.left).toBeLessThanOrEqual(month.left + 1e-3);
          expect(month.left).toBeGreaterThanOrEqual(month.carried + month.mean - month.hours - 1e-2);
          expect(month.chance).toBeGreaterThanOrEqual(0);
          expect(month.chance).toBeLessThanOrEqual(1);
          expect(month.p10).toBeLessThanOrEqual(month.mean);
        }
      }),
    );
  });
});
