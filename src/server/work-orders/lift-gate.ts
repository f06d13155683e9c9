import { liftGateForm } from '@/contracts/forms/work-orders';
import { ok } from '@/core/shared/result';
import { GATE_TABLE, PLACE_GATES } from '@/core/work/gate-table';
import { writeAudit } from '@/db/queries/audit';
import { gateLifts } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { loadFloorState } from './order-state';
import { targetOf } from './place-record';

/**
 * Lifts a gate for one visit: the work may go on although it is shut. Who, when and why stay on the record of the order. Lifted
 * twice, the first reason stands.
 */
export const liftGate = useCase({
  permission: 'lift gates',
  input: liftGateForm.schema,
  async run(deps, actor, { workOrderId, gate, reason, ...given }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx): Promise<Outcome<null>> => {
      const order = await lockOpenOrder(tx, actor, workOrderId);
      const target = given.target || null;
      const isOfPlace = PLACE_GATES.some((known) => known === gate);
      if (isOfPlace !== (target !== null))
        return fail(
          'invalid',
          isOfPlace
            ? `“${GATE_TABLE[gate].says}” is a gate of one place: name the place.`
            : `“${GATE_TABLE[gate].says}” is a gate of the whole visit: leave the place out.`,
        );
      const state = target === null ? null : await loadFloorState(tx, order, deps.today());
      if (target !== null && !state?.places.some((place) => targetOf(place) === target)) return notFound('place');
      const made = await tx
        .insert(gateLifts)
        .values({
          fleetId: actor.fleetId,
          workOrderId: order.id,
          gate,
          target,
          reason,
          liftedBy: actor.personId,
          liftedAt: deps.now(),
        })
        .onConflictDoNothing()
        .returning({ id: gateLifts.id });
      if (made.length > 0)
        await writeAudit(tx, actor, {
          action: 'lift gate',
          entity: 'work-order',
          entityId: order.id,
          changes: { gate: GATE_TABLE[gate].says, ...(target ? { place: target } : {}), reason },
        });
      return ok(null);
    });
  },
});
