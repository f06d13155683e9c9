import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyProblem } from '../any-problem.fixture';
import { pinClash, planClashes } from '../plan-check';
import { type PlanJob, type PlanProblem, problemFaults } from '../plan-problem';
import { agreedSlots, leastCost, type Plan, planAtOnce, planOf } from './plan';
import { Schedule } from './schedule';
import { PlanSearch, WORTH_A_CHANGE } from './search';
import { spaceOf } from './space';

const ROUNDS = 150;
const anyOne = anyProblem({ jobs: 8, days: 4 });

/** The same problem after its plan was agreed. */
const agreed = (problem: PlanProblem, plan: Plan): PlanProblem => ({
  ...problem,
  jobs: problem.jobs.map((job) => {
    const at = plan.assignments.find((one) => one.job === job.id);
    return { ...job, was: at ? { day: at.day, bay: at.bay, person: at.person, startMin: at.startMin } : null };
  }),
});
const slotsBy = (plan: Plan) =>
  new Map(plan.assignments.map(({ job, day, bay, person }) => [job, `${day} ${bay} ${person}`]));

describe('a plan', () => {
  it('breaks no hard rule, has each job once, and costs what its jobs cost', () => {
    fc.assert(
      fc.property(anyOne, (problem) => {
        expect(problemFaults(problem)).toEqual([]);
        const plan = planAtOnce(problem, ROUNDS);
        expect(planClashes(problem, plan.assignments)).toEqual([]);
        expect([...plan.assignments, ...plan.unplanned].map(({ job }) => job).sort()).toEqual(
          problem.jobs.map(({ id }) => id).sort(),
        );
        const left = plan.unplanned.reduce(
          (sum, { job }) => sum + (problem.jobs.find(({ id }) => id === job)?.costUnplanned ?? 0),
          0,
        );
        const done = plan.assignments.reduce((sum, { cost }) => sum + cost, 0);
        expect(plan.cost).toBeCloseTo(left + done, 6);
      }),
      { numRuns: 200 },
    );
  });

  it('never costs less than each job on its cheapest day', () => {
    fc.assert(
      fc.property(anyOne, (problem) => {
        expect(planAtOnce(problem, 20).cost).toBeGreaterThanOrEqual(leastCost(problem) - 1e-9);
      }),
    );
  });

  it('is the same for the same seed', () => {
    fc.assert(
      fc.property(anyOne, (problem) => {
        expect(planAtOnce(problem, ROUNDS)).toEqual(planAtOnce(problem, ROUNDS));
      }),
      { numRuns: 40 },
    );
  });

  it('is the same whether the proof or the last round ends the search', () => {
    fc.assert(
      fc.property(anyOne, (problem) => {
        const space = spaceOf(problem);
        const search = new PlanSearch(space, problem.seed, ROUNDS, agreedSlots(problem));
        const least = leastCost(problem);
        const isProven = () => search.bestCost - least <= WORTH_A_CHANGE * Math.abs(search.bestCost);
        while (!search.isOver && !isProven()) search.run(1);
        search.polish();
        expect(planOf(problem, space, search.best)).toEqual(planAtOnce(problem, ROUNDS));
      }),
      { numRuns: 100 },
    );
  });

  it('is the cheapest that there is, where all of them can be tried', () => {
    fc.assert(
      fc.property(anyProblem({ jobs: 3, days: 2, hasDayRules: false }), (problem) => {
        expect(planAtOnce(problem, 400).cost).toBeCloseTo(cheapestOf(problem), 6);
      }),
      { numRuns: 60 },
    );
  });
});

/** By trying every order of jobs with every choice of day, bay and person, each as early as it goes. */
function cheapestOf(problem: PlanProblem): number {
  const space = spaceOf(problem);
  const schedule = new Schedule(space);
  let least = Number.POSITIVE_INFINITY;
  const place = (left: readonly number[]): void => {
    least = Math.min(least, schedule.cost);
    for (const job of left) {
      const rest = left.filter((other) => other !== job);
      for (const [day, pairs] of (space.jobs[job]?.pairs ?? []).entries())
        for (const { bay, person, spans } of pairs)
          for (const start of startsOf(schedule, spans, bay, person, day, space.jobs[job]?.minutes ?? 0, space)) {
            schedule.put(job, { day, bay, person, start });
            place(rest);
            schedule.remove(job);
          }
    }
  };
  place([...space.jobs.keys()]);
  return least;
}

