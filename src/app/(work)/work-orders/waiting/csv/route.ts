import { download } from '@/app/download';
import { ok } from '@/core/shared/result';
import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { listWaiting } from '@/server/work-orders/list-waiting';

export async function GET(): Promise<Response> {
  return download('parts-to-order.csv', 'text/csv', async (actor) => {
    const list = await listWaiting(deps(), actor);
    if (!list.ok) return list;
    const rows = list.value.draft.map((line) => [
      line.number,
      line.what,
      line.maker,
      line.order,
      line.orders.join(' '),
    ]);
    return ok(toCsv(['part_number', 'what', 'maker', 'quantity', 'work_orders'], rows));
  });
}
