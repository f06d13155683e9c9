import { addDays, daysBetween, mondayOf, type PlainDate } from '../calendar/plain-date';
import type { BoardJob, BoardWeek, NamedDepot } from './board-week';
import { minutesTaken } from './plan-check';
import { isSamePlace, type PlanJob, type PlanSlot } from './plan-problem';
import type { JobFacts, ProposalResult } from './plan-proposal';

/* A proposal beside what is agreed: what it changes, in figures, job by job, and as a board. */

/** What became of a job. */
export type Change = 'new' | 'moved' | 'stays' | 'taken off' | 'left out';

export interface ProposedJob {
  readonly facts: JobFacts;
  readonly change: Change;
  /** Null: it is left out. */
  readonly to: PlanSlot | null;
  readonly why: string;
}

function changeOf({ booked }: JobFacts, to: PlanSlot | null): Change {
  if (!to) return booked ? 'taken off' : 'left out';
  if (!booked) return 'new';
  return isSamePlace(booked, to) ? 'stays' : 'moved';
}

/** Every job of a proposal with what becomes of it and why, in order of day and start; those left out last, the dearest first. */
export function proposedJobs({ plan, jobs }: ProposalResult): readonly ProposedJob[] {
  const slots = new Map(plan.assignments.map((assignment) => [assignment.job, assignment]));
  const left = new Map(plan.unplanned.map((job) => [job.job, job.message]));
  const key = ({ to }: ProposedJob): string => (to ? `${to.day} ${String(to.startMin).padStart(4, '0')}` : 'z');
  return jobs
    .map((facts): ProposedJob => {
      const slot = slots.get(facts.id);
      const to = slot ? { day: slot.day, bay: slot.bay, person: slot.person, startMin: slot.startMin } : null;
      return { facts, change: changeOf(facts, to), to, why: slot?.why.message ?? left.get(facts.id) ?? '' };
    })
    .sort((a, b) => key(a).localeCompare(key(b)) || weekOf(b.facts) - weekOf(a.facts));
}

const weekOf = ({ costs }: JobFacts): number => costs.weekly.at(-1) ?? 0;

/** A plan in figures; money in the fleet's currency. */
export interface PlanFigures {
  readonly planned: number;
  readonly leftOut: number;
  readonly minutes: number;
  /** Days from today until each job that is planned, by its id. */
  readonly waits: ReadonlyMap<string, number>;
  readonly waiting: number;
  readonly thrownAway: number;
  readonly downtime: number;
  readonly total: number;
}

/** @param slots where each job would be; null or left out: it waits beyond these days */
export function planFigures(
  { days, jobs }: Pick<ProposalResult, 'days' | 'jobs'>,
  slots: ReadonlyMap<string, PlanSlot | null>,
  today: PlainDate,
): PlanFigures {
  const each = jobs.map(({ id, costs, minutes }) => {
    const slot = slots.get(id);
    const on = slot ? costs.byDay[days.indexOf(slot.day)] : undefined;
    return {
      cost: on ?? costs.unplanned,
      minutes: on ? minutes : 0,
      waited: slot && on ? ([id, daysBetween(today, slot.day)] as const) : null,
    };
  });
  const sum = (figureOf: (one: (typeof each)[number]) => number): number =>
    each.reduce((total, job) => total + figureOf(job), 0);
  const waits = new Map(each.flatMap((job) => (job.waited ? [job.waited] : [])));
  return {
    planned: waits.size,
    leftOut: each.length - waits.size,
    minutes: sum((job) => job.minutes),
    waits,
    waiting: sum(({ cost }) => cost.waiting),
    thrownAway: sum(({ cost }) => cost.thrownAway),
    downtime: sum(({ cost }) => cost.downtime),
    total: sum(({ cost }) => cost.total),
  };
}

/** How long the jobs wait that every one of some plans does: like is compared with like. */
export function waitsInAll(plans: readonly Pick<PlanFigures, 'waits'>[]): {
  readonly jobs: number;
  /** By plan, the average; null: they have no job in common. */
  readonly days: readonly (number | null)[];
} {
  const [first, ...others] = plans;
  const shared = [...(first?.waits.keys() ?? [])].filter((id) => others.every(({ waits }) => waits.has(id)));
  const mean = ({ waits }: Pick<PlanFigures, 'waits'>): number | null =>
    shared.length === 0 ? null : shared.reduce((sum, id) => sum + (waits.get(id) ?? 0), 0) / shared.length;
  return { jobs: shared.length, days: plans.map(mean) };
}

