import { and, asc, eq, sql } from 'drizzle-orm';
import type { Querier, Tx } from '../client';
import { odometerReadings } from '../schema';

export type NewReading = Omit<typeof odometerReadings.$inferInsert, 'fleetId' | 'createdAt'>;

const CHUNK = 50_000;

/** Adds many readings in few statements: arrays instead of a parameter a cell. */
export async function insertReadings(tx: Tx, fleetId: string, rows: readonly NewReading[]): Promise<void> {
  for (let at = 0; at < rows.length; at += CHUNK) {
    const chunk = rows.slice(at, at + CHUNK);
    const column = <K extends keyof NewReading>(key: K) => sql.param(chunk.map((row) => row[key] ?? null));
    await tx.execute(sql`
      insert into odometer_readings (fleet_id, vehicle_id, read_on, odometer_km, as_typed, unit, source, state, doubt, entered_by)
      select ${fleetId}::uuid, t.* from unnest(${column('vehicleId')}::uuid[], ${column('readOn')}::date[], ${column('odometerKm')}::numeric[],
        ${column('asTyped')}::text[], ${column('unit')}::text[], ${column('source')}::text[], ${column('state')}::text[], ${column('doubt')}::text[],
        ${column('enteredBy')}::uuid[]) as t`);
  }
}

export async function loadReadings(q: Querier, fleetId: string, vehicleId: string) {
  return q
    .select()
    .from(odometerReadings)
    .where(and(eq(odometerReadings.fleetId, fleetId), eq(odometerReadings.vehicleId, vehicleId)))
    .orderBy(asc(odometerReadings.readOn), asc(odometerReadings.odometerKm));
}
