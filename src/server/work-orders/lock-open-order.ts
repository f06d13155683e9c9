import { ok } from '@/core/shared/result';
import { isLive } from '@/core/work/order-state';
import type { Tx } from '@/db/client';
import { lockWorkOrder, type WorkOrderRow } from '@/db/queries/work-orders';
import type { Actor } from '../access';
import { fail, notFound, type Outcome } from '../failure';

/** Takes an order that is still open for the rest of the transaction. */
export async function lockOpenOrder(tx: Tx, actor: Actor, id: string): Promise<Outcome<WorkOrderRow>> {
  const order = await lockWorkOrder(tx, actor.fleetId, id);
  if (!order) return notFound('work order');
  if (!isLive(order)) {
    return fail(
      'conflict',
      `Work order ${order.number} is already ${order.state}. Reopen it to change what was recorded.`,
    );
  }
  return ok(order);
}
