import { deps } from '@/server/deps';
import { viewFloor } from '@/server/work-orders/view-job';
import { reply, route } from '../../../http';

/** An order as a device at the vehicle carries it. */
export const GET = route<{ id: string }>(async ({ actor, params: { id } }) =>
  reply(await viewFloor(deps(), actor, id), (job) => ({ job })),
);
