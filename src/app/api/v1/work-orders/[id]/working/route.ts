import { workingBody } from '@/contracts/http/work-orders';
import { deps } from '@/server/deps';
import { viewFloor } from '@/server/work-orders/view-job';
import { setWorking } from '@/server/work-orders/work-time';
import { readBody, reply, route } from '../../../http';

/** Says that the person who asks begins or stops to work at the order. */
export const POST = route<{ id: string }>(async ({ request, actor, params: { id } }) => {
  const body = await readBody(request, workingBody);
  if (!body.ok) return body.response;
  const set = await setWorking(deps(), actor, { ...body.value, workOrderId: id });
  if (!set.ok) return reply(set);
  return reply(await viewFloor(deps(), actor, id), (job) => ({ job }));
});
