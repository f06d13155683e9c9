import { dueQuery } from '@/contracts/http/resources';
import { deps } from '@/server/deps';
import { dueFilter, listDue } from '@/server/due/list-due';
import { exportDue } from '@/server/exports/due-csv';
import { toDueItem } from '../answers';
import { csvReply, readQuery, reply, route, wantsCsv } from '../http';

export const GET = route(async ({ request, actor }) => {
  const query = readQuery(request, dueQuery);
  if (!query.ok) return query.response;
  const { component, depot, before, min_life, min_pressure, sort, limit, cursor } = query.value;
  const filter = dueFilter.parse({ component, depot, before, minLife: min_life, minPressure: min_pressure, sort });
  if (wantsCsv(request)) {
    const csv = await exportDue(deps(), actor, filter);
    return csv.ok ? csvReply(csv.value) : reply(csv);
  }
  return reply(await listDue(deps(), actor, { ...filter, page: { from: cursor, limit } }), ({ items, matching }) => ({
    items: items.map(toDueItem),
    next_cursor: cursor + limit < matching ? cursor + limit : null,
    today: deps().today(),
  }));
});
