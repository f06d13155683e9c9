import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { splitForm, takeOffTaskForm } from '@/contracts/forms/work-orders';
import type { WorkOrderId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { placeName, sayPlaces } from '@/core/work/say-places';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import type { PlaceRow, TaskRow, WorkOrderRow } from '@/db/queries/work-orders';
import { taskPlaces, workOrders, workTasks } from '@/db/schema';
import type { Actor } from '../access';
import { fitmentOf } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome } from '../failure';
import type { Undoable } from '../undo/undoable';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { insertOrder, syncNow, taskWords } from './open-work-order';
import { type FloorState, loadFloorState } from './order-state';
import { chosenOtherWork } from './other-work';
import { targetOf } from './place-record';
import { planTasks, tasksInput } from './plan-tasks';
import { orTaken, putTasks } from './put-tasks';

/** Puts more tasks on an order that is open. A step that now says more than when it was done is open again. */
export const addTasks = useCase({
  permission: 'open work orders',
  input: z.object({ workOrderId: z.uuid(), tasks: tasksInput, releaseReason: z.string().max(300).optional() }),
  async run(deps, actor, { workOrderId, tasks, releaseReason = '' }): Promise<Outcome<{ added: number } & Undoable>> {
    return deps.db
      .transaction(async (tx): Promise<Outcome<{ added: number } & Undoable>> => {
        const order = await lockOpenOrder(tx, actor, workOrderId);
        const fitment = await fitmentOf(tx, actor.fleetId, deps.today(), order.vehicleId);
        if (!fitment) return notFound('vehicle');
        const plans = planTasks(fitment, tasks, releaseReason.trim());
        if (!plans.ok) return plans;
        const taskIds = await putTasks(tx, actor, order, plans.value, releaseReason.trim());
        await changed(deps, tx, order, true);
        const undo = await writeAudit(tx, actor, {
          action: 'add tasks',
          entity: 'work-order',
          entityId: order.id,
          changes: { tasks: plans.value.map(taskWords), taskIds },
        });
        return ok({ added: plans.value.length, undo });
      })
      .catch(orTaken);
  },
});

/** The order says something else now: what was handed over is open again, and its procedure follows. */
async function changed(deps: Deps, tx: Tx, order: WorkOrderRow, reopen: boolean): Promise<void> {
  await tx
    .update(workOrders)
    .set({ version: order.version + 1, handedOverBy: null, handedOverAt: null })
    .where(eq(workOrders.id, order.id));
  await syncNow(deps, tx, order, reopen);
}

/** Puts other work on an order that is open: a step each, at the end of closing. What stands on it already stays once. */
export const addOtherWork = useCase({
  permission: 'open work orders',
  input: z.object({ workOrderId: z.uuid(), what: z.array(z.string().max(120)).min(1, 'Choose what is done.').max(20) }),
  async run(deps, actor, { workOrderId, what }): Promise<Outcome<{ added: number }>> {
    return deps.db.transaction(async (tx): Promise<Outcome<{ added: number }>> => {
      const order = await lockOpenOrder(tx, actor, workOrderId);
      const fitment = await fitmentOf(tx, actor.fleetId, deps.today(), order.vehicleId);
      if (!fitment) return notFound('vehicle');
      const chosen = chosenOtherWork(fitment.family, what);
      if (!chosen.ok) return chosen;
      const fresh = chosen.value.filter((work) => !order.otherWork.some((on) => on.what === work.what));
      if (fresh.length === 0) return fail('conflict', 'That is on the order already.');
      const otherWork = [...order.otherWork, ...fresh];
      await tx.update(workOrders).set({ otherWork }).where(eq(workOrders.id, order.id));
      await changed(deps, tx, { ...order, otherWork }, true);
      await writeAudit(tx, actor, {
        action: 'add other work',
        entity: 'work-order',
        entityId: order.id,
        changes: { otherWork: fresh.map((work) => work.what) },
      });
      return ok({ added: fresh.length });
    });
  },
});

/** Takes a task off an order with the reason. What is done under it stays done: then it is closed, not taken off. */
export const takeOffTask = useCase({
  permission: 'open work orders',
  input: takeOffTaskForm.schema,
  async run(deps, actor, { workOrderId, taskId, reason }): Promise<Outcome<Undoable>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, workOrderId);
      const state = await loadFloorState(tx, order, deps.today());
      const task = state?.tasks.find(({ row }) => row.id === taskId);
      if (!state || !task) return notFound('task');
      if (state.tasks.length === 1)
        return fail('conflict', 'This is the only task of the order. Cancel the order instead.');
      const places = state.places.filter((place) => place.taskId === taskId);
      const done = places.filter(({ doneAt }) => doneAt !== null);
      if (done.length > 0)
        return fail(
          'conflict',
          `${sayPlaces(named(state, done))} is done under this task, so it stays. Move what is left to another visit instead.`,
        );
      await tx.update(taskPlaces).set({ live: false }).where(eq(taskPlaces.taskId, taskId));
      await tx
        .update(workTasks)
        .set({ takenOffAt: deps.now(), takenOffBy: actor.personId, takenOffWhy: reason })
        .where(eq(workTasks.id, taskId));
      await changed(deps, tx, order, false);
      const undo = await writeAudit(tx, actor, {
        action: 'take off task',
        entity: 'work-order',
        entityId: order.id,
        changes: { task: `${task.row.action} ${task.row.component}`, taskId, reason },
      });
      return ok({ undo });
    });
  },
});

