import type { z } from 'zod';
import type { absence, bay, person, proposal } from '@/contracts/http/planning';
import type { ProposalResult } from '@/core/planning/plan-proposal';
import type { WeekHours } from '@/core/planning/presence';
import type { listBays } from '@/server/fleet/bays';
import type { listPeople } from '@/server/fleet/people';
import type { AbsenceView } from '@/server/planning/absences';
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

type Proposal = Extract<Awaited<ReturnType<typeof viewProposal>>, { ok: true }>['value'];

function toPlan({ days, plan, jobs, names }: ProposalResult) {
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
      bay: names[inBay] ?? inBay,
      person: names[by] ?? by,
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
