import { closeBody } from '@/contracts/http/work-orders';
import { closeWorkOrder } from '@/server/work-orders/close-work-order';
import { readBody, reply, route } from '../../../http';

/** Verifies and closes a work order: the reading, the plugs and the next due date move together. */
export const POST = route<{ id: string }>(async ({ request, actor, params: { id }, once }) => {
  const body = await readBody(request, closeBody);
  if (!body.ok) return body.response;
  const { removal_reason: removalReason, ...rest } = body.value;
  const done = await once(body.text, (within) =>
    closeWorkOrder(within, actor, { workOrderId: id, ...rest, removalReason }),
  );
  return reply(done, () => ({ closed: true }));
});
