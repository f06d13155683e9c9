import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ACCESS_CLASSES } from '../../engine/access';
import { normal, seeded } from '../../stats/seeded';
import { learntMinutes, type TimeRatio } from './learned';

const anyAccess = fc.constantFrom(...ACCESS_CLASSES);
const anyRatios = fc.array(fc.record({ access: anyAccess, ratio: fc.double({ min: 0.3, max: 3.5, noNaN: true }) }), {
  maxLength: 40,
});
const alike = (count: number, ratio: number): TimeRatio[] =>
  Array.from({ length: count }, () => ({ access: 'cover', ratio }));

describe('learntMinutes', () => {
  it('keeps what was computed while nothing is known', () => {
    expect(learntMinutes([], 'open')).toMatchObject({ factor: 1, jobs: 0, alike: 0 });
  });

  it('goes to what the shop takes as visits come, never beyond it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.4, max: 2.5, noNaN: true }), fc.integer({ min: 1, max: 60 }), (ratio, count) => {
        const [fewer, more] = [count, count + 1].map((n) => learntMinutes(alike(n, ratio), 'cover').factor);
        const far = (factor = 1): number => Math.abs(Math.log(factor / ratio));
        expect(far(more)).toBeLessThanOrEqual(far(fewer) + 1e-12);
        expect(far(learntMinutes(alike(400, ratio), 'cover').factor)).toBeLessThan(0.01);
      }),
    );
  });

  it('lends to another access what the family shows, and less than to its own', () => {
    const { factor: own } = learntMinutes(alike(12, 1.5), 'cover');
    const { factor: lent, alike: none } = learntMinutes(alike(12, 1.5), 'by_feel');
    expect([none, lent > 1.2, lent < own]).toEqual([0, true, true]);
  });

  it('holds its factor within its range, whatever the order, and leaves out a forgotten clock', () => {
    fc.assert(
      fc.property(anyRatios, anyAccess, (ratios, access) => {
        const learned = learntMinutes(ratios, access);
        expect(learned.low).toBeLessThan(learned.factor);
        expect(learned.high).toBeGreaterThan(learned.factor);
        expect(learntMinutes([...ratios].reverse(), access).factor).toBeCloseTo(learned.factor, 9);
        expect(learntMinutes([...ratios, { access, ratio: 40 }], access)).toEqual(learned);
      }),
    );
  });

  it('has four of five visits within its range where it has seen many', () => {
    const random = seeded(7);
    const draw = (): TimeRatio => ({ access: 'open', ratio: 1.2 * Math.exp(0.15 * normal(random)) });
    const { low, high } = learntMinutes(Array.from({ length: 300 }, draw), 'open');
    const within =
      Array.from({ length: 2000 }, draw).filter(({ ratio }) => ratio >= low && ratio <= high).length / 2000;
    expect(within).toBeGreaterThan(0.76);
    expect(within).toBeLessThan(0.84);
  });
});