export const agreedSlotsOf = (jobs: readonly JobFacts[]): ReadonlyMap<string, PlanSlot | null> =>
  new Map(jobs.map(({ id, booked }) => [id, booked]));

export const proposedSlotsOf = ({ plan }: Pick<ProposalResult, 'plan'>): ReadonlyMap<string, PlanSlot> =>
  new Map(plan.assignments.map((assignment) => [assignment.job, assignment]));

/** Mondays of the weeks that a proposal touches. */
export const weeksOf = ({ days }: Pick<ProposalResult, 'days'>): readonly PlainDate[] => [
  ...new Set(days.map(mondayOf)),
];

interface Shown {
  readonly depot: NamedDepot;
  readonly monday: PlainDate;
  readonly today: PlainDate;
  readonly currency: string;
}

/** A week of a proposal for one depot, as the board shows weeks. */
export function weekOfProposal(result: ProposalResult, { depot, monday, today, currency }: Shown): BoardWeek {
  const days = result.days.filter((day) => day >= monday && day < addDays(monday, 7));
  const offset = result.days.indexOf(days[0] ?? '');
  const proposed = proposedJobs(result);
  const ours = proposed.filter(({ facts, to }) => facts.depot === depot.name && (to === null || days.includes(to.day)));
  const cut = <T>(values: readonly T[]): readonly T[] => values.slice(offset, offset + days.length);
  return {
    depot,
    depots: [depot],
    monday,
    today,
    nowMin: null,
    currency,
    // A proposal keeps hours, not why somebody is away.
    away: [],
    elsewhere: proposed.flatMap(({ facts, to }) => {
      if (to === null || facts.depot === depot.name || !days.includes(to.day)) return [];
      const { day, person, startMin: fromMin } = to;
      return [{ day, person, fromMin, toMin: fromMin + minutesTaken(result, facts, to), depot: facts.depot }];
    }),
    problem: {
      days,
      bays: result.bays
        .filter((bay) => bay.depot === depot.name)
        .map((bay) => ({ ...bay, name: bay.name?.replace(`${depot.name} `, '') ?? bay.id })),
      people: result.people.filter(({ depots }) => depots.includes(depot.name)),
      jobs: ours.map(({ facts, to }): PlanJob => planJob(facts, to, cut)),
      moveCost: 0,
      seconds: 1,
      seed: 1,
    },
    jobs: ours.map(
      ({ facts, to, why }): BoardJob => ({
        ...boardJob(facts, to),
        why,
        weekly: cut(facts.costs.weekly),
      }),
    ),
  };
}

function planJob(facts: JobFacts, to: PlanSlot | null, cut: <T>(values: readonly T[]) => readonly T[]): PlanJob {
  return {
    id: facts.id,
    name: `unit ${facts.unitNumber}`,
    depot: facts.depot,
    minutes: facts.minutes,
    needsSkills: [],
    needsBay: [],
    allowed: null,
    kitFrom: null,
    coolFromMin: facts.coolFromMin,
    costByDay: cut(facts.costs.byDay).map(({ total }) => total),
    costUnplanned: facts.costs.unplanned.total,
    pin: null,
    was: to,
  };
}

function boardJob(facts: JobFacts, to: PlanSlot | null): Omit<BoardJob, 'weekly' | 'why'> {
  const { id, unitNumber, name, components, workOrderId, vehicleId, number, minutes, short, coolFromMin, booked } =
    facts;
  return {
    ...{ id, unitNumber, name, components, workOrderId, vehicleId, number, minutes, short, coolFromMin },
    estimate: minutes,
    weekCost: facts.weekCost ?? null,
    likely: facts.likely,
    costs: null,
    booking: to && {
      bayId: to.bay,
      personId: to.person,
      day: to.day,
      startMin: to.startMin,
      minutes,
      version: 0,
    },
    isPinned: booked?.isPinned === true,
    isBegun: false,
    isFinished: false,
    stop: null,
    progress: { startedMin: null, finishedMin: null },
    place: null,
  };
}
