import { and, eq, inArray } from 'drizzle-orm';
import type { PlainDate } from '@/core/calendar/plain-date';
import type { FleetId } from '@/core/shared/kinds';
import type { Tx } from '@/db/client';
import { vehicles } from '@/db/schema';
import type { JobQueue } from '../queue';
import { refreshDue } from './refresh-due';

/** So many vehicles are brought into step at once, while the person waits; more are left to a worker. */
export const MAX_AT_ONCE = 400;

const vehiclesOf = async (tx: Tx, fleetId: FleetId, familyIds: readonly string[]): Promise<readonly string[]> => {
  const rows = await tx
    .select({ id: vehicles.id })
    .from(vehicles)
    .where(and(eq(vehicles.fleetId, fleetId), inArray(vehicles.engineFamilyId, [...familyIds])));
  return rows.map(({ id }) => id);
};

/** Brings the vehicles of some engine families into step with what the catalogue says now. */
export async function refreshFamilies(
  tx: Tx,
  fleetId: FleetId,
  today: PlainDate,
  familyIds: readonly string[],
): Promise<void> {
  await refreshDue(tx, fleetId, today, await vehiclesOf(tx, fleetId, familyIds));
}

/** The same after a change of the catalogue: at once where they are few, in the background where they are many. */
export async function refreshFamiliesSoon(
  tx: Tx,
  jobs: JobQueue,
  fleetId: FleetId,
  today: PlainDate,
  familyIds: readonly string[],
  why: string,
): Promise<void> {
  const families = [...new Set(familyIds)];
  if (families.length === 0) return;
  const vehicleIds = await vehiclesOf(tx, fleetId, families);
  if (vehicleIds.length > MAX_AT_ONCE) await jobs.send(tx, 'refresh-families', { fleetId, familyIds: families, why });
  else await refreshDue(tx, fleetId, today, vehicleIds);
}
