import { splitBody } from '@/contracts/http/work-orders';
import { splitVisit } from '@/server/work-orders/change-tasks';
import { readBody, reply, route } from '../../../http';

/** Moves places that are not done to another visit of the same vehicle. */
export const POST = route<{ id: string }>(async ({ request, actor, params: { id }, once }) => {
  const body = await readBody(request, splitBody);
  if (!body.ok) return body.response;
  const done = await once(body.text, (within) => splitVisit(within, actor, { workOrderId: id, ...body.value }));
  return reply(done, ({ workOrderId, number }) => ({ id: workOrderId, number }));
});
