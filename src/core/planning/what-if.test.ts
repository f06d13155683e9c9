import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyProblem } from './any-problem.fixture';
import { planClashes } from './plan-check';
import type { PlanProblem } from './plan-problem';
import { planAtOnce } from './solver/plan';
import { borrowedBay, borrowedHours, commonQuestions, type WhatIfChange, withChanges } from './what-if';

const pick = <T>(list: readonly T[], n: number): T | undefined => list[n % Math.max(1, list.length)];

/** Any change that a problem can have. */
const anyChange = (problem: PlanProblem): fc.Arbitrary<WhatIfChange> =>
  fc
    .tuple(fc.constantFrom('bay_more', 'bay_closed', 'person_away', 'vehicle_away', 'parts_late'), fc.nat(), fc.nat())
    .map(([kind, which, when]): WhatIfChange => {
      const from = pick(problem.days, when) ?? '2027-03-01';
      const span = { from, to: problem.days.at(-1) ?? from };
      switch (kind) {
        case 'bay_more':
          return { kind: 'bay_more', depot: 'N', day: from };
        case 'bay_closed':
          return { kind: 'bay_closed', bay: pick(problem.bays, which)?.id ?? '', ...span };
        case 'person_away':
          return { kind: 'person_away', person: pick(problem.people, which)?.id ?? '', ...span };
        case 'vehicle_away':
          return { kind: 'vehicle_away', job: pick(problem.jobs, which)?.id ?? '', ...span };
        default:
          return { kind: 'parts_late', job: pick(problem.jobs, which)?.id ?? '', until: from };
      }
    });
const withAny = anyProblem({ jobs: 6, days: 4 }).chain((problem) => fc.tuple(fc.constant(problem), anyChange(problem)));

describe('a problem that is otherwise', () => {
  it('is never used where or when it says that somebody or something is away', () => {
    fc.assert(
      fc.property(withAny, ([problem, change]) => {
        const other = withChanges(problem, [change]);
        const { assignments } = planAtOnce(other, 100);
        expect(planClashes(other, assignments)).toEqual([]);
        for (const { job, bay, person, day } of assignments) {
          if (change.kind === 'bay_closed') expect(bay === change.bay && day >= change.from).toBe(false);
          if (change.kind === 'person_away') expect(person === change.person && day >= change.from).toBe(false);
          if (change.kind === 'vehicle_away') expect(job === change.job && day >= change.from).toBe(false);
          if (change.kind === 'parts_late') expect(job === change.job && day < change.until).toBe(false);
        }
        // All but a bay more only takes away: what is planned then would have been possible before.
        if (change.kind !== 'bay_more') expect(planClashes(problem, assignments)).toEqual([]);
      }),
    );
  });

  it('leaves the problem itself, and what the change does not name, as they were', () => {
    fc.assert(
      fc.property(withAny, ([problem, change]) => {
        const before = JSON.stringify(problem);
        const other = withChanges(problem, [change]);
        expect(JSON.stringify(problem)).toBe(before);
        expect(other.days).toEqual(problem.days);
        expect(other.jobs.map(({ id, costByDay }) => [id, costByDay])).toEqual(
          problem.jobs.map(({ id, costByDay }) => [id, costByDay]),
        );
        expect(withChanges(problem, [])).toEqual(problem);
      }),
    );
  });

  it('borrows a bay once, with the longest hours that the depot has that day', () => {
    const day = '2027-03-01';
    const problem: PlanProblem = {
      days: [day],
      bays: [
        { id: 'B1', depot: 'N', can: [], open: [{ day, fromMin: 480, toMin: 600 }] },
        { id: 'B2', depot: 'N', can: [], open: [{ day, fromMin: 420, toMin: 900 }] },
      ],
      people: [],
      jobs: [],
      moveCost: 0,
      seconds: 1,
      seed: 1,
    };
    const more: WhatIfChange = { kind: 'bay_more', depot: 'N', day };
    const { bays } = withChanges(problem, [more, more]);
    expect(bays).toHaveLength(3);
    expect(bays[2]).toMatchObject({ id: borrowedBay('N', day), open: [{ day, fromMin: 420, toMin: 900 }] });
    expect(borrowedHours(problem, 'elsewhere', day)).toEqual({ day, fromMin: 480, toMin: 960 });
  });
});

/** Jobs whose parts would be there before a day. */
const waitable = ({ jobs }: PlanProblem, until: string) =>
  jobs.filter(({ kitFrom }) => kitFrom === null || kitFrom < until);

describe('the questions asked most', () => {
  it('each change the problem, on its first day with somebody at work, and ask for the dearest job', () => {
    fc.assert(
      fc.property(
        anyProblem({ jobs: 6, days: 4 }),
        fc.array(fc.nat({ max: 90 }), { minLength: 6, maxLength: 6 }),
        (problem, costs) => {
          const weekCosts = new Map(problem.jobs.map(({ id }, i) => [id, costs[i] ?? 0]));
          const questions = commonQuestions(problem, weekCosts);
          const first = problem.days.find((day) =>
            problem.people.some(({ shift }) => shift.some((one) => one.day === day)),
          );
          expect(questions.length > 0).toBe(first !== undefined);
          for (const change of questions) {
            if (change.kind === 'parts_late')
              expect(weekCosts.get(change.job)).toBe(
                Math.max(...waitable(problem, change.until).map(({ id }) => weekCosts.get(id) ?? 0)),
              );
            else expect('day' in change ? change.day : change.from).toBe(first);
            expect(withChanges(problem, [change])).not.toEqual(problem);
          }
        },
      ),
    );
  });
});
