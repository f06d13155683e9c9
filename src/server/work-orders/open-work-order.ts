import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import type { ReleaseBlocker } from '@/core/catalogue/match';
import { type Layout, layoutOf } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import type { WorkOrderId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Procedure } from '@/core/work/procedure/step';
import type { Tx } from '@/db/client';
import { violation } from '@/db/constraint-error';
import { writeAudit } from '@/db/queries/audit';
import { choicesFor, loadPolicyChoices } from '@/db/queries/policies';
import { loadFittedPlugs, nextNumber, type WorkOrderRow } from '@/db/queries/work-orders';
import { vehicles, workOrderCounts, workOrderSites, workOrderSteps, workOrders } from '@/db/schema';
import { fitmentOf } from '../catalogue/fitment-of';
import { blockingFault } from '../due/defer';
import { whyNoMatch } from '../due/refresh-due';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { earlierRemoval } from './previous-set';
import { procedureOf } from './procedure-of';

const MAX_AT_ONCE = 100;

type Found = NonNullable<Awaited<ReturnType<typeof fitmentOf>>>;

const BLOCKERS: Readonly<Record<ReleaseBlocker, string>> = {
  unchecked: 'has been checked by nobody but the one who entered it',
  expired: 'has expired',
  'makers-disagree': 'is contradicted by another of its rank, and their ranges do not overlap',
};

/**
 * Opens a plug service for one vehicle with the spec in force, its steps and a record for each site.
 * Refused without a firm match: a part is never guessed.
 */
export const openWorkOrder = useCase({
  permission: 'open work orders',
  input: z.object({ vehicleId: z.uuid(), releaseReason: z.string().max(300).optional() }),
  async run(deps, actor, input): Promise<Outcome<{ workOrderId: WorkOrderId; number: number }>> {
    try {
      return await deps.db.transaction(async (tx) => {
        const found = await fitmentOf(tx, actor.fleetId, deps.today(), input.vehicleId);
        if (!found) return notFound('vehicle');
        const releaseReason = input.releaseReason?.trim() ?? '';
        const refused = await whyNotOpened(tx, found, releaseReason);
        if (refused) return refused;
        const { vehicle, family, fitment, blockers } = found;
        if (fitment.kind !== 'match') return notFound('vehicle');
        const { spec } = fitment;
        const number = await nextNumber(tx, actor.fleetId);
        const choices = choicesFor(await loadPolicyChoices(tx, actor.fleetId), vehicle);
        const procedure = procedureOf(vehicle, family, spec, choices, await earlierRemoval(tx, vehicle.id));
        const [order] = await tx
          .insert(workOrders)
          .values({
            fleetId: actor.fleetId,
            number,
            vehicleId: vehicle.id,
            component: 'plug',
            state: 'proposed',
            specSheetId: spec.id,
            releaseReason: blockers.length > 0 ? releaseReason : null,
            minutes: procedure.minutes,
            openedOn: deps.today(),
            openedBy: actor.personId,
          })
          .returning();
        if (!order) throw new Error('the work order was not written');
        await insertProcedure(tx, order, procedure);
        await insertSites(tx, order, layoutOf(family.model));
        await writeAudit(tx, actor, {
          action: 'open',
          entity: 'work-order',
          entityId: order.id,
          changes: {
            number,
            unit: vehicle.unitNumber,
            part: spec.part.number,
            specRevision: spec.revision,
            ...(blockers.length > 0 ? { releasedDespite: blockers, reason: releaseReason } : {}),
          },
        });
        return ok({ workOrderId: order.id, number });
      });
    } catch (error) {
      if (violation(error)?.constraint === 'work_orders_one_open_a_component')
        return fail('conflict', 'This vehicle already has an open work order for its plugs.');
      throw error;
    }
  },
});

