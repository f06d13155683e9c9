import { groupBy } from '../../shared/group-by';
import type { PlanProblem, PlanSlot } from '../plan-problem';
import { type PlannedReason, scheduleOf, type UnplannedReason, type Why, whyNot, whyThere } from './reasons';
import { PlanSearch, type Slots } from './search';
import { costAt, placesIn, type Slot, type Space, spaceOf } from './space';

/** A job that is planned. */
export interface Assignment extends PlanSlot {
  readonly job: string;
  readonly cost: number;
  readonly why: Why<PlannedReason>;
}

interface Unplanned {
  readonly job: string;
  readonly reason: UnplannedReason;
  readonly message: string;
}

/** What ended a search: all its rounds were made, nothing better is possible, or the time (or a person) stopped it. */
export const PLAN_ENDS = ['rounds', 'bound', 'seconds'] as const;
export type PlanEnd = (typeof PLAN_ENDS)[number];

export interface Plan {
  readonly assignments: readonly Assignment[];
  readonly unplanned: readonly Unplanned[];
  readonly cost: number;
}

/** A plan with what no plan can be cheaper than. */
export interface SolvedPlan extends Plan {
  readonly lowerBound: number;
  /** Nothing cheaper is possible. */
  readonly isProven: boolean;
}

/**
 * Rounds that each second buys, times the jobs of a depot: made in about a fifth of it on two quiet cores, so that a slow or busy
 * machine makes them all too. Measured: bench/plan.ts.
 */
const ROUNDS_A_SECOND = 350_000;
const LEAST_ROUNDS = 2000;
/** A small problem is settled after so many. */
const ENOUGH_ROUNDS_A_JOB = 8000;

/** How many rounds a search makes: by its size and the time it may take, never by a clock, so that it can be played again. */
export function roundsFor({ jobs, seconds }: PlanProblem): number {
  const kin = Math.max(
    0,
    ...[...groupBy(jobs, ({ depot }) => depot).values()].map((jobsAtDepot) => jobsAtDepot.length),
  );
  return Math.max(
    LEAST_ROUNDS,
    Math.round(Math.min((seconds * ROUNDS_A_SECOND) / (kin + 20), jobs.length * ENOUGH_ROUNDS_A_JOB)),
  );
}

/** A plan with what it costs, and why each job is where it is or is left out. */
export function planOf(problem: PlanProblem, space: Space, slots: Slots): Plan {
  const schedule = scheduleOf(space, slots);
  const { days, bays, people, jobs } = problem;
  const slotOf = ({ day, bay, person, start }: Slot): PlanSlot => ({
    day: days[day] ?? '',
    bay: bays[bay]?.id ?? '',
    person: people[person]?.id ?? '',
    startMin: start,
  });
  return {
    assignments: jobs.flatMap(({ id }, i): readonly Assignment[] => {
      const slot = slots[i];
      const spaceJob = space.jobs[i];
      if (!slot || !spaceJob) return [];
      const cost = costAt(space, spaceJob, slot);
      return [{ job: id, ...slotOf(slot), cost, why: whyThere(problem, space, schedule, i, slot) }];
    }),
    unplanned: jobs.flatMap(({ id }, i): readonly Unplanned[] => {
      if (slots[i]) return [];
      const { code, message } = whyNot(problem, space, schedule, i);
      return [{ job: id, reason: code, message }];
    }),
    cost: schedule.cost,
  };
}

/** What no plan can be cheaper than, whatever else is known: each job on its cheapest day, or left out. */
export const leastCost = ({ jobs, days }: PlanProblem): number =>
  jobs.reduce((sum, { costByDay, costUnplanned, pin }) => {
    const pinned = pin && costByDay[days.indexOf(pin.day)];
    return sum + (pinned ?? Math.min(costUnplanned, ...costByDay));
  }, 0);

/** Figures are money: less than this is the same. */
const SAME_COST = 0.005;

/** A plan with what no plan can be cheaper than: never more than the plan itself. */
export function withBound(plan: Plan, bound: number): SolvedPlan {
  const lowerBound = Math.min(bound, plan.cost);
  return { ...plan, lowerBound, isProven: plan.cost - lowerBound < SAME_COST };
}

/** What was agreed before, as a plan to begin with. */
export function agreedSlots(problem: PlanProblem): Slots {
  const places = placesIn(problem);
  return problem.jobs.map(({ pin, was }) => {
    const slot = pin ?? was;
    if (!slot) return null;
    const [day, bay, person] = [places.day.get(slot.day), places.bay.get(slot.bay), places.person.get(slot.person)];
    return day === undefined || bay === undefined || person === undefined
      ? null
      : { day, bay, person, start: slot.startMin };
  });
}

/**
 * The search as a whole, in one go: for small problems and tests. A screen or a server runs it in a thread, slice by slice.
 *
 * @param rounds by default as `roundsFor` says
 */
export function planAtOnce(problem: PlanProblem, rounds = roundsFor(problem)): Plan {
  const space = spaceOf(problem);
  const search = new PlanSearch(space, problem.seed, rounds, agreedSlots(problem));
  search.run(rounds);
  search.polish();
  return planOf(problem, space, search.best);
}
