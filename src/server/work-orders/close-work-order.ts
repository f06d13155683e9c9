import { and, eq, isNull, ne, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { closeForm, reasonForm } from '@/contracts/forms/work-orders';
import { siteId } from '@/core/engine/model';
import type { Component } from '@/core/engine/quantities';
import { isAskedOnly } from '@/core/odometer/check';
import { certaintyOf, givenOf, lifeKm, NOTHING_KNOWN, readingFault, takeIn } from '@/core/odometer/intake';
import { ok } from '@/core/shared/result';
import { readQuantity } from '@/core/units/read-quantity';
import { fromSi } from '@/core/units/unit';
import { roadTestFault } from '@/core/work/closing';
import type { Tx } from '@/db/client';
import { undoOrder } from '@/db/commands/component-history';
import { writeAudit } from '@/db/queries/audit';
import { insertReadings, loadHistories } from '@/db/queries/odometer';
import { loadTimes } from '@/db/queries/work-entries';
import { loadPlaces, lockWorkOrder, type WorkOrderRow } from '@/db/queries/work-orders';
import { bookings, taskPlaces, vehicles, workOrders, workTasks } from '@/db/schema';
import { distanceText } from '@/text/format';
import { doubtText } from '@/text/odometer-words';
import type { Actor } from '../access';
import { sheetChange } from '../catalogue/current-sheet';
import type { Deps } from '../deps';
import { endDeferral } from '../due/defer';
import { refreshDue } from '../due/refresh-due';
import { editedMeanwhile, fail, notFound, type Outcome, Refused } from '../failure';
import { findingsOf } from '../findings/findings-of';
import { openAfterCancel, watchAfterVisit } from '../misfire/watch';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { missingOf } from './missing-of';
import { moveParts } from './move-parts';
import { type FloorState, isNewAt, loadFloorState, plugPlaces, roadTestEnd } from './order-state';
import { minutesWorked } from './work-time';

/** Closes a finished order: the reading, the fitted parts and the next due dates move in one transaction. */
export const closeWorkOrder = useCase({
  permission: 'sign off work orders',
  input: closeForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, input.workOrderId);
      if (order.version !== input.version) return editedMeanwhile();
      const state = await loadFloorState(tx, order, deps.today());
      if (!state) return notFound('work order');
      const findings = await findingsOf(tx, state);
      const tasks = state.tasks.map(({ row }) => row);
      const sheet = await sheetChange(tx, actor.fleetId, deps.today(), state, tasks);
      const missing = await missingOf(tx, state, findings, sheet);
      if (missing.length > 0)
        return fail('conflict', `This order cannot be closed yet. ${missing.map(({ says }) => says).join(' ')}`);
      const times = (await loadTimes(tx, order.id)).map(({ time }) => time);
      const { odometerKm, certainty } = await keepReading(
        deps,
        tx,
        actor,
        order,
        input.odometer,
        input.roadTestWrong ? undefined : roadTestEnd(state),
      );
      await moveParts(tx, state, {
        odometerKm,
        certainty,
        today: deps.today(),
        plugReason: input.removalReason ?? null,
      });
      await tx.update(taskPlaces).set({ live: false }).where(eq(taskPlaces.workOrderId, order.id));
      await tx
        .update(workOrders)
        .set({
          state: 'closed',
          closedOn: deps.today(),
          closedBy: actor.personId,
          closedKm: odometerKm,
          closedKmAsTyped: input.odometer,
          // Whoever closes what nobody handed over signs for the work as well.
          handedOverBy: order.handedOverBy ?? actor.personId,
          handedOverAt: order.handedOverAt ?? deps.now(),
          minutesWorked: times.length > 0 ? minutesWorked(times, deps.now()) : null,
          note: input.note || null,
          version: order.version + 1,
        })
        .where(eq(workOrders.id, order.id));
      if (isEveryPlugNew(state))
        await tx.update(vehicles).set({ reminderOn: null }).where(eq(vehicles.id, order.vehicleId));
      // The work is done, so what was deferred is no longer asked for.
      await endDeferral(tx, order.vehicleId, deps.now(), componentsDone(state));
      await watchAfterVisit(deps, tx, actor, order, odometerKm);
      await refreshDue(tx, actor.fleetId, deps.today(), [order.vehicleId]);
      await writeAudit(tx, actor, {
        action: 'close',
        entity: 'work-order',
        entityId: order.id,
        changes: {
          odometer: input.odometer,
          odometerKm,
          places: state.places.filter(({ doneAt }) => doneAt !== null).length,
          removalReason: input.removalReason ?? 'as the tasks say',
        },
      });
      return ok(null);
    });
  },
});