/** Starts worth trying: as early as a span, or the end of another job, allows. */
function startsOf(
  schedule: Schedule,
  spans: readonly number[],
  bay: number,
  person: number,
  day: number,
  minutes: number,
  space: ReturnType<typeof spaceOf>,
): readonly number[] {
  const others = [...schedule.jobsOfBay(bay, day), ...schedule.jobsOfPerson(person, day)].map((job) => ({
    from: schedule.start[job] ?? 0,
    to: (schedule.start[job] ?? 0) + (space.jobs[job]?.minutes ?? 0),
  }));
  const froms = spans.filter((_, i) => i % 2 === 0);
  return [...new Set([...froms, ...others.map(({ to }) => to)])].filter(
    (start) =>
      spans.some((from, i) => i % 2 === 0 && from <= start && start + minutes <= (spans[i + 1] ?? 0)) &&
      others.every(({ from, to }) => to <= start || start + minutes <= from),
  );
}

describe('a pin', () => {
  it('never moves, whatever it costs', () => {
    fc.assert(
      fc.property(anyOne, (problem) => {
        const first = planAtOnce(problem, ROUNDS);
        const [kept] = first.assignments;
        fc.pre(kept !== undefined);
        if (!kept) return;
        const pin = { day: kept.day, bay: kept.bay, person: kept.person, startMin: kept.startMin };
        const dear = (job: PlanJob): PlanJob =>
          job.id === kept.job ? { ...job, pin, costByDay: job.costByDay.map(() => 5000) } : job;
        const pinned = { ...problem, jobs: problem.jobs.map(dear) };
        expect(pinClash(pinned)).toBeNull();
        const plan = planAtOnce(pinned, ROUNDS);
        expect(plan.assignments.find(({ job }) => job === kept.job)).toMatchObject({ ...pin, why: { code: 'pinned' } });
        expect(planClashes(pinned, plan.assignments)).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });
});

describe('a replan', () => {
  it('moves nobody who need not move, where moving is dear', () => {
    fc.assert(
      fc.property(anyOne, fc.nat(7), (problem, which) => {
        const plan = planAtOnce(problem, ROUNDS);
        const all = { ...agreed(problem, plan), moveCost: 10_000 };
        // What was left out might be worth more than what was planned: no question of moving.
        const before = { ...all, jobs: all.jobs.filter(({ was }) => was !== null) };
        // One person is ill on the first day.
        const ill = before.people[which % Math.max(1, before.people.length)];
        const after: PlanProblem = {
          ...before,
          people: before.people.map((person) =>
            person === ill ? { ...person, shift: person.shift.filter(({ day }) => day !== before.days[0]) } : person,
          ),
        };
        const next = slotsBy(planAtOnce(after, ROUNDS));
        for (const { job, day, person, bay } of plan.assignments)
          if (day !== before.days[0] || person !== ill?.id) expect(next.get(job)).toBe(`${day} ${bay} ${person}`);
      }),
      { numRuns: 80 },
    );
  });

  it('costs no more than keeping what was agreed', () => {
    fc.assert(
      fc.property(anyOne, (problem) => {
        const plan = planAtOnce(problem, ROUNDS);
        expect(planAtOnce({ ...agreed(problem, plan), seed: 77 }, ROUNDS).cost).toBeLessThanOrEqual(plan.cost + 1e-6);
      }),
      { numRuns: 80 },
    );
  });
});

describe('one more', () => {
  it.each(['bay', 'person'] as const)('%s never makes the old plan dearer', (what) => {
    fc.assert(
      fc.property(anyOne, (problem) => {
        const plan = planAtOnce(problem, ROUNDS);
        const shift = problem.days.map((day) => ({ day, fromMin: 420, toMin: 960 }));
        const more: PlanProblem =
          what === 'bay'
            ? { ...problem, bays: [...problem.bays, { id: 'B9', depot: 'N', can: ['hybrid'], open: shift }] }
            : { ...problem, people: [...problem.people, { id: 'P9', depots: ['N'], skills: ['hybrid'], shift }] };
        const start = agreedSlots(agreed(problem, plan));
        const search = new PlanSearch(spaceOf(more), more.seed, ROUNDS, start);
        search.run(ROUNDS);
        expect(search.bestCost).toBeLessThanOrEqual(plan.cost + 1e-6);
      }),
      { numRuns: 60 },
    );
  });
});

const job = (id: string, over: Partial<PlanJob> = {}): PlanJob => ({
  id,
  depot: 'N',
  minutes: 120,
  needsSkills: [],
  needsBay: [],
  allowed: null,
  kitFrom: null,
  coolFromMin: null,
  costByDay: [10, 20, 30],
  costUnplanned: 100,
  pin: null,
  was: null,
  ...over,
});
const DAYS = ['2027-03-03', '2027-03-04', '2027-03-05'];
const hours = DAYS.map((day) => ({ day, fromMin: 480, toMin: 960 }));
const garage = (jobs: readonly PlanJob[], over: Partial<PlanProblem> = {}): PlanProblem => ({
  days: DAYS,
  bays: [{ id: 'B2', name: 'Bay 2', depot: 'N', can: ['hybrid'], open: hours }],
  people: [{ id: 'P1', name: 'T. Okoro', depots: ['N'], skills: ['hybrid'], shift: hours }],
  jobs,
  moveCost: 0,
  seconds: 1,
  seed: 1,
  ...over,
});

describe('a person’s day', () => {
  const both = (over: Partial<PlanProblem>): PlanProblem => ({
    ...garage([job('J1', { minutes: 230 }), job('J2', { minutes: 230, depot: 'M' })]),
    days: DAYS.slice(0, 1),
    bays: ['N', 'M'].map((depot) => ({ id: `B ${depot}`, depot, can: [], open: hours })),
    people: [{ id: 'P1', name: 'T. Okoro', depots: ['N', 'M'], skills: [], shift: hours }],
    ...over,
  });
  const one = (problem: PlanProblem): PlanProblem => ({
    ...problem,
    jobs: problem.jobs.map((each) => ({ ...each, costByDay: each.costByDay.slice(0, 1) })),
  });

  it('holds the way between depots', () => {
    expect(planAtOnce(one(both({ travelMin: { M: { N: 15 } } })), ROUNDS).unplanned).toEqual([]);
    const { unplanned } = planAtOnce(one(both({ travelMin: { M: { N: 35 } } })), ROUNDS);
    expect(unplanned).toMatchObject([{ reason: 'travel', message: expect.stringContaining('another depot') }]);
  });

  it('holds a break, and a job over the whole window is as much longer', () => {
    const breaks = { minutes: 30, fromMin: 660, toMin: 840 };
    const { unplanned } = planAtOnce(one(both({ breaks })), ROUNDS);
    expect(unplanned).toMatchObject([{ reason: 'break', message: expect.stringContaining('no break') }]);
    const long = (minutes: number) => planAtOnce(garage([job('J1', { minutes })], { breaks }), ROUNDS);
    expect(long(450).assignments).toMatchObject([{ startMin: 480 }]);
    expect(long(455).unplanned).toHaveLength(1);
    const two = garage([job('J1', { minutes: 400 }), job('J2', { minutes: 60 })], { breaks, days: DAYS.slice(0, 1) });
    expect(planAtOnce(one(two), ROUNDS).unplanned).toHaveLength(1);
  });

  it('holds work that is none of the plan, and the minute from which parts are there', () => {
    const busy = [{ day: DAYS[0] ?? '', fromMin: 480, toMin: 600, depot: 'M' }];
    const people = [{ id: 'P1', depots: ['N'], skills: ['hybrid'], shift: hours, busy }];
    const only = (over: Partial<PlanProblem>) => planAtOnce(garage([job('J1')], over), ROUNDS).assignments[0]?.startMin;
    expect(only({ people })).toBe(600);
    expect(only({ people, travelMin: { N: { M: 40 } } })).toBe(640);
    const ferry = job('J1', { kitFrom: '2027-03-03', kitFromMin: 630, costByDay: [0, 90, 90] });
    expect(planAtOnce(garage([ferry]), ROUNDS).assignments).toMatchObject([{ day: '2027-03-03', startMin: 630 }]);
  });
});

describe('the reasons', () => {
  it.each([
    ['no_bay', { needsBay: ['lift'] }, 'has no bay for lift'],
    ['no_skill', { needsSkills: ['gas'] }, 'trained for gas'],
    ['parts', { kitFrom: '2027-03-09' }, 'parts are there from Tue 9 Mar'],
    ['vehicle_away', { allowed: [] }, 'vehicle is away'],
    ['cool_down', { coolFromMin: 900 }, 'cool from 15:00'],
    ['horizon', { minutes: 600 }, '10 h together'],
    ['cheaper_later', { costByDay: [200, 200, 200] }, 'loses less by waiting'],
  ] as const)('%s', (reason, over, words) => {
    const { unplanned } = planAtOnce(garage([job('J1', over as Partial<PlanJob>)]), ROUNDS);
    expect(unplanned).toMatchObject([{ job: 'J1', reason, message: expect.stringContaining(words) }]);
  });

  it('no_capacity', () => {
    const full = ['A', 'B', 'C'].map((id) => job(id, { minutes: 480, costUnplanned: 900 }));
    expect(planAtOnce(garage([...full, job('J1')]), ROUNDS).unplanned).toMatchObject([
      { job: 'J1', reason: 'no_capacity' },
    ]);
  });

  it('say why a job is not on its cheapest day, and which bay it had to have', () => {
    const ferry = job('J1', { kitFrom: '2027-03-05', needsBay: ['hybrid'], needsSkills: ['hybrid'] });
    const [only] = planAtOnce(garage([ferry]), ROUNDS).assignments;
    expect(only?.why).toEqual({
      code: 'next_best_day',
      message:
        'Fri 5 Mar: Wed 3 Mar would cost 20 less, but its parts are there from Fri 5 Mar. Bay 2: takes hybrid. T. Okoro: trained for hybrid.',
    });
    expect(planAtOnce(garage([job('J1')]), ROUNDS).assignments[0]?.why.code).toBe('cheapest_day');
  });
});

describe('a problem', () => {
  const slot = { day: DAYS[0] ?? '', bay: 'B2', person: 'P1', startMin: 480 };
  it.each([
    [{ days: [] }, ['days']],
    [{ days: [...DAYS].reverse() }, ['days', 1]],
    [{ jobs: [job('J1', { costByDay: [1] })] }, ['jobs', 0, 'costByDay']],
    [{ jobs: [job('J1'), job('J1')] }, ['jobs', 1, 'id']],
    [{ jobs: [job('J1', { pin: { ...slot, day: '2027-04-01' } })] }, ['jobs', 0, 'pin', 'day']],
    [
      { bays: [{ id: 'B1', depot: 'N', can: [], open: [{ day: '2027-03-03', fromMin: 600, toMin: 480 }] }] },
      ['bays', 0, 'open', 0],
    ],
  ])('that is not well formed is told where', (over, path) => {
    expect(problemFaults(garage([job('J1')], over as Partial<PlanProblem>)).map((fault) => fault.path)).toContainEqual(
      path,
    );
  });

  it('names the two that clash where pins cannot stand', () => {
    const two = [job('J1', { pin: slot }), job('J2', { pin: { ...slot, startMin: 540 } })];
    expect(pinClash(garage(two))).toMatchObject({ a: 'J1', b: 'J2' });
    expect(pinClash(garage([job('J1', { pin: { ...slot, startMin: 900 } })]))).toMatchObject({ a: 'J1', b: 'B2' });
    expect(pinClash(garage([job('J1', { pin: slot })]))).toBeNull();
  });
});
