import { isPlainDate, type PlainDate } from '../calendar/plain-date';

/* What is to be planned: jobs, and the bays and people that can do them. One shape for the fleet, for what-ifs and for HTTP. */

/** From one minute of a day to another, since midnight by the clock of the depot. */
export interface DayWindow {
  readonly day: PlainDate;
  readonly fromMin: number;
  readonly toMin: number;
}

export interface PlanBay {
  readonly id: string;
  /** As people call it; by default its id. */
  readonly name?: string;
  readonly depot: string;
  /** What it can take: "hybrid", "lift". */
  readonly can: readonly string[];
  readonly open: readonly DayWindow[];
}

/** A break that a person has on a day on which their work begins before the window and ends after it. */
export interface Breaks {
  readonly minutes: number;
  /** Between these minutes of the day the break lies in one piece. */
  readonly fromMin: number;
  readonly toMin: number;
}

/** Work at a depot that does not move. */
export interface BusyWindow extends DayWindow {
  readonly depot: string;
  readonly name?: string;
}

export interface PlanPerson {
  readonly id: string;
  readonly name?: string;
  readonly depots: readonly string[];
  readonly skills: readonly string[];
  readonly shift: readonly DayWindow[];
  /** Of this person; left out: that of the problem. */
  readonly breaks?: Breaks | null;
  /** Work that is none of this problem and does not move. */
  readonly busy?: readonly BusyWindow[];
}

/** Where and when a job is done. */
export interface PlanSlot {
  readonly day: PlainDate;
  readonly bay: string;
  readonly person: string;
  readonly startMin: number;
}

export interface PlanJob {
  readonly id: string;
  /** As people call it; by default its id. */
  readonly name?: string;
  readonly depot: string;
  readonly minutes: number;
  readonly needsSkills: readonly string[];
  readonly needsBay: readonly string[];
  /** What else decides about it, as a reason tells it: "it leaves the fleet on 30 Nov". */
  readonly note?: string;
  /** When the vehicle can be had; null: any time. */
  readonly allowed: readonly DayWindow[] | null;
  /** First day on which its parts are there; null: they are. */
  readonly kitFrom: PlainDate | null;
  /** The minute of that day from which they are there; left out: from its beginning. */
  readonly kitFromMin?: number;
  /** Not to start before this minute of its day; null: at any. */
  readonly coolFromMin: number | null;
  /** What it costs to do it on each day, in the order of the days. */
  readonly costByDay: readonly number[];
  readonly costUnplanned: number;
  /** Never moves. */
  readonly pin: PlanSlot | null;
  /** Agreed before: another day, bay or person costs `moveCost`. */
  readonly was: PlanSlot | null;
}

export interface PlanProblem {
  /** Working days in order. */
  readonly days: readonly PlainDate[];
  readonly bays: readonly PlanBay[];
  readonly people: readonly PlanPerson[];
  readonly jobs: readonly PlanJob[];
  readonly moveCost: number;
  /** Minutes that a person needs from one depot to another; left out: none. */
  readonly travelMin?: Readonly<Record<string, Readonly<Record<string, number>>>>;
  /** Of everybody who has none of their own; left out: none. */
  readonly breaks?: Breaks;
  /** Of all money, ISO 4217: as reasons tell it; left out: amounts are told alone. */
  readonly currency?: string;
  /** The most that the search may take. */
  readonly seconds: number;
  readonly seed: number;
}

/** What a person calls a job, a bay or another person. */
export const named = ({ id, name }: { readonly id: string; readonly name?: string }): string => name ?? id;

/** The same day, bay and person, at whatever time. */
export const isSamePlace = (a: PlanSlot, b: PlanSlot): boolean =>
  a.day === b.day && a.bay === b.bay && a.person === b.person;

/** The same to the minute. */
export const isSameSlot = (a: PlanSlot, b: PlanSlot): boolean => isSamePlace(a, b) && a.startMin === b.startMin;

/** How long some windows are together. */
export const minutesIn = (windows: readonly DayWindow[]): number =>
  windows.reduce((sum, { fromMin, toMin }) => sum + toMin - fromMin, 0);

/** The longest that is planned ahead, working days. */
export const MAX_PLAN_DAYS = 90;

/** Something that is not well formed, with the place where it stands: ["jobs", 3, "costByDay"]. */
interface ProblemFault {
  readonly path: readonly (string | number)[];
  readonly message: string;
}

/**
 * The largest problem: jobs × days × bays, and jobs × days × people, of each depot, added up. Twice what 2,000 jobs on 60 days in
 * 40 bays come to, which is planned in under a minute and 1.1 GB (docs/planning.md).
 */
