import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectedExcess, normalBelow } from './normal';

describe('the normal distribution', () => {
  it('is as the tables have it', () => {
    // 0, one, 1.2816 and two standard deviations.
    for (const [z, p] of [
      [0, 0.5],
      [1, 0.8413447],
      [1.2815516, 0.9],
      [2, 0.9772499],
      [-1, 0.1586553],
    ] as const)
      expect(normalBelow(z)).toBeCloseTo(p, 6);
  });

  it('rises, and both sides add up to one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -8, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 4, noNaN: true }),
        (z, more) => {
          expect(normalBelow(z + more)).toBeGreaterThanOrEqual(normalBelow(z) - 2e-7);
          expect(normalBelow(z) + normalBelow(-z)).toBeCloseTo(1, 6);
        },
      ),
    );
  });

  it('exceeds a limit by no less than its mean does, and by nothing far above', () => {
    const any = fc.double({ min: 0, max: 1e4, noNaN: true });
    fc.assert(
      fc.property(any, any, any, (mean, sd, limit) => {
        const excess = expectedExcess(mean, sd, limit);
        expect(excess).toBeGreaterThanOrEqual(Math.max(0, mean - limit) - 1e-2);
        expect(excess).toBeLessThanOrEqual(Math.max(0, mean - limit) + 0.4 * sd + 1e-2);
      }),
    );
    // At its own mean: sd / sqrt(2 pi).
    expect(expectedExcess(100, 10, 100)).toBeCloseTo(3.98942, 4);
  });
});
