import { moveBody } from '@/contracts/http/planning';
import { moveJob } from '@/server/planning/move-job';
import { readBody, reply, route } from '../../http';

/** Moves a job on the plan, puts one on it, or takes it off. */
export const POST = route(async ({ request, actor, once }) => {
  const body = await readBody(request, moveBody);
  if (!body.ok) return body.response;
  const { job, to, undo: isUndo, version } = body.value;
  const slot = to && { day: to.day, bayId: to.bay_id, personId: to.person_id, startMin: to.start_min };
  const outcome = await once(body.text, (within) => moveJob(within, actor, { job, to: slot, isUndo, version }));
  return reply(outcome, ({ workOrderId, opened, version: now }) => ({
    work_order_id: workOrderId,
    opened,
    version: now,
  }));
});
