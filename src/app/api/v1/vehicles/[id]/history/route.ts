import { deps } from '@/server/deps';
import { exportVehicleHistory } from '@/server/exports/vehicle-history';
import { csvReply, reply, route } from '../../../http';

export const GET = route<{ id: string }>(async ({ actor, params }) => {
  const { id } = params;
  const made = await exportVehicleHistory(deps(), actor, id);
  return made.ok ? csvReply(made.value) : reply(made);
});
