import { z } from 'zod';
import { planClashes } from '@/core/planning/plan-check';
import type { PlanProblem } from '@/core/planning/plan-problem';
import { agreedSlots, leastCost, planOf, withBound } from '@/core/planning/solver/plan';
import { spaceOf } from '@/core/planning/solver/space';
import { type WhatIfChange, withChanges } from '@/core/planning/what-if';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { planProposals } from '@/db/schema';
import type { Deps } from '../deps';
import { ensureDueStatus } from '../due/ensure-due-status';
import { fail, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { fleetProblem } from './fleet-problem';

/* A second plan, worked out on somebody's own screen: the fleet as it is goes out, and what they would keep comes back. */

const HORIZON_DAYS = 10;
const SECONDS = 5;

const scopeNow = ({ today }: Deps) => ({ from: today(), days: HORIZON_DAYS, seconds: SECONDS, seed: 1 });

/** The fleet as a problem, with what each job is. */
export const viewWhatIf = useCase({
  permission: 'plan work orders',
  async run(deps, actor) {
    await ensureDueStatus(deps.db, actor.fleetId, deps.today());
    const clock = { today: deps.today(), now: deps.now() };
    return ok(await fleetProblem(deps.db, actor.fleetId, clock, scopeNow(deps)));
  },
});

const day = z.iso.date('Give a day as 2026-12-24.');
const id = z.string().min(1, 'Choose one.').max(120);
const span = { from: day, to: day };

const change = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('bay_more'), depot: id, day }),
  z.object({ kind: z.literal('bay_closed'), bay: id, ...span }),
  z.object({ kind: z.literal('person_away'), person: id, ...span }),
  z.object({ kind: z.literal('vehicle_away'), job: id, ...span }),
  z.object({ kind: z.literal('parts_late'), job: id, until: day }),
]);

const keepInput = z.object({
  name: z.string().trim().min(1, 'Give it a name.').max(80),
  changes: z.array(change).max(50),
  slots: z
    .array(z.object({ job: id, day, bay: id, person: id, startMin: z.number().int().min(0).max(1439) }))
    .max(5000),
});

/**
 * Keeps a second plan under a name, to be adopted or not. It is checked against the fleet as it is now, and what it costs and
 * why each job is where it is are worked out anew: nothing of that is taken from the screen.
 */
export const keepWhatIf = useCase({
  permission: 'plan work orders',
  input: keepInput,
  async run(deps, actor, { name, changes, slots }): Promise<Outcome<{ proposalId: string }>> {
    const scope = scopeNow(deps);
    const clock = { today: deps.today(), now: deps.now() };
    return deps.db.transaction(async (tx) => {
      const { problem: asItIs, jobs } = await fleetProblem(tx, actor.fleetId, clock, scope);
      const problem = withChanges(asItIs, changes satisfies readonly WhatIfChange[]);
      const fault = whyNotKept(problem, slots);
      if (fault) return fail('conflict', `${fault} The fleet has changed meanwhile: work it out again.`);
      const kept = withSlots(problem, slots);
      const plan = planOf(problem, spaceOf(problem), agreedSlots(kept));
      const result = {
        days: problem.days,
        plan: withBound(plan, leastCost(problem)),
        jobs,
        bays: problem.bays,
        people: problem.people,
      };
      const [row] = await tx
        .insert(planProposals)
        .values({
          fleetId: actor.fleetId,
          askedBy: actor.personId,
          state: 'done',
          scope,
          name,
          changes,
          result,
          finishedAt: deps.now(),
        })
        .returning({ id: planProposals.id });
      if (!row) throw new Error('the proposal was not written');
      await writeAudit(tx, actor, {
        action: 'create',
        entity: 'plan-proposal',
        entityId: row.id,
        changes: { name, changes: changes.length, planned: plan.assignments.length },
      });
      return ok({ proposalId: row.id });
    });
  },
});

type Slots = z.output<typeof keepInput>['slots'];

/** Why a plan cannot be; null: it can. What is pinned stays where it is, whatever is said of it. */
function whyNotKept(problem: PlanProblem, slots: Slots): string | null {
  const jobs = new Map(problem.jobs.map((job) => [job.id, job]));
  const known = slots.filter(({ job }) => jobs.has(job));
  const gone = slots.length - known.length;
  if (gone > 0) return `${gone} of its jobs ${gone === 1 ? 'is' : 'are'} no longer to be planned.`;
  const pinned = problem.jobs.flatMap(({ id: job, pin }) => (pin ? [{ job, ...pin }] : []));
  const free = known.filter(({ job }) => !jobs.get(job)?.pin);
  const pins = new Set(pinned.map(({ job }) => job));
  // Pins may break a rule that somebody knew better than; they are theirs, not this plan's.
  const clash = planClashes(problem, [...pinned, ...free]).find(
    ({ a, b }) => !(pins.has(a) && (pins.has(b) || !jobs.has(b))),
  );
  return clash?.message ?? null;
}

/** With what is kept as what was agreed: a pin stays where it is all the same. */
function withSlots(problem: PlanProblem, slots: Slots): PlanProblem {
  const slotOf = new Map(slots.map((slot) => [slot.job, slot]));
  return { ...problem, jobs: problem.jobs.map((job) => ({ ...job, was: slotOf.get(job.id) ?? null })) };
}
