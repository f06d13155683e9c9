import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { costOnIsobar, isobars, type PressureInput, pressureOf } from './pressure';
import { ASSUMED_LIFE, failureChance } from './weibull';

const input: PressureInput = {
  lifeUsed: 0.9,
  weeklyLife: 0.01,
  failureCost: 1000,
  wearCostPerPercent: 0.5,
  model: ASSUMED_LIFE,
};

describe('failureChance', () => {
  it('is the share of survivors that fail on the next stretch', () => {
    const survive = (life: number) => Math.exp(-((life / 1.7) ** 4));
    expect(failureChance(ASSUMED_LIFE, 1, 0.2)).toBeCloseTo(1 - survive(1.2) / survive(1), 12);
    expect(failureChance(ASSUMED_LIFE, 0, 1.7)).toBeCloseTo(1 - Math.exp(-1), 12);
  });

  const life = fc.double({ min: 0, max: 3, noNaN: true });
  it('lies in [0, 1], grows with the stretch, and composes over two stretches', () => {
    fc.assert(
      fc.property(life, life, life, (age, a, b) => {
        const [first, second] = [failureChance(ASSUMED_LIFE, age, a), failureChance(ASSUMED_LIFE, age + a, b)];
        const both = failureChance(ASSUMED_LIFE, age, a + b);
        expect(both).toBeGreaterThanOrEqual(first - 1e-12);
        expect(both).toBeLessThanOrEqual(1);
        expect(both).toBeCloseTo(1 - (1 - first) * (1 - second), 9);
      }),
    );
  });
});

describe('pressureOf', () => {
  it('is the chance of a failure times its cost, and wear only past the limit', () => {
    const before = pressureOf(input);
    expect(before.wear).toBe(0);
    expect(before.total).toBeCloseTo(failureChance(ASSUMED_LIFE, 0.9, 0.01) * 1000, 9);
    expect(pressureOf({ ...input, lifeUsed: 1.2 }).wear).toBeCloseTo(10, 9);
  });

  it('never falls with age, use or cost', () => {
    const some = fc.record({
      lifeUsed: fc.double({ min: 0, max: 2.5, noNaN: true }),
      weeklyLife: fc.double({ min: 0, max: 0.2, noNaN: true }),
      failureCost: fc.double({ min: 0, max: 20_000, noNaN: true }),
    });
    fc.assert(
      fc.property(some, fc.constantFrom('lifeUsed', 'weeklyLife', 'failureCost'), (over, key) => {
        const less = pressureOf({ ...input, ...over });
        const more = pressureOf({ ...input, ...over, [key]: over[key] * 1.1 });
        expect(more.total).toBeGreaterThanOrEqual(less.total - 1e-9);
      }),
    );
  });
});

describe('isobars', () => {
  it('pass through the vehicles that have their pressure', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 1.5, noNaN: true }),
        fc.double({ min: 50, max: 9000, noNaN: true }),
        (lifeUsed, failureCost) => {
          const here = { ...input, lifeUsed, failureCost };
          expect(costOnIsobar(pressureOf(here).total, here) ?? Number.NaN).toBeCloseTo(failureCost, 3);
        },
      ),
    );
  });

  it('fall from left to right and never cross', () => {
    const lines = isobars({ life: [0.3, 1.3], cost: [200, 8000] }, input);
    expect(lines.length).toBeGreaterThan(4);
    expect(lines.some((line) => line.heavy)).toBe(true);
    for (const { points } of lines)
      for (const [i, point] of points.entries()) expect(point.cost).toBeLessThan(points[i - 1]?.cost ?? Infinity);
    for (const [i, line] of lines.entries()) {
      const next = lines[i + 1];
      for (const { lifeUsed, cost } of line.points) {
        const above = next?.points.find((point) => point.lifeUsed === lifeUsed);
        if (above) expect(above.cost).toBeGreaterThan(cost);
      }
    }
  });

  it('end where wear alone costs more than the line', () => {
    expect(costOnIsobar(1, { ...input, lifeUsed: 1.5 })).toBeNull();
  });
});
