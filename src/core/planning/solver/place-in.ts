import type { PlanProblem, PlanSlot } from '../plan-problem';
import { agreedSlots } from './plan';
import { scheduleOf, type UnplannedReason, whyNot, whyThere } from './reasons';
import type { Schedule } from './schedule';
import { type Space, spaceOf } from './space';

/** Where a job that waits could be done as the plan stands, or why it cannot. */
export type Place =
  | { readonly slot: PlanSlot; readonly saves: number }
  | { readonly slot: null; readonly reason: UnplannedReason; readonly message: string };

interface Places {
  /** Of each job that waits: the free slot on the day that costs least, or why there is none; each as if it were the only one to be added. */
  readonly waiting: ReadonlyMap<string, Place>;
  /** Of each job that is planned: why there. */
  readonly planned: ReadonlyMap<string, string>;
}

/** Where jobs that wait could be done as the plan stands, and why the others are where they are. @param problem with the hours that have passed left out */
export function placeIn(problem: PlanProblem): Places {
  const space = spaceOf(problem);
  const schedule = scheduleOf(space, agreedSlots(problem));
  const planned = problem.jobs.flatMap(({ id }, job): (readonly [string, string])[] => {
    const slot = schedule.slotOf(job);
    return slot ? [[id, whyThere(problem, space, schedule, job, slot).message]] : [];
  });
  const waiting = problem.jobs.flatMap(({ id }, job): (readonly [string, Place])[] =>
    schedule.isPlanned(job) ? [] : [[id, placeOf(problem, space, schedule, job)]],
  );
  return { waiting: new Map(waiting), planned: new Map(planned) };
}

function placeOf(problem: PlanProblem, space: Space, schedule: Schedule, job: number): Place {
  const { days, bays, people } = problem;
  const spaceJob = space.jobs[job];
  for (const day of spaceJob?.order ?? []) {
    const at = schedule.find(job, day);
    if (!at || !spaceJob) continue;
    const slot = {
      day: days[at.day] ?? '',
      bay: bays[at.bay]?.id ?? '',
      person: people[at.person]?.id ?? '',
      startMin: at.start,
    };
    return { slot, saves: spaceJob.costUnplanned - (spaceJob.cost[day] ?? 0) };
  }
  const { code: reason, message } = whyNot(problem, space, schedule, job);
  return { slot: null, reason, message };
}
