import { download } from '@/app/download';
import { ok } from '@/core/shared/result';
import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { listToOrder, USUAL_ORDER_WEEKS } from '@/server/stock/list-to-order';

export async function GET(): Promise<Response> {
  return download('parts-to-order.csv', 'text/csv', async (actor) => {
    const list = await listToOrder(deps(), actor, { weeks: USUAL_ORDER_WEEKS });
    if (!list.ok) return list;
    const rows = list.value.lines
      .filter(({ quantity }) => quantity > 0)
      .map(({ number, what, maker, quantity, orders }) => [number, what, maker, quantity, orders.join(' ')]);
    return ok(toCsv(['part_number', 'what', 'maker', 'quantity', 'work_orders'], rows));
  });
}
