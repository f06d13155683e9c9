import { deps } from '@/server/deps';
import { listLoads } from '@/server/odometer/list-loads';
import { reply, route } from '../http';
import { toLoadItem } from '../resources';

export const GET = route(async ({ actor }) =>
  reply(await listLoads(deps(), actor), (loads) => ({ items: loads.map(toLoadItem) })),
);