/** @param roadEnd what the dash showed after the road test; undefined: nothing to hold the reading against */
async function keepReading(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  order: WorkOrderRow,
  text: string,
  roadEnd: string | undefined,
) {
  const [vehicle] = await tx.select().from(vehicles).where(eq(vehicles.id, order.vehicleId));
  const unit = vehicle?.odometerUnit ?? 'km';
  const reading = readQuantity({ kind: 'distance', text, personUnit: unit });
  if (reading.verdict !== 'ok')
    throw new Refused({ kind: 'invalid', message: reading.message, fields: { odometer: reading.message } });
  const today = deps.today();
  const odometerKm = vehicle ? lifeKm(reading.valueSi, today, vehicle) : reading.valueSi;
  const history = (await loadHistories(tx, actor.fleetId, [order.vehicleId])).get(order.vehicleId) ?? NOTHING_KNOWN;
  const system = actor.unitSystem;
  const refuse = (message: string) => new Refused({ kind: 'invalid', message, fields: { odometer: message } });
  if (readingFault({ readOn: today, odometerKm }, today))
    throw refuse(`${distanceText(odometerKm, system)} is further than any vehicle goes. Check figure and unit.`);
  const certainty = certaintyOf(reading);
  const asRead = reading.unit === 'mi' ? ('mi' as const) : ('km' as const);
  const [taken] = takeIn(history, [givenOf({ readOn: today, odometerKm, unit: asRead, certainty })], true);
  // Kept, and asked about later: the work is not held up by it.
  const asked = taken?.kind === 'suspect' && isAskedOnly(taken.check) ? taken.check : null;
  if (taken?.kind === 'suspect' && !asked) {
    const { reasons, suggestion } = taken.check;
    const last = distanceText(history.accepted.at(-1)?.km ?? 0, system);
    throw refuse(
      `The last accepted reading is ${last}, and this one ${doubtText(reasons, suggestion?.km ?? null, system)}. Check figure and unit (this dash shows ${unit}).`,
    );
  }
  const unlike = roadTestFault(fromSi(reading.valueSi, unit), roadEnd, reading.isAbout);
  if (unlike) throw refuse(unlike);
  if (taken?.kind === 'new' || asked) {
    await insertReadings(tx, actor.fleetId, [
      {
        vehicleId: order.vehicleId,
        readOn: today,
        odometerKm,
        asTyped: text,
        unit: asRead,
        source: `work order ${order.number}`,
        certainty,
        state: asked ? 'suspect' : 'accepted',
        doubt: asked?.reasons.join(',') ?? null,
        suggestedKm: asked?.suggestion?.km ?? null,
        enteredBy: actor.personId,
      },
    ]);
  }
  return { odometerKm, certainty };
}

