import { workOrdersCsv } from '@/app/api/v1/answers';
import { download } from '@/app/download';
import { deps } from '@/server/deps';
import { findWorkOrders, orderFilter } from '@/server/work-orders/list-work-orders';

const MAX_ROWS = 50_000;

/** The list of work orders as it is filtered and sorted on screen. */
export async function GET(request: Request): Promise<Response> {
  const filter = orderFilter.parse(Object.fromEntries(new URL(request.url).searchParams));
  return download(`work-orders-${deps().today()}.csv`, 'text/csv', async (actor) => {
    const list = await findWorkOrders(deps(), actor, { ...filter, page: { from: 0, limit: MAX_ROWS } });
    return list.ok ? { ok: true, value: workOrdersCsv(list.value.items) } : list;
  });
}
