import { download } from '@/app/download';
import { deps } from '@/server/deps';
import { exportVehicleHistory } from '@/server/exports/vehicle-history';

export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return download('vehicle-history.csv', 'text/csv', (actor) => exportVehicleHistory(deps(), actor, id));
}
