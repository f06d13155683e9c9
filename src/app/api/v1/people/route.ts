import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { listDepots } from '@/server/fleet/bays';
import { listPeople } from '@/server/fleet/people';
import { csvReply, reply, route, wantsCsv } from '../http';
import { toPerson } from '../planning';

/** The people of the fleet, with what they are trained on, where and when. */
export const GET = route(async ({ request, actor }) => {
  const [list, depots] = await Promise.all([listPeople(deps(), actor), listDepots(deps(), actor)]);
  if (!list.ok) return reply(list);
  if (!depots.ok) return reply(depots);
  const names = new Map(depots.value.map(({ id, name }) => [id as string, name]));
  const items = list.value.map((person) => toPerson(person, names));
  if (!wantsCsv(request)) return Response.json({ items });
  return csvReply(
    toCsv(
      ['id', 'name', 'role', 'skills', 'depots', 'active'],
      items.map(({ id, name, role, skills, depots: at, active }) => [
        id,
        name,
        role,
        skills.join(' | '),
        at.join(' | '),
        active ? 'yes' : 'no',
      ]),
    ),
  );
});
