import type { z } from 'zod';
import type { absence, bay, bookedList, person, proposal } from '@/contracts/http/planning';
import { named } from '@/core/planning/plan-problem';
import type { ProposalResult } from '@/core/planning/plan-proposal';
import type { WeekHours } from '@/core/planning/presence';
import type { listBays } from '@/server/fleet/bays';
import type { listPeople } from '@/server/fleet/people';
import type { AbsenceView } from '@/server/planning/absences';
import type { PlannedJob } from '@/server/planning/list-plan';
import type { viewProposal } from '@/server/planning/proposals';

/* What planning plans with, in the shapes of the HTTP interface. */

type Item<F extends (...args: never[]) => Promise<unknown>> =
  Extract<Awaited<ReturnType<F>>, { ok: true }> extends { value: readonly (infer V)[] } ? V : never;

const toWeek = (week: WeekHours | null) =>
  week &&
  Object.fromEntries(
    Object.entries(week).map(([day, { fromMin, toMin }]) => [day, { from_min: fromMin, to_min: toMin }]),
  );

export const toBay = ({ id, depot, name, can, ownHours }: Item<typeof listBays>): z.output<typeof bay> => ({
  id,
  depot,
  name,
  can,
  hours: toWeek(ownHours),
});

export const toPerson = (
  { id, name, role, hybridQualified, skills, depotIds, hours, active }: Item<typeof listPeople>,
  depotNames: ReadonlyMap<string, string>,
): z.output<typeof person> => ({
  id,
  name,
  role,
  skills: [...(hybridQualified ? ['hybrid'] : []), ...skills],
  depots: depotIds.flatMap((depot) => depotNames.get(depot) ?? []),
  hours: toWeek(hours),
  active,
});

export const toAbsence = (row: AbsenceView): z.output<typeof absence> => ({
  id: row.id,
  of: row.of,
  of_id: row.ofId,
  name: row.name,
  what: row.what,
  from: row.fromDay,
  to: row.toDay,
  from_min: row.fromMin,
  to_min: row.toMin,
  rule: row.rule,
});

export const toBooked = (job: PlannedJob): z.output<typeof bookedList>['items'][number] => ({
  work_order: job.number,
  work_order_id: job.id,
  unit_number: job.unitNumber,
  work: job.what,
  depot: job.depot,
  day: job.day,
  start_min: job.startMin,
  minutes: job.minutes,
  bay: job.bay ?? '',
  bay_id: job.bayId,
  person: job.person ?? '',
  person_id: job.personId,
  state: job.orderState,
  handed_over: job.handedOverAt !== null,
  pinned: job.isPinned,
  version: job.version,
});

type Proposal = Extract<Awaited<ReturnType<typeof viewProposal>>, { ok: true }>['value'];

function toPlan({ days, plan, jobs, bays, people }: ProposalResult) {
  const names = new Map([...bays, ...people].map((item) => [item.id, named(item)]));
  const facts = new Map(jobs.map((job) => [job.id, job]));
  const whose = (id: string) => ({
    unit_number: facts.get(id)?.unitNumber ?? '',
    work_order: facts.get(id)?.number ?? null,
  });
  return {
    days: [...days],
    planned: plan.assignments.map(({ job, day, bay: inBay, person: by, startMin, cost, why }) => ({
      ...whose(job),
      day,
      bay: names.get(inBay) ?? inBay,
      person: names.get(by) ?? by,
      start_min: startMin,
      minutes: facts.get(job)?.minutes ?? 0,
      cost,
      why: { ...why },
    })),
    unplanned: plan.unplanned.map(({ job, reason, message }) => ({ ...whose(job), reason, message })),
    cost: plan.cost,
    lower_bound: plan.lowerBound,
    proven: plan.isProven,
  };
}

export const toProposal = ({ id, state, askedBy, progress, result, problem }: Proposal): z.output<typeof proposal> => ({
  id,
  state,
  asked_by: askedBy,
  progress: progress && { cost: progress.cost, lower_bound: progress.bound, share: progress.share },
  plan: result && toPlan(result),
  problem,
});
