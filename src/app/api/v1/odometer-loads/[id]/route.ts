import { deps } from '@/server/deps';
import { cancelLoad } from '@/server/odometer/list-loads';
import { asActor, reply } from '../../http';

/** Cancels a running load: it writes nothing. */
export async function DELETE(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return asActor(async (actor) =>
    reply(await cancelLoad(deps(), actor, { loadId: (await params).id }), () => ({ cancelled: true })),
  );
}
