import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { listFollowUps } from '@/server/findings/follow-up';
import { asActor, csvReply, readQuery, reply, wantsCsv } from '../http';
import { followUp, followUpsQuery, toFollowUp } from '../resources';

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
