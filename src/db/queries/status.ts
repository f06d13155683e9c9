import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import { readVin } from '@/core/fitment/vin';
import type { SiteClock } from '@/core/interval/due';
import type { Reading } from '@/core/odometer/use-rate';
import { WINDOW_DAYS } from '@/core/odometer/use-rate';
import type { Querier, Tx } from '../client';
import { fittedComponents, vehicleStatus, vehicles } from '../schema';

export type StatusRow = typeof vehicleStatus.$inferInsert;

/** Vehicles to bring up to date: some, or (null) the whole fleet. */
export type Which = readonly string[] | null;

export async function loadVehicleKeys(q: Querier, fleetId: string, which: Which) {
  const rows = await q
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.fleetId, fleetId), which ? inArray(vehicles.id, [...which]) : undefined));
  return rows.map((row) => ({ ...row, serial: row.vin === null ? null : readVin(row.vin).serial }));
}

export async function loadCurrentPlugs(q: Querier, fleetId: string, which: Which) {
  return q
    .select()
    .from(fittedComponents)
    .where(
      and(
        eq(fittedComponents.fleetId, fleetId),
        eq(fittedComponents.component, 'plug'),
        isNull(fittedComponents.removedOn),
        which ? inArray(fittedComponents.vehicleId, [...which]) : undefined,
      ),
    );
}

/** Accepted readings that decide the rate: those within the window before each vehicle's last. */
export async function loadRecentReadings(
  q: Querier,
  fleetId: string,
  which: Which,
): Promise<ReadonlyMap<string, readonly Reading[]>> {
  const narrowed = which ? sql`and vehicle_id = any(${sql.param(which)}::uuid[])` : sql``;
  const found = await q.execute<{ vehicle_id: string; days: number[]; kms: number[] }>(sql`
    with last as (
      select vehicle_id, max(read_on) as last_on from odometer_readings
      where fleet_id = ${fleetId} and state = 'accepted' ${narrowed} group by vehicle_id
    )
    select r.vehicle_id,
           array_agg(r.read_on - date '1970-01-01' order by r.read_on, r.odometer_km) as days,
           array_agg(r.odometer_km::float8 order by r.read_on, r.odometer_km) as kms
    from last join odometer_readings r on r.vehicle_id = last.vehicle_id
    where r.state = 'accepted' and r.read_on >= last.last_on - ${WINDOW_DAYS}::int
    group by r.vehicle_id`);
  return new Map(found.rows.map((row) => [row.vehicle_id, row.days.map((day, i) => ({ day, km: row.kms[i] ?? 0 }))]));
}

export async function countSuspects(q: Querier, fleetId: string, which: Which): Promise<ReadonlyMap<string, number>> {
  const narrowed = which ? sql`and vehicle_id = any(${sql.param(which)}::uuid[])` : sql``;
  const found = await q.execute<{ vehicle_id: string; n: number }>(sql`
    select vehicle_id, count(*)::int as n from odometer_readings
    where fleet_id = ${fleetId} and state = 'suspect' ${narrowed} group by vehicle_id`);
  return new Map(found.rows.map((row) => [row.vehicle_id, row.n]));
}

const CHUNK = 1000;

export async function saveStatus(tx: Tx, rows: readonly StatusRow[]): Promise<void> {
  for (let at = 0; at < rows.length; at += CHUNK) {
    const chunk = rows.slice(at, at + CHUNK);
    await tx.delete(vehicleStatus).where(
      inArray(
        vehicleStatus.vehicleId,
        chunk.map((row) => row.vehicleId),
      ),
    );
    await tx.insert(vehicleStatus).values(chunk);
  }
}

