import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { dayNumber } from '@/core/calendar/plain-date';
import { checkReading } from '@/core/odometer/check';
import { ok } from '@/core/shared/result';
import { readQuantity } from '@/core/units/read-quantity';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { loadSpecs } from '@/db/queries/catalogue';
import { insertReadings, loadReadings } from '@/db/queries/odometer';
import { loadTimes } from '@/db/queries/work-entries';
import { loadOutgoingPlugs, lockWorkOrder, type SiteRow, type WorkOrderRow } from '@/db/queries/work-orders';
import { bookings, fittedComponents, vehicles, workOrderSites, workOrders } from '@/db/schema';
import type { Actor } from '../access';
import { currentSheet } from '../catalogue/current-sheet';
import type { Deps } from '../deps';
import { endDeferral } from '../due/defer';
import { refreshDue } from '../due/refresh-due';
import { editedMeanwhile, fail, notFound, type Outcome, Refused } from '../failure';
import { findingsOf } from '../findings/findings-of';
import { doubtText } from '../odometer/doubt-text';
import { historyOf, lifeKm } from '../odometer/judge';
import { reasonText } from '../reason';
import { useCase } from '../use-case';
import { blockersOf } from './blockers-of';
import { lockOpenOrder } from './lock-open-order';
import { loadFloorState } from './order-state';
import { minutesWorked } from './work-time';

export const closeInput = z.object({
  workOrderId: z.uuid(),
  version: z.coerce.number().int(),
  odometer: z.string().trim().max(60),
  note: z.string().trim().max(500).default(''),
});

/** Closes a finished order: the reading, the fitted plugs and the next due date move in one transaction. */
export const closeWorkOrder = useCase({
  permission: 'sign off work orders',
  input: closeInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const locked = await lockOpenOrder(tx, actor, input.workOrderId);
      if (!locked.ok) return locked;
      const order = locked.value;
      if (order.version !== input.version) return editedMeanwhile();
      const state = await loadFloorState(tx, order, deps.today());
      if (!state) return notFound('work order');
      const { sites } = state;
      const findings = await findingsOf(tx, state);
      const sheet = await currentSheet(tx, actor.fleetId, deps.today(), order);
      const blockers = await blockersOf(tx, state, findings, sheet?.changed ?? null);
      if (blockers.length > 0) return fail('conflict', `This order cannot be closed yet. ${blockers.join(' ')}`);
      const times = (await loadTimes(tx, order.id)).map(({ time }) => time);
      const odometerKm = await keepReading(deps, tx, actor, order, input.odometer);
      await movePlugs(tx, order, sites, odometerKm, deps.today());
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
      // The work is done, so what was deferred is no longer asked for.
      await endDeferral(tx, order.vehicleId, deps.now());
      await refreshDue(tx, actor.fleetId, deps.today(), [order.vehicleId]);
      await writeAudit(tx, actor, {
        action: 'close',
        entity: 'work-order',
        entityId: order.id,
        changes: { odometer: input.odometer, odometerKm, sites: sites.length },
      });
      return ok(null);
    });
  },
});

async function keepReading(deps: Deps, tx: Tx, actor: Actor, order: WorkOrderRow, text: string): Promise<number> {
  const [vehicle] = await tx.select().from(vehicles).where(eq(vehicles.id, order.vehicleId));
  const unit = vehicle?.odometerUnit ?? 'km';
  const reading = readQuantity({ kind: 'distance', text, personUnit: unit });
  if (reading.verdict !== 'ok')
    throw new Refused({ kind: 'invalid', message: reading.message, fields: { odometer: reading.message } });
  const today = deps.today();
  const odometerKm = vehicle ? lifeKm(reading.valueSi, today, vehicle) : reading.valueSi;
  const known = await loadReadings(tx, actor.fleetId, order.vehicleId);
  const accepted = historyOf(known.filter((row) => row.state === 'accepted'));
  // A vehicle in the bay may stand: the same figure again is no fault.
  const check = checkReading(accepted, { day: dayNumber(today), value: odometerKm, unit: 'km' }, false);
  if (check.verdict === 'suspect') {
    const last = Math.round(accepted.at(-1)?.km ?? 0).toLocaleString('en');
    const message = `The last accepted reading is ${last} km, and this one ${doubtText(check.reasons, check.suggestion?.km ?? null)}. Check figure and unit (this dash shows ${unit}).`;
    throw new Refused({ kind: 'invalid', message, fields: { odometer: message } });
  }
  if (!known.some((row) => row.readOn === today && row.odometerKm === odometerKm)) {
    await insertReadings(tx, actor.fleetId, [
      {
        vehicleId: order.vehicleId,
        readOn: today,
        odometerKm,
        asTyped: text,
        unit: reading.unit === 'mi' ? 'mi' : 'km',
        source: `work order ${order.number}`,
        state: 'accepted',
        enteredBy: actor.personId,
      },
    ]);
  }
  return odometerKm;
}

