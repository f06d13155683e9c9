import { pinBody } from '@/contracts/http/planning';
import { pinBooking } from '@/server/planning/move-job';
import { readBody, reply, route } from '../../http';

/** Says of a booking that it stays where it is, or that it may move again. */
export const POST = route(async ({ request, actor, once }) => {
  const body = await readBody(request, pinBody);
  if (!body.ok) return body.response;
  const { work_order_id: workOrderId, pinned: isPinned, version } = body.value;
  const outcome = await once(body.text, (within) => pinBooking(within, actor, { workOrderId, isPinned, version }));
  return reply(outcome, () => ({ pinned: isPinned }));
});
