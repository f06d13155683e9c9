import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { listBays } from '@/server/fleet/bays';
import { csvReply, reply, route, wantsCsv } from '../http';
import { toBay } from '../planning';

/** The bays of the fleet, with what they take and their own hours. */
export const GET = route(async ({ request, actor }) => {
  const list = await listBays(deps(), actor);
  if (!list.ok || !wantsCsv(request)) return reply(list, (rows) => ({ items: rows.map(toBay) }));
  return csvReply(
    toCsv(
      ['id', 'depot', 'name', 'can'],
      list.value.map(({ id, depot, name, can }) => [id, depot, name, can.join(' | ')]),
    ),
  );
});