/** Reopens a closed order: the plugs and the due date go back to where they stood; the odometer reading stays. */
export const reopenWorkOrder = useCase({
  permission: 'reopen or cancel work orders',
  input: reasonForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockWorkOrder(tx, actor.fleetId, input.workOrderId);
      if (!order) return notFound('work order');
      if (order.state !== 'closed') return fail('conflict', `Work order ${order.number} is not closed.`);
      const taken = await openElsewhere(tx, order);
      if (taken) return fail('conflict', `This vehicle has work order ${taken} open. Cancel or close that first.`);
      if (!(await undoOrder(tx, actor.fleetId, order.id)))
        return fail('conflict', 'Parts fitted by this order have been replaced since. Open a new order instead.');
      await tx
        .update(taskPlaces)
        .set({ live: true })
        .where(and(eq(taskPlaces.workOrderId, order.id), isNull(taskPlaces.movedToId), onTask));
      await tx
        .update(workOrders)
        .set({
          state: 'in_bay',
          closedOn: null,
          closedBy: null,
          closedKm: null,
          closedKmAsTyped: null,
          handedOverBy: null,
          handedOverAt: null,
          minutesWorked: null,
          reason: input.reason,
          version: order.version + 1,
        })
        .where(eq(workOrders.id, order.id));
      await refreshDue(tx, actor.fleetId, deps.today(), [order.vehicleId]);
      await writeAudit(tx, actor, {
        action: 'reopen',
        entity: 'work-order',
        entityId: order.id,
        changes: { reason: input.reason, closedOn: order.closedOn, closedKm: order.closedKm },
      });
      return ok(null);
    });
  },
});

/** A place of a task that was not taken off. */
const onTask = sql`exists (select 1 from ${workTasks} where ${workTasks.id} = ${taskPlaces.taskId} and ${workTasks.takenOffAt} is null)`;

/** The number of an open order that has one of the places of this one; null: none. */
async function openElsewhere(tx: Tx, { id, vehicleId }: WorkOrderRow): Promise<number | null> {
  const other = alias(taskPlaces, 'other');
  const [open] = await tx
    .select({ number: workOrders.number })
    .from(taskPlaces)
    .innerJoin(
      other,
      and(
        eq(other.vehicleId, vehicleId),
        eq(other.live, true),
        ne(other.workOrderId, id),
        eq(other.component, taskPlaces.component),
        eq(other.cylinder, taskPlaces.cylinder),
        eq(other.position, taskPlaces.position),
      ),
    )
    .innerJoin(workOrders, eq(workOrders.id, other.workOrderId))
    .where(and(eq(taskPlaces.workOrderId, id), isNull(taskPlaces.movedToId)))
    .limit(1);
  return open?.number ?? null;
}

/** Cancels an order that no place has been done on. Its bay time is free again. */
export const cancelWorkOrder = useCase({
  permission: 'reopen or cancel work orders',
  input: reasonForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, input.workOrderId);
      const places = await loadPlaces(tx, order.id);
      if (places.some(({ doneAt }) => doneAt !== null))
        return fail('conflict', 'Work has been done under this order, so it cannot be cancelled: finish and close it.');
      await tx.update(taskPlaces).set({ live: false }).where(eq(taskPlaces.workOrderId, order.id));
      await tx.delete(bookings).where(eq(bookings.workOrderId, order.id));
      await tx
        .update(workOrders)
        .set({ state: 'cancelled', reason: input.reason, version: order.version + 1 })
        .where(eq(workOrders.id, order.id));
      await openAfterCancel(tx, actor, order.id);
      await writeAudit(tx, actor, {
        action: 'cancel',
        entity: 'work-order',
        entityId: order.id,
        changes: { reason: input.reason },
      });
      return ok(null);
    });
  },
});

/** The vehicle's own reminder is answered by a new set, and by nothing less. */
const isEveryPlugNew = (state: FloorState): boolean =>
  state.layout.sites.every((site) =>
    plugPlaces(state).some((place) => siteId(place) === siteId(site) && place.doneAt !== null && isNewAt(state, place)),
  );

/** Components of which something was done. */
const componentsDone = ({ places }: FloorState): readonly Component[] => [
  ...new Set(places.filter(({ doneAt }) => doneAt !== null).map(({ component }) => component)),
];
