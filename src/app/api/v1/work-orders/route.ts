import { openBody, workOrdersQuery } from '@/contracts/http/work-orders';
import { deps } from '@/server/deps';
import { listWorkOrders } from '@/server/work-orders/list-work-orders';
import { openWorkOrderForUnit } from '@/server/work-orders/open-work-order';
import { toWorkOrder, workOrdersCsv } from '../answers';
import { csvReply, readBody, readQuery, reply, route, wantsCsv } from '../http';

/** Work orders, the latest first. */
export const GET = route(async ({ request, actor }) => {
  const query = readQuery(request, workOrdersQuery);
  if (!query.ok) return query.response;
  const { open, ...page } = query.value;
  const list = await listWorkOrders(deps(), actor, { ...page, open: open === 'true' });
  if (!list.ok) return reply(list);
  const { nextCursor } = list.value;
  if (wantsCsv(request)) return csvReply(workOrdersCsv(list.value.items));
  return Response.json({ items: list.value.items.map(toWorkOrder), next_cursor: nextCursor });
});

/** Opens a work order for a unit, with its tasks, steps and a record for each place. */
export const POST = route(async ({ request, actor, once }) => {
  const body = await readBody(request, openBody);
  if (!body.ok) return body.response;
  const { unit_number, release_reason, tasks, other_work } = body.value;
  const outcome = await once(body.text, (within) =>
    openWorkOrderForUnit(within, actor, {
      unitNumber: unit_number,
      releaseReason: release_reason,
      tasks,
      otherWork: other_work,
    }),
  );
  return reply(outcome, ({ workOrderId, number }) => ({ id: workOrderId, number }));
});
