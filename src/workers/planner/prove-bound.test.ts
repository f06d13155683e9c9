import fc from 'fast-check';
import loadHighs from 'highs';
import { describe, expect, it } from 'vitest';
import { anyProblem } from '@/core/planning/any-problem.fixture';
import { boundModels } from '@/core/planning/solver/bound-model';
import { planAtOnce } from '@/core/planning/solver/plan';
import { spaceOf } from '@/core/planning/solver/space';
import { proveBound } from './prove-bound';

describe('proveBound', () => {
  it('is never above a plan, and rises until it is done', async () => {
    const highs = await loadHighs();
    fc.assert(
      fc.property(anyProblem({ jobs: 8, days: 4 }), (problem) => {
        const told: number[] = [];
        const bound = proveBound(highs, boundModels(spaceOf(problem)), 5, (each) => told.push(each));
        expect(planAtOnce(problem, 150).cost).toBeGreaterThanOrEqual(bound - 1e-6);
        expect(told).toEqual([...told].sort((a, b) => a - b));
        expect(told.at(-1)).toBe(bound);
      }),
      { numRuns: 60 },
    );
  });

  it('is the cost itself where a bay and a person do for all', async () => {
    const day = '2027-03-01';
    const hours = [{ day, fromMin: 480, toMin: 960 }];
    const job = (id: string, cost: number) => ({
      id,
      depot: 'N',
      minutes: 60,
      needsSkills: [],
      needsBay: [],
      allowed: null,
      kitFrom: null,
      coolFromMin: null,
      costByDay: [cost],
      costUnplanned: 100,
      pin: null,
      was: null,
    });
    const problem = {
      days: [day],
      bays: [{ id: 'B1', depot: 'N', can: [], open: hours }],
      people: [{ id: 'P1', depots: ['N'], skills: [], shift: hours }],
      jobs: [job('J1', 10), job('J2', 30)],
      moveCost: 0,
      seconds: 1,
      seed: 1,
    };
    const bound = proveBound(await loadHighs(), boundModels(spaceOf(problem)), 5, () => undefined);
    expect(bound).toBeCloseTo(40, 3);
  });
});
