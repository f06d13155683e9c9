import type { PlainDate } from '../calendar/plain-date';
import { timeTo24 } from '../calendar/zone';
import { dayClashes, minutesTaken, type Placed, slotClashes } from './plan-check';
import {
  minutesIn,
  named,
  type PlanBay,
  type PlanJob,
  type PlanPerson,
  type PlanProblem,
  type PlanSlot,
} from './plan-problem';

/* A plan in hand: where each job lies, what a move would cost and break before it is made, and how full the days are. */

/** Where each job lies; one that is not in it waits. */
export type Placing = ReadonlyMap<string, PlanSlot>;

interface Move {
  readonly job: string;
  /** Null: it is taken off the plan. */
  readonly to: PlanSlot | null;
}

export interface Judgement {
  /** What the move adds to the cost of the plan; negative: it saves. */
  readonly difference: number;
  /** Why it cannot be; empty: it can. */
  readonly breaks: readonly string[];
}

const costIn = ({ days }: PlanProblem, job: PlanJob, slot: PlanSlot | null | undefined): number => {
  const on = slot ? job.costByDay[days.indexOf(slot.day)] : undefined;
  return on ?? job.costUnplanned;
};

/** What a plan costs by the day of each job; moves that were agreed by hand cost nothing more. */
export const costOfPlacing = (problem: PlanProblem, placing: Placing): number =>
  problem.jobs.reduce((sum, job) => sum + costIn(problem, job, placing.get(job.id)), 0);

/** Who else has the bay or the person in that time. */
function takenBy(problem: PlanProblem, placing: Placing, job: PlanJob, slot: PlanSlot): readonly string[] {
  const ends = slot.startMin + minutesTaken(problem, job, slot);
  return problem.jobs.flatMap((other) => {
    const at = placing.get(other.id);
    if (!at || other.id === job.id || at.day !== slot.day) return [];
    const otherEnds = at.startMin + minutesTaken(problem, other, at);
    if (otherEnds <= slot.startMin || ends <= at.startMin) return [];
    const whose = [
      ...(at.bay === slot.bay ? [nameIn(problem.bays, slot.bay)] : []),
      ...(at.person === slot.person ? [nameIn(problem.people, slot.person)] : []),
    ];
    return whose.map((name) => `${name} has ${named(other)} from ${timeTo24(at.startMin)} to ${timeTo24(otherEnds)}`);
  });
}

const nameIn = (list: readonly (PlanBay | PlanPerson)[], id: string): string => {
  const item = list.find((each) => each.id === id);
  return item ? named(item) : id;
};

/**
 * What a move would cost and what speaks against it, before it is made.
 *
 * @param today days before it cannot be planned any more
 */
export function judgeMove(problem: PlanProblem, placing: Placing, { job: id, to }: Move, today: PlainDate): Judgement {
  const job = problem.jobs.find((one) => one.id === id);
  if (!job) return { difference: 0, breaks: ['There is no such job any more.'] };
  const difference = costIn(problem, job, to) - costIn(problem, job, placing.get(id));
  const stays = job.pin ? [`${named(job)} stays where it is: it is pinned, or work on it has begun`] : [];
  if (!to) return { difference, breaks: stays };
  const past = to.day < today ? ['this day has passed'] : [];
  const clashes = slotClashes(problem, job, to).map(({ message }) => afterColon(message));
  const taken = takenBy(problem, placing, job, to);
  return { difference, breaks: [...stays, ...past, ...clashes, ...taken, ...dayOfPerson(problem, placing, job, to)] };
}

/** What the day of a person would lack with a job on it, besides what it lacks already. */
function dayOfPerson(problem: PlanProblem, placing: Placing, job: PlanJob, to: PlanSlot): readonly string[] {
  const others = [...placing].flatMap(([id, at]): readonly Placed[] =>
    id !== job.id && at.day === to.day && at.person === to.person ? [{ ...at, job: id }] : [],
  );
  const known = new Set(dayClashes(problem, others, to.person).map(({ message }) => message));
  return dayClashes(problem, [...others, { ...to, job: job.id }], to.person)
    .map(({ message }) => message)
    .filter((message) => !known.has(message))
    .map(withoutStop);
}

