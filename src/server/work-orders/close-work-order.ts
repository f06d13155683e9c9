import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { insertStays, placeKey, REMOVAL_REASONS, type RemovalReason } from '@/core/components/history';
import { isAskedOnly } from '@/core/odometer/check';
import { givenOf, lifeKm, NOTHING_KNOWN, readingFault, takeIn } from '@/core/odometer/intake';
import type { Km } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { readQuantity } from '@/core/units/read-quantity';
import type { Tx } from '@/db/client';
import { lockFitted, type NewStay, newStay, saveHistory, undoOrder } from '@/db/commands/component-history';
import { writeAudit } from '@/db/queries/audit';
import { loadSpecs } from '@/db/queries/catalogue';
import { insertReadings, loadHistories } from '@/db/queries/odometer';
import { loadTimes } from '@/db/queries/work-entries';
import { lockWorkOrder, type SiteRow, type WorkOrderRow } from '@/db/queries/work-orders';
import { bookings, vehicles, workOrderSites, workOrders } from '@/db/schema';
import { distanceText } from '@/text/format';
import { doubtText } from '@/text/odometer-words';
import type { Actor } from '../access';
import { currentSheet } from '../catalogue/current-sheet';
import type { Deps } from '../deps';
import { endDeferral } from '../due/defer';
import { refreshDue } from '../due/refresh-due';
import { editedMeanwhile, fail, notFound, type Outcome, Refused } from '../failure';
import { findingsOf } from '../findings/findings-of';
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
  /** Why the old plugs came out. */
  removalReason: z.enum(REMOVAL_REASONS, 'Choose why the old plugs came out.').default('planned'),
});

/** Closes a finished order: the reading, the fitted plugs and the next due date move in one transaction. */
export const closeWorkOrder = useCase({
  permission: 'sign off work orders',
  input: closeInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, input.workOrderId);
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
      await movePlugs(tx, order, sites, { odometerKm, today: deps.today(), reason: input.removalReason });
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
        changes: { odometer: input.odometer, odometerKm, sites: sites.length, removalReason: input.removalReason },
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
  const history = (await loadHistories(tx, actor.fleetId, [order.vehicleId])).get(order.vehicleId) ?? NOTHING_KNOWN;
  const system = actor.unitSystem;
  const refuse = (message: string) => new Refused({ kind: 'invalid', message, fields: { odometer: message } });
  if (readingFault({ readOn: today, odometerKm }, today))
    throw refuse(`${distanceText(odometerKm, system)} is further than any vehicle goes. Check figure and unit.`);
  const asRead = reading.unit === 'mi' ? ('mi' as const) : ('km' as const);
  const [taken] = takeIn(history, [givenOf({ readOn: today, odometerKm, unit: asRead })], true);
  // Kept, and asked about later: the work is not held up by it.
  const asked = taken?.kind === 'suspect' && isAskedOnly(taken.check) ? taken.check : null;
  if (taken?.kind === 'suspect' && !asked) {
    const { reasons, suggestion } = taken.check;
    const last = distanceText(history.accepted.at(-1)?.km ?? 0, system);
    throw refuse(
      `The last accepted reading is ${last}, and this one ${doubtText(reasons, suggestion?.km ?? null, system)}. Check figure and unit (this dash shows ${unit}).`,
    );
  }
  if (taken?.kind === 'new' || asked) {
    await insertReadings(tx, actor.fleetId, [
      {
        vehicleId: order.vehicleId,
        readOn: today,
        odometerKm,
        asTyped: text,
        unit: asRead,
        source: `work order ${order.number}`,
        state: asked ? 'suspect' : 'accepted',
        doubt: asked?.reasons.join(',') ?? null,
        suggestedKm: asked?.suggestion?.km ?? null,
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
  { odometerKm, today, reason }: { odometerKm: Km; today: string; reason: RemovalReason },
): Promise<void> {
  const [spec] = await loadSpecs(tx, order.fleetId, today, [order.specSheetId]);
  const fresh = sites.map((site) =>
    newStay({
      fleetId: order.fleetId,
      vehicleId: order.vehicleId,
      component: 'plug',
      cylinder: site.cylinder,
      position: site.position,
      partId: spec?.partId ?? null,
      observedNumber: site.newNumber,
      installedOn: today,
      installedKm: odometerKm,
      gapMm: site.newGapMm,
      gapAsTyped: site.newGapAsTyped,
      lot: site.newLot,
      compound: site.compound,
      compoundBatch: site.compoundBatch,
      specSheetId: site.specSheetId,
      workOrderId: order.id,
    }),
  );
  const before: readonly NewStay[] = await lockFitted(tx, order.fleetId, order.vehicleId, 'plug');
  const seen = new Map(
    sites.map((site) => [placeKey({ ...site, vehicleId: order.vehicleId, component: 'plug' }), site.observedNumber]),
  );
  await saveHistory(tx, insertStays(before, fresh, reason), { order: order.id, seen });
}

const reasonInput = z.object({
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
      const [open] = await tx
        .select({ number: workOrders.number })
        .from(workOrders)
        .where(
          and(eq(workOrders.vehicleId, order.vehicleId), inArray(workOrders.state, ['proposed', 'planned', 'in_bay'])),
        );
      if (open) return fail('conflict', `This vehicle has work order ${open.number} open. Cancel or close that first.`);
      if (!(await undoOrder(tx, actor.fleetId, order.id)))
        return fail('conflict', 'Plugs fitted by this order have been replaced since. Open a new order instead.');
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
      const order = await lockOpenOrder(tx, actor, input.workOrderId);
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
