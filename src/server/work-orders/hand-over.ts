import { and, eq, isNull } from 'drizzle-orm';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { workOrders, workTimes } from '@/db/schema';
import { type Actor, refusal } from '../access';
import { sheetNow } from '../catalogue/current-sheet';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome } from '../failure';
import { blockersOf } from './blockers-of';
import { takeOpenOrder } from './lock-open-order';
import { loadFloorState } from './order-state';

/** The person who did the work says that it is done, and signs with their name. A supervisor verifies and closes. */
export async function handOver(deps: Deps, actor: Actor, workOrderId: string): Promise<Outcome<null>> {
  const refused = refusal(actor, 'record work');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const taken = await takeOpenOrder(tx, actor, workOrderId);
    if (!taken.ok) return taken;
    const state = await loadFloorState(tx, taken.value, deps.today());
    if (!state) return notFound('work order');
    const sheet = await sheetNow(tx, actor.fleetId, deps.today(), taken.value);
    // A finding that stops the work is for the supervisor, who sees it next: here none is asked.
    const blockers = await blockersOf(tx, state, [], sheet?.changed ?? null);
    if (blockers.length > 0) return fail('conflict', `This order is not done yet. ${blockers.join(' ')}`);
    await tx
      .update(workTimes)
      .set({ toAt: deps.now() })
      .where(and(eq(workTimes.workOrderId, workOrderId), isNull(workTimes.toAt)));
    await tx
      .update(workOrders)
      .set({ handedOverBy: actor.personId, handedOverAt: deps.now(), version: taken.value.version + 1 })
      .where(eq(workOrders.id, workOrderId));
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'hand over',
      entity: 'work-order',
      entityId: workOrderId,
      changes: {},
    });
    return ok(null);
  });
}
