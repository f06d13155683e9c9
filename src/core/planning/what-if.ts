import { addDays, type PlainDate } from '../calendar/plain-date';
import { without } from './absence';
import type { DayWindow, PlanProblem } from './plan-problem';

/* A second plan, with something that is not so: a bay more, a person ill, a delivery late, a vehicle away. */

export type WhatIfChange =
  | { readonly kind: 'bay_more'; readonly depot: string; readonly day: PlainDate }
  | { readonly kind: 'bay_closed'; readonly bay: string; readonly from: PlainDate; readonly to: PlainDate }
  | { readonly kind: 'person_away'; readonly person: string; readonly from: PlainDate; readonly to: PlainDate }
  | { readonly kind: 'vehicle_away'; readonly job: string; readonly from: PlainDate; readonly to: PlainDate }
  | { readonly kind: 'parts_late'; readonly job: string; readonly until: PlainDate };

export const WHAT_IF_KINDS = ['bay_more', 'person_away', 'bay_closed', 'vehicle_away', 'parts_late'] as const;

/**
 * The questions that a supervisor asks most, for the first day on which somebody works: the person with most hours ill, a
 * bay more and a bay closed at the depot with most jobs for each bay, the parts of the dearest job three days late.
 *
 * @param weekCosts what another week of a job costs, by its id, in the fleet's money
 * @returns one change each, those that make sense for this problem
 */
export function commonQuestions(problem: PlanProblem, weekCosts: ReadonlyMap<string, number>): readonly WhatIfChange[] {
  const { bays, people, jobs, days } = problem;
  const day = days.find((each) => people.some((person) => minutesOn(person.shift, each) > 0));
  if (day === undefined) return [];
  const person = most(people, ({ shift }) => minutesOn(shift, day));
  const jobsABay = (depot: string): number =>
    jobs.filter((job) => job.depot === depot).length / bays.filter((bay) => bay.depot === depot).length;
  const bay = most(
    bays.filter(({ open }) => minutesOn(open, day) > 0),
    ({ depot }) => jobsABay(depot),
  );
  const late = addDays(day, 3);
  const dearest = most(
    jobs.filter(({ kitFrom }) => kitFrom === null || kitFrom < late),
    ({ id }) => weekCosts.get(id) ?? 0,
  );
  const all: readonly (WhatIfChange | null | undefined)[] = [
    person && { kind: 'person_away', person: person.id, from: day, to: day },
    bay && { kind: 'bay_more', depot: bay.depot, day },
    bay && { kind: 'bay_closed', bay: bay.id, from: day, to: day },
    dearest && { kind: 'parts_late', job: dearest.id, until: late },
  ];
  return all.flatMap((change) => change ?? []);
}

const minutesOn = (windows: readonly DayWindow[], day: PlainDate): number =>
  windows.reduce((sum, window) => sum + (window.day === day ? window.toMin - window.fromMin : 0), 0);

/** The one with the highest figure; the first of equals. Null: the list is empty. */
const most = <T>(list: readonly T[], figureOf: (one: T) => number): T | null =>
  list.reduce<T | null>((best, item) => (best === null || figureOf(item) > figureOf(best) ? item : best), null);

/** What a borrowed bay is called in a plan until it is there. */
export const borrowedBay = (depot: string, day: PlainDate): string => `borrowed ${depot} ${day}`;

const WHOLE_DAY = { fromMin: 0, toMin: 24 * 60 };
/** Where no bay of the depot is open that day. */
const USUAL = { fromMin: 8 * 60, toMin: 16 * 60 };

function daysFrom(from: PlainDate, to: PlainDate): readonly DayWindow[] {
  const days: DayWindow[] = [];
  for (let day = from; day <= to; day = addDays(day, 1)) days.push({ day, ...WHOLE_DAY });
  return days;
}

/** The longest hours that a bay of the depot has that day. */
export function borrowedHours({ bays }: Pick<PlanProblem, 'bays'>, depot: string, day: PlainDate): DayWindow {
  const open = bays
    .filter((bay) => bay.depot === depot)
    .flatMap((bay) => bay.open.filter((window) => window.day === day));
  const longest = [...open].sort((a, b) => b.toMin - b.fromMin - (a.toMin - a.fromMin))[0];
  return longest ?? { day, ...USUAL };
}

function changed(problem: PlanProblem, change: WhatIfChange): PlanProblem {
  const { bays, people, jobs } = problem;
  switch (change.kind) {
    case 'bay_more': {
      const { depot, day } = change;
      const open = [borrowedHours(problem, depot, day)];
      const id = borrowedBay(depot, day);
      if (bays.some((bay) => bay.id === id)) return problem;
      return { ...problem, bays: [...bays, { id, name: `${depot}, borrowed bay`, depot, can: [], open }] };
    }
    case 'bay_closed': {
      const away = daysFrom(change.from, change.to);
      return {
        ...problem,
        bays: bays.map((bay) => (bay.id === change.bay ? { ...bay, open: without(bay.open, away) } : bay)),
      };
    }
    case 'person_away': {
      const away = daysFrom(change.from, change.to);
      return {
        ...problem,
        people: people.map((person) =>
          person.id === change.person ? { ...person, shift: without(person.shift, away) } : person,
        ),
      };
    }
    case 'vehicle_away': {
      const away = daysFrom(change.from, change.to);
      const any = problem.days.map((day) => ({ day, ...WHOLE_DAY }));
      return {
        ...problem,
        jobs: jobs.map((job) => (job.id === change.job ? { ...job, allowed: without(job.allowed ?? any, away) } : job)),
      };
    }
    case 'parts_late':
      return {
        ...problem,
        jobs: jobs.map((job) => (job.id === change.job ? { ...job, kitFrom: later(job.kitFrom, change.until) } : job)),
      };
  }
}

const later = (a: PlainDate | null, b: PlainDate): PlainDate => (a !== null && a > b ? a : b);

/** A problem as it would be. What was agreed stays agreed: what it no longer allows moves at the cost of a move. */
export const withChanges = (problem: PlanProblem, changes: readonly WhatIfChange[]): PlanProblem =>
  changes.reduce(changed, problem);
