import { followUp, followUpsQuery } from '@/contracts/http/resources';
import { followUpBody } from '@/contracts/http/work-orders';
import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { addFollowUp, listFollowUps } from '@/server/findings/follow-up';
import { toFollowUp } from '../answers';
import { csvReply, readBody, readQuery, reply, route, wantsCsv } from '../http';

/** What is to be seen to later, the open and soonest first. */
export const GET = route(async ({ request, actor }) => {
  const query = readQuery(request, followUpsQuery);
  if (!query.ok) return query.response;
  const list = await listFollowUps(deps(), actor, { open: query.value.open === 'true' });
  if (!list.ok) return reply(list);
  const items = list.value.map(toFollowUp);
  if (!wantsCsv(request)) return Response.json({ items });
  const keys = followUp.keyof().options;
  const cells = ({ is_due, ...rest }: (typeof items)[number]) => ({ ...rest, is_due: is_due ? 'yes' : 'no' });
  return csvReply(
    toCsv(
      keys,
      items.map(cells).map((row) => keys.map((key) => row[key])),
    ),
  );
});

/** Puts something down to be done later, by a day or at a distance. */
export const POST = route(async ({ request, actor, once }) => {
  const body = await readBody(request, followUpBody);
  if (!body.ok) return body.response;
  const { work_order: workOrderId, what, owner_id: ownerId, due_on: dueOn, due_at: dueAt } = body.value;
  const outcome = await once(body.text, (within) =>
    addFollowUp(within, actor, { workOrderId, what, ownerId, dueOn, dueAt }),
  );
  return reply(outcome, ({ followUpId }) => ({ id: followUpId }));
});