/** Why no order may be opened now; null: it may. */
async function whyNotOpened(tx: Tx, { vehicle, fitment, blockers }: Found, releaseReason: string) {
  if (fitment.kind !== 'match')
    return fail(
      'conflict',
      `Unit ${vehicle.unitNumber} has no firm match, so no part can be named. ${whyNoMatch(fitment)} Resolve it on the vehicle's page.`,
    );
  const fault = await blockingFault(tx, vehicle.id);
  if (fault)
    return fail(
      'conflict',
      `Unit ${vehicle.unitNumber} waits for another fault: ${fault}. New plugs would be read by a fault that is not theirs. Say on its page when it is mended.`,
    );
  const [blocker] = blockers;
  if (blocker && releaseReason.length < 3)
    return fail(
      'conflict',
      `The spec sheet in force ${BLOCKERS[blocker]}. Have it mended, or give the reason for which you release it on the page of unit ${vehicle.unitNumber}.`,
      { releaseReason: 'Say why this sheet may be worked by.' },
    );
  return null;
}

async function insertProcedure(tx: Tx, { id, fleetId }: WorkOrderRow, { steps, counts }: Procedure): Promise<void> {
  const own = { fleetId, workOrderId: id };
  await tx.insert(workOrderSteps).values(
    steps.map(({ tools, consumables, ...step }, place) => ({
      ...own,
      ...step,
      tools: [...tools],
      consumables: [...consumables],
      place,
    })),
  );
  await tx.insert(workOrderCounts).values(
    counts.map(({ key, kind, what, count, out, back }) => ({
      ...own,
      key,
      kind,
      what,
      expected: count,
      outStep: out,
      backStep: back,
    })),
  );
}

/** A record for each site, with what should sit there by the history. */
async function insertSites(tx: Tx, order: WorkOrderRow, layout: Layout): Promise<void> {
  const fitted = await loadFittedPlugs(tx, order.vehicleId);
  const expected = new Map(fitted.map((row) => [siteId(row.fitted), row.number ?? row.fitted.believedNumber]));
  await tx.insert(workOrderSites).values(
    layout.sites.map((site) => ({
      fleetId: order.fleetId,
      workOrderId: order.id,
      cylinder: site.cylinder,
      position: site.position,
      specSheetId: order.specSheetId,
      expectedNumber: expected.get(siteId(site)) ?? null,
    })),
  );
}

/** The same by the number that the fleet knows a vehicle by. */
export const openWorkOrderForUnit = useCase({
  permission: 'open work orders',
  input: z.object({ unitNumber: z.string().max(60), releaseReason: z.string().max(300).optional() }),
  async run(
    deps,
    actor,
    { unitNumber, releaseReason },
  ): Promise<Outcome<{ workOrderId: WorkOrderId; number: number }>> {
    const [vehicle] = await deps.db
      .select({ id: vehicles.id })
      .from(vehicles)
      .where(and(eq(vehicles.fleetId, actor.fleetId), eq(vehicles.unitNumber, unitNumber)));
    return vehicle ? openWorkOrder(deps, actor, { vehicleId: vehicle.id, releaseReason }) : notFound('vehicle');
  },
});

/** Opens one order for each of some vehicles, each by itself: one that is refused says why, and the others are opened. */
export const openWorkOrders = useCase({
  permission: 'open work orders',
  input: z.object({
    vehicleIds: z.array(z.uuid()).max(MAX_AT_ONCE, `At most ${MAX_AT_ONCE} work orders are opened at once.`),
  }),
  async run(
    deps,
    actor,
    { vehicleIds },
  ): Promise<Outcome<{ readonly opened: number; readonly refused: readonly string[] }>> {
    const reasons: string[] = [];
    let opened = 0;
    for (const vehicleId of new Set(vehicleIds)) {
      const one = await openWorkOrder(deps, actor, { vehicleId });
      if (one.ok) opened += 1;
      else reasons.push(one.error.message);
    }
    return ok({ opened, refused: reasons });
  },
});
