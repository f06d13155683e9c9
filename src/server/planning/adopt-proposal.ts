import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { timeOf } from '@/core/calendar/zone';
import { minutesTaken } from '@/core/planning/plan-check';
import type { Adopted, JobFacts, ProposalResult } from '@/core/planning/plan-proposal';
import type { Assignment } from '@/core/planning/solver/plan';
import type { WhatIfChange } from '@/core/planning/what-if';
import type { FleetId, WorkOrderId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { bookings, planProposals, workOrders } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome, Refused } from '../failure';
import { useCase } from '../use-case';
import { openWorkOrder } from '../work-orders/open-work-order';
import { makeSo } from './make-so';
import { planWorkOrder } from './plan-work-order';

interface Ready {
  readonly result: ProposalResult;
  readonly changes: readonly WhatIfChange[];
  readonly name: string | null;
}

const proposalId = z.object({ proposalId: z.uuid() });

/** Takes a proposal that is ready, until the transaction ends. */
export async function lockDone(tx: Tx, fleetId: FleetId, id: string): Promise<Outcome<Ready>> {
  const [row] = await tx
    .select()
    .from(planProposals)
    .where(and(eq(planProposals.fleetId, fleetId), eq(planProposals.id, id)))
    .for('update');
  if (!row) return notFound('proposal');
  if (row.state !== 'done' || !row.result)
    return fail(
      'conflict',
      row.state === 'adopted' ? 'It has been adopted already.' : `This proposal is ${row.state}.`,
    );
  return ok({ result: row.result, changes: row.changes, name: row.name });
}

/** A borrowed bay has an id of its own once it is there. */
const withBays = (result: ProposalResult, ids: ReadonlyMap<string, string>): ProposalResult => ({
  ...result,
  plan: {
    ...result.plan,
    assignments: result.plan.assignments.map((assignment) => ({
      ...assignment,
      bay: ids.get(assignment.bay) ?? assignment.bay,
    })),
  },
});

/**
 * Books what was proposed, in one transaction: what is due gets its work order, what moved is moved, and what the plan leaves out
 * is taken off it. Where somebody else booked a bay or a person meanwhile nothing is changed at all.
 */
export const adoptProposal = useCase({
  permission: 'plan work orders',
  input: proposalId,
  async run(deps, actor, { proposalId: id }): Promise<Outcome<Adopted>> {
    return deps.db.transaction(async (tx): Promise<Outcome<Adopted>> => {
      const proposal = await lockDone(tx, actor.fleetId, id);
      if (!proposal.ok) return proposal;
      const { result, changes, name } = proposal.value;
      const within = { ...deps, db: tx };
      // What the plan takes for granted is made so first.
      const borrowed = await makeSo(within, actor, tx, {
        changes,
        name: name ?? '',
        jobs: result.jobs,
        bays: result.bays,
      });
      const done = await adopt(within, actor, tx, withBays(result, borrowed));
      await tx.update(planProposals).set({ state: 'adopted', adopted: done }).where(eq(planProposals.id, id));
      const { planned, opened, moved, refused } = done;
      await writeAudit(tx, actor, {
        action: 'adopt',
        entity: 'plan-proposal',
        entityId: id,
        changes: { planned, opened, moved, refused: refused.length },
      });
      return ok(done);
    });
  },
});

async function adopt(deps: Deps, actor: Actor, tx: Tx, { plan, jobs, people }: ProposalResult): Promise<Adopted> {
  const facts = new Map(jobs.map((job) => [job.id, job]));
  const free = jobs.filter(({ workOrderId, booked }) => workOrderId !== null && booked !== null && !booked.isPinned);
  const ids = free.flatMap(({ workOrderId }) => workOrderId ?? []);
  const before = ids.length > 0 ? await tx.select().from(bookings).where(inArray(bookings.workOrderId, ids)) : [];
  // All that may move goes first: two that change places would be in each other's way.
  if (before.length > 0) {
    await tx.delete(bookings).where(
      inArray(
        bookings.workOrderId,
        before.map(({ workOrderId }) => workOrderId),
      ),
    );
    await tx
      .update(workOrders)
      .set({ state: 'proposed' })
      .where(
        and(
          inArray(
            workOrders.id,
            before.map(({ workOrderId }) => workOrderId),
          ),
          eq(workOrders.state, 'planned'),
        ),
      );
  }
  const refused: { unitNumber: string; message: string }[] = [];
  let [planned, opened, moved] = [0, 0, 0];
  for (const slot of plan.assignments) {
    const job = facts.get(slot.job);
    if (!job || job.booked?.isPinned) continue;
    const order = await orderOf(deps, actor, job);
    if (!order.ok) {
      refused.push({ unitNumber: job.unitNumber, message: order.error.message });
      continue;
    }
    if (job.workOrderId === null) opened += 1;
    if (job.booked && job.booked.day !== slot.day) moved += 1;
    await book(deps, actor, order.value, { ...job, minutes: minutesTaken({ people }, job, slot) }, slot);
    planned += 1;
  }
  return { planned, opened, moved, refused };
}

async function orderOf(deps: Deps, actor: Actor, { workOrderId, vehicleId }: JobFacts): Promise<Outcome<WorkOrderId>> {
  if (workOrderId !== null) return ok(workOrderId);
  const opened = await openWorkOrder(deps, actor, { vehicleId });
  return opened.ok ? ok(opened.value.workOrderId) : opened;
}

/** @throws Refused where bay or person are taken, or the place is closed: then nothing of the plan is kept */
async function book(
  deps: Deps,
  actor: Actor,
  workOrderId: WorkOrderId,
  job: JobFacts,
  slot: Assignment,
): Promise<void> {
  const booked = await planWorkOrder(deps, actor, {
    workOrderId,
    day: slot.day,
    start: timeOf(slot.startMin),
    minutes: job.minutes,
    bayId: slot.bay,
    personId: slot.person,
  });
  if (booked.ok) return;
  throw new Refused({
    ...booked.error,
    message: `Unit ${job.unitNumber} on ${slot.day}: ${booked.error.message} Nothing was changed: propose anew.`,
  });
}
