import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cohensKappa } from './kappa';

const repeat = (a: string, b: string, n: number): [string, string][] => Array.from({ length: n }, () => [a, b]);
const grade = fc.constantFrom('a', 'b', 'c');

describe('cohensKappa', () => {
  it('is what the two-by-two table of two readers gives: 20, 5, 10, 15 make 0.4', () => {
    const pairs = [
      ...repeat('yes', 'yes', 20),
      ...repeat('yes', 'no', 5),
      ...repeat('no', 'yes', 10),
      ...repeat('no', 'no', 15),
    ];
    expect(cohensKappa(pairs)).toBeCloseTo(0.4, 12);
  });

  it('is 1 for the same words, the same from either side, never above 1, and unknown where nothing differs', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(grade, grade), { minLength: 1 }), (pairs) => {
        const kappa = cohensKappa(pairs);
        const swapped = cohensKappa(pairs.map(([a, b]) => [b, a]));
        if (kappa === null) expect(swapped).toBeNull();
        else {
          expect(swapped).toBeCloseTo(kappa, 12);
          expect(kappa).toBeLessThanOrEqual(1 + 1e-12);
        }
        const same = cohensKappa(pairs.map(([a]) => [a, a]));
        expect(same === null || Math.abs(same - 1) < 1e-12).toBe(true);
      }),
    );
    expect(cohensKappa([])).toBeNull();
    expect(cohensKappa(repeat('a', 'a', 5))).toBeNull();
  });
});
