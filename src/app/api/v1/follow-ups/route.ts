import { once } from '@/server/auth/idempotency';
import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { addFollowUp, followUpInput, listFollowUps } from '@/server/findings/follow-up';
import { asActor, csvReply, inputProblem, readBody, readQuery, reply, wantsCsv } from '../http';
import { followUp, followUpsQuery, toFollowUp } from '../resources';
import { followUpBody } from '../work-order-resources';

/** What is to be seen to later, the open and soonest first. */
export async function GET(request: Request): Promise<Response> {
  return asActor(async (actor) => {
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
}

/** Puts something down to be done later, by a day or at a distance. */
export async function POST(request: Request): Promise<Response> {
  return asActor(async (actor) => {
    const body = await readBody(request, followUpBody);
    if (!body.ok) return body.response;
    const { work_order, what, owner_id, due_on, due_at } = body.value;
    const input = followUpInput.safeParse({
      workOrderId: work_order,
      what,
      ownerId: owner_id,
      dueOn: due_on,
      dueAt: due_at,
    });
    if (!input.success) return inputProblem(input.error);
    const outcome = await once(deps(), actor, request.headers.get('idempotency-key'), () =>
      addFollowUp(deps(), actor, input.data),
    );
    return reply(outcome, ({ followUpId }) => ({ id: followUpId }));
  });
}
