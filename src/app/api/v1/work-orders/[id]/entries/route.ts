import { entriesBody } from '@/contracts/http/work-orders';
import { deps } from '@/server/deps';
import { recordEntries } from '@/server/work-orders/record-entries';
import { viewFloor } from '@/server/work-orders/view-job';
import { readBody, reply, route } from '../../../http';

/** Entries of a device at the vehicle, with the job as it stands after them. */
export const POST = route<{ id: string }>(async ({ request, actor, params: { id } }) => {
  const body = await readBody(request, entriesBody);
  if (!body.ok) return body.response;
  const results = await recordEntries(deps(), actor, { workOrderId: id, ...body.value });
  if (!results.ok) return reply(results);
  return reply(await viewFloor(deps(), actor, id), (job) => ({ results: results.value, job }));
});
