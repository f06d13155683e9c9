import { deps } from '@/server/deps';
import { listLoads } from '@/server/odometer/list-loads';
import { asActor, reply } from '../http';
import { toLoadItem } from '../resources';

export async function GET(): Promise<Response> {
  return asActor(async (actor) => reply(await listLoads(deps(), actor), (loads) => ({ items: loads.map(toLoadItem) })));
}
