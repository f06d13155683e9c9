import { eq } from 'drizzle-orm';
import type { FleetId } from '../../core/shared/kinds';
import type { Querier } from '../client';
import { depots, depotWays } from '../schema';

/** When a depot works, as the columns to select. */
export const depotHours = { workingDays: depots.workingDays, fromMin: depots.opensMin, toMin: depots.closesMin };

/** Between depots of which nobody has said how far they are apart, minutes. */
const USUAL_WAY_MIN = 30;

/** Minutes between two depots of a fleet, by their ids in either order. */
export async function loadWays(q: Querier, fleetId: FleetId): Promise<(a: string, b: string) => number> {
  const rows = await q.select().from(depotWays).where(eq(depotWays.fleetId, fleetId));
  const ways = new Map(rows.map(({ depotId, otherId, minutes }) => [`${depotId} ${otherId}`, minutes]));
  return (a, b) => (a === b ? 0 : (ways.get(`${a} ${b}`) ?? ways.get(`${b} ${a}`) ?? USUAL_WAY_MIN));
}
