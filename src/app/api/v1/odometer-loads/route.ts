import { deps } from '@/server/deps';
import { listLoads } from '@/server/odometer/list-loads';
import { toLoadItem } from '../answers';
import { reply, route } from '../http';

export const GET = route(async ({ actor }) =>
  reply(await listLoads(deps(), actor), (loads) => ({ items: loads.map(toLoadItem) })),
);
