import { and, eq, sql } from 'drizzle-orm';
import type { BackTest } from '@/core/due/back-test';
import type { Reading } from '@/core/odometer/use-rate';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier, Tx } from '../client';
import { backTests } from '../schema';

/** Accepted readings of some vehicles of every duty group, always the same ones, in order of day. */
export async function loadPast(
  q: Tx,
  fleetId: FleetId,
  { perGroup, days }: { readonly perGroup: number; readonly days: number },
): Promise<readonly { readonly dutyGroup: string; readonly readings: readonly Reading[] }[]> {
  const result = await q.execute<{ duty_group: string; days: number[]; kms: number[] }>(sql`
    with chosen as (
      select id, duty_group from (
        select id, duty_group, row_number() over (partition by duty_group order by md5(id::text)) as n
        from vehicles where fleet_id = ${fleetId}) v
      where n <= ${perGroup})
    select c.duty_group, array_agg(r.read_on - date '1970-01-01' order by r.read_on, r.odometer_km) as days,
      array_agg(r.odometer_km::float8 order by r.read_on, r.odometer_km) as kms
    from chosen c join odometer_readings r on r.vehicle_id = c.id and r.state = 'accepted'
      and r.read_on >= (select max(read_on) from odometer_readings l where l.vehicle_id = c.id and l.state = 'accepted') - ${days}::int
    group by c.id, c.duty_group`);
  return result.rows.map((row) => ({
    dutyGroup: row.duty_group,
    readings: row.days.map((day, i) => ({ day, km: row.kms[i] ?? 0 })),
  }));
}

/** What forecasts of the whole fleet's past were worth; null: there are too few. */
export async function loadFleetBackTest(
  q: Querier,
  fleetId: FleetId,
): Promise<Pick<BackTest, 'forecasts' | 'held'> | null> {
  const [row] = await q
    .select({ forecasts: backTests.forecasts, held: backTests.held })
    .from(backTests)
    .where(and(eq(backTests.fleetId, fleetId), eq(backTests.dutyGroup, '')));
  return row ?? null;
}

/** Takes the place of what was taught before. @param taught by duty group; an empty name is the whole fleet */
export async function saveBackTests(tx: Tx, fleetId: FleetId, taught: ReadonlyMap<string, BackTest>): Promise<void> {
  await tx.delete(backTests).where(eq(backTests.fleetId, fleetId));
  const rows = [...taught].map(([dutyGroup, { drift, scale, forecasts, held }]) => ({
    fleetId,
    dutyGroup,
    drift,
    scale,
    forecasts,
    held,
  }));
  if (rows.length > 0) await tx.insert(backTests).values(rows);
}
