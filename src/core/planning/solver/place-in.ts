import type { PlanProblem, PlanSlot } from '../plan-problem';
import { agreedSlots } from './plan';
import { scheduleOf, type UnplannedReason, whyNot } from './reasons';
import { spaceOf } from './space';

/** Where a job that waits could be done as the plan stands, or why it cannot. */
export type Place =
  | { readonly slot: PlanSlot; readonly saves: number }
  | { readonly slot: null; readonly reason: UnplannedReason; readonly message: string };

/**
 * For each job that is not planned the free slot on the day that costs least, with what that saves against leaving it; each as
 * if it were the only one to be added.
 *
 * @param problem with the hours that have passed left out
 */
export function placeIn(problem: PlanProblem): ReadonlyMap<string, Place> {
  const space = spaceOf(problem);
  const schedule = scheduleOf(space, agreedSlots(problem));
  const { days, bays, people } = problem;
  return new Map(
    problem.jobs.flatMap(({ id }, job): (readonly [string, Place])[] => {
      const of = space.jobs[job];
      if (!of || schedule.isPlanned(job)) return [];
      for (const day of of.order) {
        const at = schedule.find(job, day);
        if (!at) continue;
        const slot = {
          day: days[at.day] ?? '',
          bay: bays[at.bay]?.id ?? '',
          person: people[at.person]?.id ?? '',
          startMin: at.start,
        };
        return [[id, { slot, saves: of.costUnplanned - (of.cost[day] ?? 0) }]];
      }
      const { code: reason, message } = whyNot(problem, space, schedule, job);
      return [[id, { slot: null, reason, message }]];
    }),
  );
}