/** As a part of a longer sentence. */
const withoutStop = (message: string): string => message.replace(/\.$/, '');

/** Beside the job itself its name need not be said again. */
const afterColon = (message: string): string => withoutStop(message.slice(message.indexOf(': ') + 2));

/** Where a job is let go: in a bay, or with a person. */
interface Landing {
  readonly day: PlainDate;
  readonly startMin: number;
  readonly bay?: string;
  readonly person?: string;
}

/**
 * The slot that a landing means: what it does not say stays as it was where that can be, else it is who or what fits
 * and can do least besides.
 *
 * @returns null: there is nobody or no bay at all
 */
export function slotOf(
  problem: PlanProblem,
  placing: Placing,
  id: string,
  landing: Landing,
  today: PlainDate,
): PlanSlot | null {
  const { day, startMin } = landing;
  const now = placing.get(id);
  const bays = landing.bay
    ? [landing.bay]
    : inTurn(
        now?.bay,
        byAbility(problem.bays, ({ can }) => can.length),
      );
  const people = landing.person
    ? [landing.person]
    : inTurn(
        now?.person,
        byAbility(problem.people, ({ skills, depots }) => skills.length + depots.length),
      );
  const slots = bays.flatMap((bay) => people.map((person) => ({ day, bay, person, startMin })));
  const fits = slots.find((to) => judgeMove(problem, placing, { job: id, to }, today).breaks.length === 0);
  return fits ?? slots[0] ?? null;
}

const byAbility = <T extends { readonly id: string }>(
  list: readonly T[],
  abilityOf: (one: T) => number,
): readonly string[] => [...list].sort((a, b) => abilityOf(a) - abilityOf(b)).map(({ id }) => id);

const inTurn = (first: string | undefined, all: readonly string[]): readonly string[] =>
  first === undefined ? all : [first, ...all.filter((id) => id !== first)];

interface Load {
  /** Minutes that jobs take. */
  readonly taken: number;
  /** Minutes that there are. */
  readonly open: number;
}

/** How much of a bay or a person is taken on a day: of a person at other depots too. */
export function loadOf(problem: PlanProblem, placing: Placing, day: PlainDate, resource: PlanBay | PlanPerson): Load {
  const taken = problem.jobs.reduce((sum, job) => {
    const at = placing.get(job.id);
    return at && at.day === day && (at.bay === resource.id || at.person === resource.id) ? sum + job.minutes : sum;
  }, 0);
  const elsewhere = 'busy' in resource ? minutesIn((resource.busy ?? []).filter((span) => span.day === day)) : 0;
  return {
    taken: taken + elsewhere,
    open: minutesIn(('open' in resource ? resource.open : resource.shift).filter((window) => window.day === day)),
  };
}

/** What a job's waiting costs a week on each of the days. */
interface Weekly {
  readonly id: string;
  readonly weekly: readonly number[];
}

/**
 * The barometer: service pressure that still waits, money a week, before the first day and after each.
 *
 * @returns one figure more than there are days
 */
export function pressureLeft({ days }: PlanProblem, jobs: readonly Weekly[], placing: Placing): readonly number[] {
  const after = (day: number): number =>
    jobs.reduce((sum, { id, weekly }) => {
      const at = placing.get(id);
      const isDone = at !== undefined && day >= 0 && at.day <= (days[day] ?? '');
      return isDone ? sum : sum + (weekly[Math.max(0, day)] ?? 0);
    }, 0);
  return [-1, ...days.keys()].map(after);
}

/** Work as it really went so far, minutes since midnight of its day by the clock of the depot. */
export interface Progress {
  readonly startedMin: number | null;
  readonly finishedMin: number | null;
}

/**
 * How long a bar really is: from when it was begun, if it was, to when it was finished or is expected to be.
 *
 * @param nowMin null: its day is not today
 */
