import { codesBody } from '@/contracts/http/work-orders';
import { deps } from '@/server/deps';
import { keepCodes } from '@/server/work-orders/codes';
import { viewFloor } from '@/server/work-orders/view-job';
import { readBody, reply, route } from '../../../http';

/** Reads the codes with the reader that is connected, or takes those typed, and keeps them. */
export const POST = route<{ id: string }>(async ({ request, actor, params: { id } }) => {
  const body = await readBody(request, codesBody);
  if (!body.ok) return body.response;
  const kept = await keepCodes(deps(), actor, { ...body.value, workOrderId: id });
  if (!kept.ok) return reply(kept);
  return reply(await viewFloor(deps(), actor, id), (job) => ({ job }));
});
