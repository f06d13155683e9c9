import { isLive } from '@/core/work/order-state';
import type { Tx } from '@/db/client';
import { lockWorkOrder, type WorkOrderRow } from '@/db/queries/work-orders';
import type { Actor } from '../access';
import { Refused } from '../failure';

/** Takes an order that is still open for the rest of the transaction. @throws Refused where there is none, or it has ended */
export async function lockOpenOrder(tx: Tx, actor: Actor, id: string): Promise<WorkOrderRow> {
  const order = await lockWorkOrder(tx, actor.fleetId, id);
  if (!order) throw new Refused({ kind: 'not-found', message: 'There is no such work order in this fleet.' });
  if (isLive(order)) return order;
  throw new Refused({
    kind: 'conflict',
    message: `Work order ${order.number} is already ${order.state}. Reopen it to change what was recorded.`,
  });
}
