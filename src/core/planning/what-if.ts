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
        people: people.map((one) => (one.id === change.person ? { ...one, shift: without(one.shift, away) } : one)),
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