const MAX_PLAN_SIZE = 10_000_000;

/** Why a problem is too large to be planned, in words; null: it is not. */
export function sizeFault({ days, bays, people, jobs }: PlanProblem): string | null {
  const jobsAt = new Map<string, number>();
  for (const { depot } of jobs) jobsAt.set(depot, (jobsAt.get(depot) ?? 0) + 1);
  const ofBays = bays.reduce((sum, { depot }) => sum + (jobsAt.get(depot) ?? 0), 0);
  const ofPeople = people.reduce(
    (sum, { depots }) => sum + depots.reduce((all, depot) => all + (jobsAt.get(depot) ?? 0), 0),
    0,
  );
  const size = days.length * Math.max(ofBays, ofPeople);
  return size <= MAX_PLAN_SIZE
    ? null
    : `Jobs × days × bays or people come to ${size.toLocaleString('en')}; ${MAX_PLAN_SIZE.toLocaleString('en')} can be planned. Plan fewer days at a time, or depot by depot.`;
}

/** What is wrong with a problem as it is written; empty: nothing. */
export function problemFaults(problem: PlanProblem): readonly ProblemFault[] {
  const { days, bays, people, jobs } = problem;
  return [
    ...dayFaults(days),
    ...twice(bays, 'bays'),
    ...twice(people, 'people'),
    ...twice(jobs, 'jobs'),
    ...bays.flatMap(({ open }, i) => windowFaults(open, ['bays', i, 'open'])),
    ...people.flatMap(({ shift }, i) => windowFaults(shift, ['people', i, 'shift'])),
    ...jobs.flatMap((job, i) => jobFaults(job, i, problem)),
    ...breakFaults(problem.breaks),
  ];
}

const breakFaults = (breaks: Breaks | undefined): readonly ProblemFault[] =>
  breaks && breaks.toMin - breaks.fromMin < breaks.minutes
    ? [{ path: ['breaks'], message: `a break of ${breaks.minutes} minutes does not fit into its window` }]
    : [];

function dayFaults(days: readonly PlainDate[]): readonly ProblemFault[] {
  if (days.length === 0 || days.length > MAX_PLAN_DAYS)
    return [{ path: ['days'], message: `give 1 to ${MAX_PLAN_DAYS} days` }];
  const wrong = days.findIndex((day, i) => !isPlainDate(day) || (i > 0 && day <= (days[i - 1] ?? '')));
  return wrong < 0 ? [] : [{ path: ['days', wrong], message: 'days are real, each once and in order' }];
}

function twice(list: readonly { readonly id: string }[], name: string): readonly ProblemFault[] {
  const seen = new Set<string>();
  return list.flatMap(({ id }, i) => {
    if (seen.has(id)) return [{ path: [name, i, 'id'], message: `“${id}” stands there twice` }];
    seen.add(id);
    return [];
  });
}

const windowFaults = (windows: readonly DayWindow[], path: readonly (string | number)[]): readonly ProblemFault[] =>
  windows.flatMap(({ day, fromMin, toMin }, i) =>
    isPlainDate(day) && fromMin < toMin
      ? []
      : [{ path: [...path, i], message: 'ends before it begins, or no real day' }],
  );

function jobFaults(job: PlanJob, i: number, { days, bays, people }: PlanProblem): readonly ProblemFault[] {
  const { costByDay, allowed, pin, was } = job;
  const slotFaults = (slot: PlanSlot | null, name: string, isFixed: boolean): readonly ProblemFault[] => {
    if (!slot) return [];
    const at = ['jobs', i, name];
    return [
      ...(isFixed && !days.includes(slot.day) ? [{ path: [...at, 'day'], message: 'is none of the days' }] : []),
      ...(isFixed && !bays.some(({ id }) => id === slot.bay)
        ? [{ path: [...at, 'bay'], message: 'is none of the bays' }]
        : []),
      ...(isFixed && !people.some(({ id }) => id === slot.person)
        ? [{ path: [...at, 'person'], message: 'is none of the people' }]
        : []),
    ];
  };
  return [
    ...(costByDay.length === days.length
      ? []
      : [{ path: ['jobs', i, 'costByDay'], message: `has ${costByDay.length} figures for ${days.length} days` }]),
    ...windowFaults(allowed ?? [], ['jobs', i, 'allowed']),
    ...slotFaults(pin, 'pin', true),
    // What was agreed may lie on a day or in a bay that is gone: then it is moved, and that costs.
    ...slotFaults(was, 'was', false),
  ];
}
