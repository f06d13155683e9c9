import { deps } from '@/server/deps';
import { cancelLoad } from '@/server/odometer/list-loads';
import { reply, route } from '../../http';

/** Cancels a running load: it writes nothing. */
export const DELETE = route<{ id: string }>(async ({ actor, params }) =>
  reply(await cancelLoad(deps(), actor, { loadId: params.id }), () => ({ cancelled: true })),
);
