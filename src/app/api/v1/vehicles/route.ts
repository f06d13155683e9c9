import { vehicle, vehiclesQuery } from '@/contracts/http/resources';
import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { listVehicles } from '@/server/fleet/view-vehicle';
import { csvReply, readQuery, reply, route, wantsCsv } from '../http';

export const GET = route(async ({ request, actor }) => {
  const query = readQuery(request, vehiclesQuery);
  if (!query.ok) return query.response;
  const list = await listVehicles(deps(), actor, query.value);
  if (!list.ok || !wantsCsv(request)) return reply(list);
  const keys = vehicle.keyof().options;
  return csvReply(
    toCsv(
      keys,
      list.value.items.map((item) =>
        keys.map((key) => (typeof item[key] === 'boolean' ? String(item[key]) : item[key])),
      ),
    ),
  );
});
