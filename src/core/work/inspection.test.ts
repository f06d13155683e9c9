import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { remainingKm, wornOutAt } from './inspection';

const gap = { minMm: 1, maxMm: 1.1 };

describe('what a plug that was looked at has left', () => {
  it('is the way to its worn-out gap at its own growth, with something to spare', () => {
    expect(wornOutAt(gap)).toBeCloseTo(1.365);
    // 0.2 mm at 4 µm per 1,000 km are 50,000 km; 70 % of them are promised.
    expect(remainingKm(1.165, gap, 4)).toBe(35_000);
    expect(remainingKm(1.4, gap, 4)).toBe(0);
  });

  it('never grows with the gap or its wear, and is whole thousands within what anyone is told', () => {
    const mm = fc.double({ min: 0.5, max: 1.6, noNaN: true });
    const growth = fc.option(fc.double({ min: -2, max: 30, noNaN: true }));
    fc.assert(
      fc.property(mm, mm, growth, (a, b, rate) => {
        const [less, more] = [Math.min(a, b), Math.max(a, b)];
        const [left, later] = [remainingKm(less, gap, rate), remainingKm(more, gap, rate)];
        expect(left).toBeGreaterThanOrEqual(later);
        expect([left % 1000, left <= 60_000, later >= 0]).toEqual([0, true, true]);
        if (rate !== null) expect(remainingKm(less, gap, rate + 1)).toBeLessThanOrEqual(left);
      }),
    );
  });
});
