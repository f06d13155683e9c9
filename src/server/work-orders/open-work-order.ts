import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import type { DueState } from '@/core/due/due';
import type { WorkOrderId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { nextNumber, type WorkOrderRow } from '@/db/queries/work-orders';
import { vehicles, workOrders } from '@/db/schema';
import type { Actor } from '../access';
import { fitmentOf, type VehicleFitment } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import { blockingFault } from '../due/defer';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { loadFloorState } from './order-state';
import { chosenOtherWork } from './other-work';
import { PLUG_SERVICE, planTasks, type TaskInput, type TaskPlan, tasksInput } from './plan-tasks';
import { proposalFor, toTask } from './propose-visit';
import { orTaken, putTasks } from './put-tasks';
import { syncProcedure } from './sync-procedure';

const MAX_AT_ONCE = 100;

const opening = {
  releaseReason: z.string().max(300).optional(),
  /** What is done; left out: what is due or to be looked at, and all plugs where nothing is. */
  tasks: tasksInput.optional(),
  /** Without tasks: only what is due, or all that is proposed and taken by itself: policies, findings, what is nearly used. */
  take: z.enum(['due', 'proposed']).default('due'),
  /** Not ignition, by what the family of its engine calls it. */
  otherWork: z.array(z.string().max(120)).max(20).default([]),
};

interface Opened {
  readonly workOrderId: WorkOrderId;
  readonly number: number;
}

/**
 * Opens a work order for one vehicle: its tasks with the sheets in force, their steps, and a record for each place.
 * Refused without a firm match for what goes in: a part is never guessed.
 */
export const openWorkOrder = useCase({
  permission: 'open work orders',
  input: z.object({ vehicleId: z.uuid(), ...opening }),
  async run(deps, actor, { vehicleId, releaseReason = '', tasks: asked, take, otherWork }): Promise<Outcome<Opened>> {
    return deps.db
      .transaction(async (tx): Promise<Outcome<Opened>> => {
        const fitment = await fitmentOf(tx, actor.fleetId, deps.today(), vehicleId);
        if (!fitment) return notFound('vehicle');
        const why = releaseReason.trim();
        const tasks = asked ?? (await tasksDue({ ...deps, db: tx }, actor, fitment, take));
        if (tasks.length === 0)
          return fail(
            'conflict',
            `What is due of unit ${fitment.vehicle.unitNumber} is on an open work order already. Put more on that one, or name what this one is for.`,
          );
        const plans = planTasks(fitment, tasks, why);
        if (!plans.ok) return plans;
        const others = chosenOtherWork(fitment.family, otherWork);
        if (!others.ok) return others;
        const waits = await whyItWaits(tx, fitment, tasks);
        if (waits) return waits;
        const order = await insertOrder(deps, tx, actor, { vehicleId, otherWork: others.value });
        await putTasks(tx, actor, order, plans.value, why);
        await syncNow(deps, tx, order, false, fitment);
        await writeAudit(tx, actor, {
          action: 'open',
          entity: 'work-order',
          entityId: order.id,
          changes: openedChanges(order, fitment, plans.value, why),
        });
        return ok({ workOrderId: order.id, number: order.number });
      })
      .catch(orTaken);
  },
});

/** What is due, or to be looked at. What policies and findings add is proposed to a person, who takes or leaves it, or takes all. */
async function tasksDue(
  deps: Deps,
  actor: Actor,
  fitment: VehicleFitment,
  take: 'due' | 'proposed',
): Promise<readonly TaskInput[]> {
  const { proposals, isOnOrder } = await proposalFor(deps, actor, fitment);
  const due = proposals.filter(({ reason, isTaken }) => {
    if (reason.kind !== 'due' && reason.kind !== 'assumed') return take === 'proposed' && isTaken;
    // Where an order is open already, a second one is for what cannot wait: the rest was left out of it.
    return !isOnOrder || WANTED_NOW.has(reason.state);
  });
  return due.length > 0 || isOnOrder ? due.map(toTask) : [PLUG_SERVICE];
}

const WANTED_NOW: ReadonlySet<DueState> = new Set(['past', 'soon', 'inspect']);

/** A new order with nothing on it yet. */
export async function insertOrder(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  what: Pick<WorkOrderRow, 'vehicleId' | 'otherWork'>,
): Promise<WorkOrderRow> {
  const [order] = await tx
    .insert(workOrders)
    .values({
      fleetId: actor.fleetId,
      number: await nextNumber(tx, actor.fleetId),
      ...what,
      state: 'proposed',
      minutes: 0,
      openedOn: deps.today(),
      openedBy: actor.personId,
    })
    .returning();
  if (!order) throw new Error('the work order was not written');
  return order;
}

/** Brings the procedure of an order to its tasks as they are now. */
export async function syncNow(
  deps: Deps,
  tx: Tx,
  order: WorkOrderRow,
  reopen: boolean,
  known?: VehicleFitment,
): Promise<void> {
  const state = await loadFloorState(tx, order, deps.today(), known);
  if (!state) throw new Error('the work order has no vehicle');
  await syncProcedure(tx, state, { reopen });
}

/** New plugs would be read by a fault that is not theirs. */
async function whyItWaits(tx: Tx, { vehicle }: VehicleFitment, tasks: readonly TaskInput[]) {
  if (!tasks.some(({ component, action }) => component === 'plug' && action === 'replace')) return null;
  const fault = await blockingFault(tx, vehicle.id);
  return fault
    ? fail(
        'conflict',
        `Unit ${vehicle.unitNumber} waits for another fault: ${fault}. New plugs would be read by a fault that is not theirs. Say on its page when it is mended.`,
      )
    : null;
}

function openedChanges(
  { number, otherWork }: WorkOrderRow,
  { vehicle }: VehicleFitment,
  plans: readonly TaskPlan[],
  reason: string,
) {
  const blockers = [...new Set(plans.flatMap((plan) => plan.blockers))];
  return {
    number,
    unit: vehicle.unitNumber,
    tasks: plans.map(taskWords),
    ...(otherWork.length > 0 ? { otherWork: otherWork.map(({ what }) => what) } : {}),
    ...(blockers.length > 0 ? { releasedDespite: blockers, reason } : {}),
  };
}

/** A task as it stands in the audit: "replace plug, EM-7310 by revision 2, 4 places". */
export const taskWords = ({ action, component, sheet, places }: TaskPlan): string =>
  [
    `${action} ${component.replace('_', ' ')}`,
    sheet && `${sheet.part.number} by revision ${sheet.revision}`,
    `${places.length} ${places.length === 1 ? 'place' : 'places'}`,
  ]
    .filter(Boolean)
    .join(', ');

/** The same by the number that the fleet knows a vehicle by. */
export const openWorkOrderForUnit = useCase({
  permission: 'open work orders',
  input: z.object({ unitNumber: z.string().max(60), ...opening }),
  async run(deps, actor, { unitNumber, ...rest }): Promise<Outcome<Opened>> {
    const [vehicle] = await deps.db
      .select({ id: vehicles.id })
      .from(vehicles)
      .where(and(eq(vehicles.fleetId, actor.fleetId), eq(vehicles.unitNumber, unitNumber)));
    return vehicle ? openWorkOrder(deps, actor, { vehicleId: vehicle.id, ...rest }) : notFound('vehicle');
  },
});

/** Opens one order for each of some vehicles, each by itself: one that is refused says why, and the others are opened. */
export const openWorkOrders = useCase({
  permission: 'open work orders',
  input: z.object({
    vehicleIds: z.array(z.uuid()).max(MAX_AT_ONCE, `At most ${MAX_AT_ONCE} work orders are opened at once.`),
    take: opening.take,
  }),
  async run(
    deps,
    actor,
    { vehicleIds, take },
  ): Promise<Outcome<{ readonly opened: readonly Opened[]; readonly refused: readonly string[] }>> {
    const reasons: string[] = [];
    const opened: Opened[] = [];
    for (const vehicleId of new Set(vehicleIds)) {
      const outcome = await openWorkOrder(deps, actor, { vehicleId, take });
      if (outcome.ok) opened.push(outcome.value);
      else reasons.push(outcome.error.message);
    }
    return ok({ opened, refused: reasons });
  },
});