/** Puts a task back that was taken off, with its places and what was recorded of them. */
export async function putTaskBack(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  ids: { readonly workOrderId: string; readonly taskId: string },
): Promise<Outcome<null>> {
  const order = await lockOpenOrder(tx, actor, ids.workOrderId);
  const [task] = await tx
    .update(workTasks)
    .set({ takenOffAt: null, takenOffBy: null, takenOffWhy: null })
    .where(and(eq(workTasks.id, ids.taskId), eq(workTasks.workOrderId, order.id)))
    .returning();
  if (!task) return notFound('task');
  await tx.update(taskPlaces).set({ live: true }).where(eq(taskPlaces.taskId, task.id));
  await changed(deps, tx, order, true);
  await writeAudit(tx, actor, {
    action: 'add tasks',
    entity: 'work-order',
    entityId: order.id,
    changes: { tasks: [`${task.action} ${task.component}, put back`], taskIds: [task.id] },
  });
  return ok(null);
}

const named = ({ layout }: FloorState, places: readonly PlaceRow[]) =>
  places.map((place) => ({ component: place.component, name: placeName(layout, place.component, place) }));

/**
 * Moves places that are not done to another visit of the same vehicle. What was already recorded of them goes with them, so
 * that two visits record what one would have.
 */
export const splitVisit = useCase({
  permission: 'open work orders',
  input: splitForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ workOrderId: WorkOrderId; number: number }>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, input.workOrderId);
      const state = await loadFloorState(tx, order, deps.today());
      if (!state) return notFound('work order');
      const chosen = chosenPlaces(state, input.places);
      if (!chosen.ok) return chosen;
      const other = await insertOrder(deps, tx, actor, { vehicleId: order.vehicleId, otherWork: [] });
      await movePlaces(tx, state, other, chosen.value);
      await changed(deps, tx, order, false);
      await syncNow(deps, tx, other, false);
      for (const [entityId, changes] of [
        [order.id, { places: input.places, to: other.number, reason: input.reason }],
        [other.id, { places: input.places, from: order.number, reason: input.reason }],
      ] as const)
        await writeAudit(tx, actor, { action: 'split', entity: 'work-order', entityId, changes });
      return ok({ workOrderId: other.id, number: other.number });
    });
  },
});

/** The open places that are meant, or why they cannot go. */
function chosenPlaces(state: FloorState, targets: readonly string[]): Outcome<readonly PlaceRow[]> {
  const here = state.places.filter(({ movedToId }) => movedToId === null);
  const byTarget = new Map(here.map((place) => [targetOf(place), place]));
  const unknown = targets.find((target) => !byTarget.has(target));
  if (unknown) return fail('invalid', `There is no “${unknown}” on this order.`, { places: `No “${unknown}” here.` });
  const chosen = [...new Set(targets)].flatMap((target) => byTarget.get(target) ?? []);
  const done = chosen.filter(({ doneAt }) => doneAt !== null);
  if (done.length > 0)
    return fail('conflict', `${sayPlaces(named(state, done))} is done here already, so it cannot go to another visit.`);
  if (chosen.length === here.length)
    return fail('conflict', 'That is all there is on this order. Plan the whole order for another day instead.');
  return ok(chosen);
}

/** The same tasks under the other order, for these places alone, with what was recorded of them. */
async function movePlaces(tx: Tx, { tasks }: FloorState, other: WorkOrderRow, chosen: readonly PlaceRow[]) {
  await tx
    .update(taskPlaces)
    .set({ live: false, movedToId: other.id })
    .where(
      inArray(
        taskPlaces.id,
        chosen.map(({ id }) => id),
      ),
    );
  const movedTasks = tasks.filter(({ row }) => chosen.some(({ taskId }) => taskId === row.id));
  for (const [i, { row }] of movedTasks.entries()) {
    const [copy] = await tx
      .insert(workTasks)
      .values(copied(row, other, i + 1))
      .returning();
    if (!copy) throw new Error('the task was not written');
    await tx
      .insert(taskPlaces)
      .values(
        chosen
          .filter(({ taskId }) => taskId === row.id)
          .map(({ id: _, ...place }) => ({ ...place, workOrderId: other.id, taskId: copy.id, version: 1 })),
      );
  }
}

const copied = ({ id: _, createdAt: __, ...task }: TaskRow, other: WorkOrderRow, ordinal: number) => ({
  ...task,
  workOrderId: other.id,
  ordinal,
});
