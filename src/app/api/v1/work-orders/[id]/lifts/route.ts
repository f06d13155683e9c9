import { liftBody } from '@/contracts/http/work-orders';
import { deps } from '@/server/deps';
import { liftGate } from '@/server/work-orders/lift-gate';
import { viewFloor } from '@/server/work-orders/view-job';
import { readBody, reply, route } from '../../../http';

/** Lifts a gate for this visit. */
export const POST = route<{ id: string }>(async ({ request, actor, params: { id } }) => {
  const body = await readBody(request, liftBody);
  if (!body.ok) return body.response;
  const lifted = await liftGate(deps(), actor, { ...body.value, workOrderId: id });
  if (!lifted.ok) return reply(lifted);
  return reply(await viewFloor(deps(), actor, id), (job) => ({ job }));
});