/** What decides where a vehicle stands, and the keys that the due list filters and sorts by. */
export interface StandingRow {
  readonly id: string;
  readonly unitNumber: string;
  readonly name: string;
  readonly depot: string;
  readonly dutyGroup: string;
  readonly odometerOn: string | null;
  readonly odometerKm: number | null;
  readonly rateKmPerDay: number | null;
  readonly rateLowKmPerDay: number | null;
  readonly rateHighKmPerDay: number | null;
  readonly rateReadings: number;
  readonly fitment: 'match' | 'needs-answer' | 'no-spec';
  readonly limitKm: number | null;
  readonly limitMonths: number | null;
  readonly limitShare: number;
  readonly clocks: readonly SiteClock[];
}

/** What the due list shows besides. */
export interface DueLabels {
  readonly id: string;
  readonly engineCode: string;
  readonly odometerUnit: 'km' | 'mi';
  readonly suspectReadings: number;
  readonly fitmentWhy: string | null;
  readonly partNumber: string | null;
  readonly openWorkOrderId: string | null;
  readonly openWorkOrderNumber: number | null;
  readonly plannedOn: string | null;
}

/** One slim row a vehicle of the fleet: all of them are weighed before a page is shown. */
export async function loadStandings(q: Querier, fleetId: string, vehicleId?: string): Promise<readonly StandingRow[]> {
  const found = await q.execute<Record<string, unknown> & StandingRow>(sql`
    select v.id, v.unit_number as "unitNumber", v.name, d.name as depot, v.duty_group as "dutyGroup",
      s.odometer_on::text as "odometerOn", s.odometer_km::float8 as "odometerKm",
      s.rate_km_per_day as "rateKmPerDay", s.rate_low_km_per_day as "rateLowKmPerDay", s.rate_high_km_per_day as "rateHighKmPerDay",
      coalesce(s.rate_readings, 0) as "rateReadings", coalesce(s.fitment, 'no-spec') as fitment,
      s.limit_km::float8 as "limitKm", s.limit_months as "limitMonths", coalesce(s.limit_share, 1) as "limitShare", coalesce(s.clocks, '[]'::jsonb) as clocks
    from vehicles v
    join depots d on d.id = v.depot_id
    left join vehicle_status s on s.vehicle_id = v.id
    where v.fleet_id = ${fleetId} ${vehicleId ? sql`and v.id = ${vehicleId}` : sql``}`);
  return found.rows;
}

/** The rest of what is shown, for the vehicles of a page. */
export async function loadDueLabels(
  q: Querier,
  fleetId: string,
  ids: readonly string[],
): Promise<ReadonlyMap<string, DueLabels>> {
  const found = await q.execute<Record<string, unknown> & DueLabels>(sql`
    select v.id, f.code as "engineCode", v.odometer_unit as "odometerUnit", coalesce(s.suspect_readings, 0) as "suspectReadings", s.fitment_why as "fitmentWhy",
      p.number as "partNumber", w.id as "openWorkOrderId", w.number as "openWorkOrderNumber", lower(b.during)::date::text as "plannedOn"
    from vehicles v
    join engine_families f on f.id = v.engine_family_id
    left join vehicle_status s on s.vehicle_id = v.id
    left join spec_sheets sh on sh.id = s.spec_sheet_id
    left join parts p on p.id = sh.part_id
    left join work_orders w on w.vehicle_id = v.id and w.component = 'plug' and w.state not in ('closed', 'cancelled')
    left join bookings b on b.work_order_id = w.id
    where v.fleet_id = ${fleetId} and v.id = any(${sql.param(ids)}::uuid[])`);
  return new Map(found.rows.map((row) => [row.id, row]));
}

/** Own rates of the vehicles that have one, by duty group. */
export async function loadGroupRates(q: Querier, fleetId: string, dutyGroup: string): Promise<readonly number[]> {
  const found = await q.execute<{ rate: number }>(sql`
    select s.rate_km_per_day as rate from vehicle_status s join vehicles v on v.id = s.vehicle_id
    where v.fleet_id = ${fleetId} and v.duty_group = ${dutyGroup} and s.rate_km_per_day is not null`);
  return found.rows.map((row) => row.rate);
}