/** Takes out what the record had in each done site, with what was read off it, and puts the new plug in. */
async function movePlugs(
  tx: Tx,
  order: WorkOrderRow,
  sites: readonly SiteRow[],
  odometerKm: number,
  today: string,
): Promise<void> {
  const current = await loadOutgoingPlugs(tx, order);
  const [spec] = await loadSpecs(tx, order.fleetId, today, [order.specSheetId]);
  for (const old of current) {
    const site = sites.find((s) => s.cylinder === old.cylinder && s.position === old.position);
    if (!site) continue;
    await tx
      .update(fittedComponents)
      .set({
        removedOn: today,
        removedKm: odometerKm,
        removedByWorkOrderId: order.id,
        observedNumber: site.observedNumber,
      })
      .where(eq(fittedComponents.id, old.id));
  }
  await tx.insert(fittedComponents).values(
    sites.map((site) => ({
      fleetId: order.fleetId,
      vehicleId: order.vehicleId,
      component: 'plug' as const,
      cylinder: site.cylinder,
      position: site.position,
      partId: spec?.partId ?? null,
      observedNumber: site.newNumber,
      history: 'proven' as const,
      installedOn: today,
      installedOnCertainty: 'exact' as const,
      installedKm: odometerKm,
      installedKmCertainty: 'exact' as const,
      gapMm: site.newGapMm,
      gapAsTyped: site.newGapAsTyped,
      lot: site.newLot,
      compound: site.compound,
      compoundBatch: site.compoundBatch,
      specSheetId: site.specSheetId,
      workOrderId: order.id,
    })),
  );
}

export const reasonInput = z.object({
  workOrderId: z.uuid(),
  reason: reasonText(300),
});

/** Reopens a closed order: the plugs and the due date go back to where they stood; the odometer reading stays. */
export const reopenWorkOrder = useCase({
  permission: 'reopen or cancel work orders',
  input: reasonInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockWorkOrder(tx, actor.fleetId, input.workOrderId);
      if (!order) return notFound('work order');
      if (order.state !== 'closed') return fail('conflict', `Work order ${order.number} is not closed.`);
      const fitted = await tx.select().from(fittedComponents).where(eq(fittedComponents.workOrderId, order.id));
      if (fitted.some((row) => row.removedOn !== null))
        return fail('conflict', 'Plugs fitted by this order have been replaced since. Open a new order instead.');
      const [open] = await tx
        .select({ number: workOrders.number })
        .from(workOrders)
        .where(
          and(eq(workOrders.vehicleId, order.vehicleId), inArray(workOrders.state, ['proposed', 'planned', 'in_bay'])),
        );
      if (open) return fail('conflict', `This vehicle has work order ${open.number} open. Cancel or close that first.`);
      await tx.delete(fittedComponents).where(eq(fittedComponents.workOrderId, order.id));
      await tx
        .update(fittedComponents)
        .set({ removedOn: null, removedKm: null, removedByWorkOrderId: null, observedNumber: null })
        .where(eq(fittedComponents.removedByWorkOrderId, order.id));
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

/** Cancels an order that no site has been done on. Its bay time is free again. */
export const cancelWorkOrder = useCase({
  permission: 'reopen or cancel work orders',
  input: reasonInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const locked = await lockOpenOrder(tx, actor, input.workOrderId);
      if (!locked.ok) return locked;
      const order = locked.value;
      const done = await tx
        .select({ doneAt: workOrderSites.doneAt })
        .from(workOrderSites)
        .where(eq(workOrderSites.workOrderId, order.id));
      if (done.some((site) => site.doneAt !== null))
        return fail(
          'conflict',
          'New plugs have been fitted under this order, so it cannot be cancelled: finish and close it.',
        );
      await tx.delete(bookings).where(eq(bookings.workOrderId, order.id));
      await tx
        .update(workOrders)
        .set({ state: 'cancelled', reason: input.reason, version: order.version + 1 })
        .where(eq(workOrders.id, order.id));
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
