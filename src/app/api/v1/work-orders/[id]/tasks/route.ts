import { tasksBody } from '@/contracts/http/work-orders';
import { addTasks } from '@/server/work-orders/change-tasks';
import { readBody, reply, route } from '../../../http';

/** Puts more tasks on a work order that is open. */
export const POST = route<{ id: string }>(async ({ request, actor, params: { id }, once }) => {
  const body = await readBody(request, tasksBody);
  if (!body.ok) return body.response;
  const { tasks, release_reason: releaseReason } = body.value;
  const done = await once(body.text, (within) => addTasks(within, actor, { workOrderId: id, tasks, releaseReason }));
  return reply(done, ({ added }) => ({ added }));
});
