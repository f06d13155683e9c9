import { once } from '@/server/auth/idempotency';
import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { openWorkOrderForUnit } from '@/server/work-orders/open-work-order';
import { listWorkOrders } from '@/server/work-orders/view-work-order';
import { asActor, csvReply, readBody, readQuery, reply, wantsCsv } from '../http';
import { openBody, toWorkOrder, workOrder, workOrdersQuery } from '../work-order-resources';

/** Work orders, the latest first. */
export async function GET(request: Request): Promise<Response> {
  return asActor(async (actor) => {
    const query = readQuery(request, workOrdersQuery);
    if (!query.ok) return query.response;
    const { open, unit } = query.value;
    const list = await listWorkOrders(deps(), actor);
    if (!list.ok) return reply(list);
    const items = list.value
      .filter((row) => open === 'false' || (row.state !== 'closed' && row.state !== 'cancelled'))
      .filter((row) => unit === undefined || row.unitNumber === unit)
      .map(toWorkOrder);
    if (!wantsCsv(request)) return Response.json({ items });
    const keys = workOrder.keyof().options;
    return csvReply(
      toCsv(
        keys,
        items.map((item) => keys.map((key) => item[key])),
      ),
    );
  });
}

/** Opens a work order for a unit, with the part, steps and a record for each site. */
export async function POST(request: Request): Promise<Response> {
  return asActor(async (actor) => {
    const body = await readBody(request, openBody);
    if (!body.ok) return body.response;
    const { unit_number, release_reason } = body.value;
    const outcome = await once(deps(), actor, request.headers.get('idempotency-key'), () =>
      openWorkOrderForUnit(deps(), actor, { unitNumber: unit_number, releaseReason: release_reason }),
    );
    return reply(outcome, ({ workOrderId, number }) => ({ id: workOrderId, number }));
  });
}
