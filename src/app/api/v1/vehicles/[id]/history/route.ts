import { deps } from '@/server/deps';
import { exportVehicleHistory } from '@/server/exports/vehicle-history';
import { asActor, csvReply, reply } from '../../../http';

export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return asActor(async (actor) => {
    const made = await exportVehicleHistory(deps(), actor, id);
    return made.ok ? csvReply(made.value) : reply(made);
  });
}