export function barOf(
  { startMin, minutes }: { readonly startMin: number; readonly minutes: number },
  { startedMin, finishedMin }: Progress,
  nowMin: number | null,
): { readonly fromMin: number; readonly toMin: number } {
  const fromMin = startedMin ?? (nowMin !== null && finishedMin === null ? Math.max(startMin, nowMin) : startMin);
  if (finishedMin !== null) return { fromMin, toMin: Math.max(finishedMin, fromMin) };
  const expected = fromMin + minutes;
  return { fromMin, toMin: startedMin !== null && nowMin !== null ? Math.max(expected, nowMin) : expected };
}

export interface Bar extends Placed {
  readonly name: string;
  readonly fromMin: number;
  readonly toMin: number;
  readonly isBegun: boolean;
  readonly isFinished: boolean;
}

/** A job that cannot be done where it is booked, with why. */
export interface Trouble {
  readonly job: string;
  readonly message: string;
}

/**
 * What cannot be as it is booked: a person fell ill, a bay was closed, parts come later, or the work before it takes longer
 * than it was given.
 */
export const troublesOf = (problem: PlanProblem, bars: readonly Bar[]): readonly Trouble[] => [
  ...bars.flatMap((bar) => brokenRules(problem, bar)),
  ...brokenDays(problem, bars),
  ...noLongerFits(problem, bars),
];

function brokenRules(problem: PlanProblem, bar: Bar): readonly Trouble[] {
  const job = problem.jobs.find(({ id }) => id === bar.job);
  if (!job || bar.isFinished || bar.isBegun) return [];
  return slotClashes(problem, job, bar).map(({ message }) => ({
    job: bar.job,
    message: `${bar.name}: ${afterColon(message)}`,
  }));
}

/** People who come too late from another depot, or have no break, as it is booked. */
function brokenDays(problem: PlanProblem, bars: readonly Bar[]): readonly Trouble[] {
  const ahead = bars.filter(({ isFinished }) => !isFinished);
  const ids = new Set(ahead.map(({ job }) => job));
  return [...new Set(ahead.map(({ person }) => person))].flatMap((person) =>
    dayClashes(problem, bars, person).flatMap(({ a, b, message }) => {
      const job = [b, a].find((id) => ids.has(id));
      return job === undefined ? [] : [{ job, message: withoutStop(message) }];
    }),
  );
}

/** What comes after something in its bay or with its person and no longer fits, or goes beyond the end of their day. */
function noLongerFits({ bays, people }: PlanProblem, bars: readonly Bar[]): readonly Trouble[] {
  return bars.flatMap((bar) => {
    if (bar.isFinished) return [];
    const blockers = bars.filter(
      (other) =>
        other.job !== bar.job &&
        other.day === bar.day &&
        (other.bay === bar.bay || other.person === bar.person) &&
        other.fromMin < bar.toMin &&
        bar.fromMin < other.toMin &&
        (other.startMin < bar.startMin || (other.startMin === bar.startMin && other.job < bar.job)),
    );
    // As long as it is as it was booked the rules above say it.
    const isAsBooked = bar.fromMin === bar.startMin && !bar.isBegun;
    const whose = isAsBooked ? [] : [...windowsOf(bays, bar.bay), ...windowsOf(people, bar.person)];
    const late = whose.filter(
      ({ windows }) => !windows.some((w) => w.day === bar.day && w.fromMin <= bar.fromMin && bar.toMin <= w.toMin),
    );
    return [
      ...blockers.map(({ name, toMin, bay }) => ({
        job: bar.job,
        message: `${bar.name}: ${bay === bar.bay ? 'its bay' : 'its person'} has ${name} until ${timeTo24(toMin)}`,
      })),
      ...late.map((lateJob) => ({
        job: bar.job,
        message: `${bar.name}: ${lateJob.name} is not there all the time until ${timeTo24(bar.toMin)}`,
      })),
    ];
  });
}

function windowsOf(list: readonly (PlanBay | PlanPerson)[], id: string) {
  const item = list.find((each) => each.id === id);
  return item ? [{ name: named(item), windows: 'open' in item ? item.open : item.shift }] : [];
}
