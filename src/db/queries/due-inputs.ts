import { and, eq, getTableColumns, inArray, isNull, sql } from 'drizzle-orm';
import { toSnakeCase } from 'drizzle-orm/casing';
import { readVin } from '@/core/catalogue/vin';
import type { Certainty, HourMeter } from '@/core/due/due';
import type { Component } from '@/core/engine/quantities';
import { UNCURED_STATES } from '@/core/misfire/case-state';
import type { Driving } from '@/core/misfire/driving';
import type { HourReading } from '@/core/odometer/engine-hours';
import type { Reading } from '@/core/odometer/use-rate';
import { WINDOW_DAYS } from '@/core/odometer/use-rate';
import type { FleetId, Km } from '@/core/shared/kinds';
import type { Querier, Tx } from '../client';
import { type ComponentInputs, dueInputs, dueStatus, fittedComponents, staleGroups, vehicles } from '../schema';

/** The misfire of a vehicle `v` that is not yet believed cured, as `m`: it counts in the cost of waiting. */
export const OPEN_MISFIRE = sql`left join misfire_cases m on m.fleet_id = v.fleet_id and m.vehicle_id = v.id
  and m.state in ${UNCURED_STATES}`;

export type DueInputsRow = typeof dueInputs.$inferInsert;

/** Vehicles to bring up to date: some, or (null) the whole fleet. */
export type Which = readonly string[] | null;

export async function loadVehicleKeys(q: Querier, fleetId: FleetId, which: Which) {
  const rows = await q
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.fleetId, fleetId), which ? inArray(vehicles.id, [...which]) : undefined));
  return rows.map((row) => ({ ...row, serial: row.vin === null ? null : readVin(row.vin).serial }));
}

/** What sits in the vehicles now. */
export async function loadCurrent(q: Querier, fleetId: FleetId, which: Which) {
  return q
    .select()
    .from(fittedComponents)
    .where(
      and(
        eq(fittedComponents.fleetId, fleetId),
        isNull(fittedComponents.removedOn),
        which ? inArray(fittedComponents.vehicleId, [...which]) : undefined,
      ),
    );
}

/** What decides where a vehicle's odometer stands and how fast it goes. */
export interface RecentReadings {
  /** Accepted ones within the window before the last, three at least where there are so many, in order of day. */
  readonly readings: readonly Reading[];
  readonly suspects: number;
}

export async function loadRecentReadings(
  q: Querier,
  fleetId: FleetId,
  which: Which,
): Promise<ReadonlyMap<string, RecentReadings>> {
  const narrowed = which ? sql`and v.id = any(${sql.param(which)}::uuid[])` : sql``;
  const result = await q.execute<{ id: string; days: number[] | null; kms: number[] | null; suspects: number }>(sql`
    select v.id, r.days, r.kms, s.n as suspects
    from vehicles v
    left join lateral (
      select read_on from odometer_readings where vehicle_id = v.id and state = 'accepted'
      order by read_on desc limit 1) last on true
    left join lateral (
      select read_on from odometer_readings where vehicle_id = v.id and state = 'accepted'
      order by read_on desc offset 2 limit 1) third on true
    left join lateral (
      select array_agg(read_on - date '1970-01-01' order by read_on, odometer_km) as days,
        array_agg(odometer_km::float8 order by read_on, odometer_km) as kms
      from odometer_readings
      where vehicle_id = v.id and state = 'accepted'
        and read_on >= least(last.read_on - ${WINDOW_DAYS}::int, third.read_on)) r on true
    left join lateral (
      select count(*)::int as n from odometer_readings
      where fleet_id = v.fleet_id and vehicle_id = v.id and state = 'suspect') s on true
    where v.fleet_id = ${fleetId} ${narrowed}`);
  return new Map(
    result.rows.map(({ id, days, kms, suspects }) => [
      id,
      { readings: (days ?? []).map((day, i) => ({ day, km: kms?.[i] ?? 0 })), suspects },
    ]),
  );
}

/** Accepted readings of hour meters, in order of day. They are few: all of them are read. */
export async function loadHourReadings(
  q: Querier,
  fleetId: FleetId,
  which: Which,
): Promise<ReadonlyMap<string, readonly HourReading[]>> {
  const narrowed = which ? sql`and vehicle_id = any(${sql.param(which)}::uuid[])` : sql``;
  const result = await q.execute<{ vehicle_id: string; days: number[]; hours: number[] }>(sql`
    select vehicle_id, array_agg(read_on - date '1970-01-01' order by read_on, hours) as days,
      array_agg(hours::float8 order by read_on, hours) as hours
    from engine_hour_readings where fleet_id = ${fleetId} and state = 'accepted' ${narrowed} group by vehicle_id`);
  return new Map(
    result.rows.map((row) => [row.vehicle_id, row.days.map((day, i) => ({ day, hours: row.hours[i] ?? 0 }))]),
  );
}

/** Writes what decides over what stands there. A component that no sheet speaks of any more has no due status either. */
export async function saveDueInputs(tx: Tx, rows: readonly DueInputsRow[]): Promise<void> {
  await replaceRows(tx, dueInputs, ['vehicle_id'], rows);
  const ids = rows.map((row) => row.vehicleId);
  await tx.execute(sql`
    delete from due_status t using due_inputs s
    where s.vehicle_id = any(${sql.param(ids)}::uuid[]) and t.vehicle_id = s.vehicle_id
      and not s.components @> jsonb_build_array(jsonb_build_object('component', t.component))`);
}

const CHUNK = 5000;

/** Rows as one parameter each chunk: an insert of many rows with a parameter a cell spends its time on the parameters. */
async function replaceRows(
  tx: Tx,
  table: typeof dueInputs | typeof dueStatus,
  key: readonly string[],
  rows: readonly (DueInputsRow | DueStatusRow)[],
): Promise<void> {
  const columns = Object.entries(getTableColumns(table)).map(([name, column]) => ({
    name,
    column: toSnakeCase(column.name),
  }));
  const target = sql.join(
    columns.map(({ column }) => sql.identifier(column)),
    sql`, `,
  );
  const source = sql.join(
    columns.map(({ column }) => sql`r.${sql.identifier(column)}`),
    sql`, `,
  );
  const changed = sql.join(
    columns
      .filter(({ column }) => !key.includes(column))
      .map(({ column }) => sql`${sql.identifier(column)} = excluded.${sql.identifier(column)}`),
    sql`, `,
  );
  // In one order, so that two writers of some of the same rows do not wait for each other.
  const ordered = [...rows].sort((a, b) => (orderKey(a) < orderKey(b) ? -1 : 1));
  for (let at = 0; at < ordered.length; at += CHUNK) {
    const chunk = ordered
      .slice(at, at + CHUNK)
      .map((row) =>
        Object.fromEntries(columns.map(({ name, column }) => [column, row[name as keyof typeof row] ?? null])),
      );
    await tx.execute(sql`
      insert into ${table} (${target})
      select ${source} from json_populate_recordset(null::${table}, ${JSON.stringify(chunk)}::json) r
      on conflict (${sql.join(
        key.map((column) => sql.identifier(column)),
        sql`, `,
      )}) do update set ${changed}`);
  }
}

const orderKey = (row: DueInputsRow | DueStatusRow): string =>
  'component' in row ? `${row.vehicleId} ${row.component}` : row.vehicleId;

/** A person moved the date of a component, or another fault is to be mended first. */
interface DeferredRow {
  readonly component: Component;
  readonly until: string | null;
  readonly fault: string | null;
}

/** What decides where a vehicle stands. */
export interface RecordedRow {
  readonly id: string;
  readonly fleetId: FleetId;
  readonly unitNumber: string;
  readonly name: string;
  readonly depot: string;
  readonly dutyGroup: string;
  /** Its own service reminder has been on since then. */
  readonly reminderOn: string | null;
  readonly odometerOn: string | null;
  readonly odometerKm: Km | null;
  readonly odometerCertainty: Certainty;
  readonly rateKmPerDay: number | null;
  readonly rateWeeklySpread: number | null;
  readonly rateDrift: number | null;
  readonly rateObservedDays: number | null;
  readonly rateReadings: number;
  readonly components: readonly ComponentInputs[];
  readonly failureCost: number;
  readonly wearCostPerPercent: number;
  readonly hourMeter: HourMeter | null;
  readonly deferrals: readonly DeferredRow[];
  /** Of its open misfire; null: it has none, or one that is watched. */
  readonly misfire: Driving | null;
  /** Findings that are followed up. */
  readonly findings: number;
  /** What past forecasts of its duty group taught, or those of the fleet; null: there are too few. */
  readonly drift: number | null;
  readonly scale: number | null;
  readonly forecasts: number | null;
  readonly held: number | null;
}

/** One slim row a vehicle. The cost of a failure is its own, else that of its duty group, else the fleet's. */
export async function loadRecorded(q: Querier, fleetId: FleetId, which: Which): Promise<readonly RecordedRow[]> {
  const result = await q.execute<Record<string, unknown> & RecordedRow>(sql`
    select v.id, v.fleet_id as "fleetId", v.unit_number as "unitNumber", v.name, d.name as depot, v.duty_group as "dutyGroup",
      v.reminder_on::text as "reminderOn", s.odometer_on::text as "odometerOn", s.odometer_km::float8 as "odometerKm",
      coalesce(o.certainty, 'exact') as "odometerCertainty",
      s.rate_km_per_day as "rateKmPerDay", s.rate_weekly_spread as "rateWeeklySpread", s.rate_drift as "rateDrift", s.rate_observed_days as "rateObservedDays",
      coalesce(s.rate_readings, 0) as "rateReadings", coalesce(s.components, '[]'::jsonb) as components,
      coalesce(v.failure_cost, c.failure_cost, f.failure_cost)::float8 as "failureCost", f.wear_cost_per_percent::float8 as "wearCostPerPercent",
      s.hour_meter as "hourMeter", coalesce(h.deferrals, '[]'::jsonb) as deferrals,
      m.driving as misfire, coalesce(u.findings, 0)::int as findings,
      b.drift, b.scale, b.forecasts, b.held
    from vehicles v
    join fleets f on f.id = v.fleet_id
    join depots d on d.id = v.depot_id
    left join duty_costs c on c.fleet_id = v.fleet_id and c.duty_group = v.duty_group
    left join due_inputs s on s.vehicle_id = v.id
    left join odometer_readings o on o.vehicle_id = v.id and o.read_on = s.odometer_on and o.odometer_km = s.odometer_km
    left join (
      select vehicle_id, jsonb_agg(jsonb_build_object('component', component, 'until', until, 'fault', fault)) as deferrals
      from deferrals where fleet_id = ${fleetId} and ended_at is null group by vehicle_id) h on h.vehicle_id = v.id
    ${OPEN_MISFIRE}
    left join (
      select vehicle_id, count(*) as findings from follow_ups
      where fleet_id = ${fleetId} and done_at is null and finding_key is not null group by vehicle_id) u on u.vehicle_id = v.id
    left join back_tests g on g.fleet_id = v.fleet_id and g.duty_group = v.duty_group and v.duty_group <> ''
    left join back_tests b on b.fleet_id = v.fleet_id and b.duty_group = coalesce(g.duty_group, '')
    where v.fleet_id = ${fleetId} ${which ? sql`and v.id = any(${sql.param(which)}::uuid[])` : sql``}`);
  return result.rows;
}

/**
 * Takes the vehicles of some duty groups that borrow their group's rate. One that is being written just now is left: its
 * writer marks the group again.
 */
export async function lockBorrowers(q: Tx, fleetId: FleetId, groups: readonly string[]): Promise<readonly string[]> {
  const rows = await q
    .select({ id: dueStatus.vehicleId })
    .from(dueStatus)
    .where(
      and(
        eq(dueStatus.fleetId, fleetId),
        inArray(dueStatus.dutyGroup, [...groups]),
        dueStatus.borrowsGroupRate,
        dueStatus.leads,
      ),
    )
    .orderBy(dueStatus.vehicleId)
    .for('update', { skipLocked: true });
  return rows.map((row) => row.id);
}

/** Marks duty groups of these vehicles in which somebody borrows the group's rate, or will. */
export async function markStaleGroups(tx: Tx, fleetId: FleetId, rows: readonly DueStatusRow[]): Promise<void> {
  const groups = [...new Set(rows.map((row) => row.dutyGroup))].sort();
  await tx.execute(sql`
    insert into stale_groups (fleet_id, duty_group)
    select ${fleetId}::uuid, g from unnest(${sql.param(groups)}::text[]) g
    where exists (select from due_status t where t.fleet_id = ${fleetId} and t.duty_group = g and t.borrows_group_rate and t.leads)
    `);
}

/** Takes the marks away, with what they say. */
export async function takeStaleGroups(tx: Tx, fleetId: FleetId): Promise<readonly string[]> {
  const rows = await tx
    .delete(staleGroups)
    .where(eq(staleGroups.fleetId, fleetId))
    .returning({ group: staleGroups.dutyGroup });
  return rows.map((row) => row.group);
}

/** The day for which a fleet was worked out last, and whether a group is stale. */
export async function loadDueRun(q: Querier, fleetId: FleetId): Promise<{ on: string | null; stale: boolean }> {
  const result = await q.execute<{ on: string | null; stale: boolean }>(sql`
    select (select ran_on::text from due_runs where fleet_id = ${fleetId}) as on,
      exists (select from stale_groups where fleet_id = ${fleetId}) as stale`);
  return result.rows[0] ?? { on: null, stale: false };
}

/** What readings alone decide of a vehicle's status. */
export type OdometerRow = Pick<
  DueInputsRow,
  | 'vehicleId'
  | 'odometerOn'
  | 'odometerKm'
  | 'suspectReadings'
  | 'rateKmPerDay'
  | 'rateWeeklySpread'
  | 'rateDrift'
  | 'rateObservedDays'
  | 'rateReadings'
>;

/** New readings change where the odometer stands and how fast it goes; what goes in and when it was fitted stay. */
export async function writeOdometers(tx: Tx, rows: readonly OdometerRow[]): Promise<void> {
  for (let at = 0; at < rows.length; at += CHUNK) {
    const chunk = rows.slice(at, at + CHUNK);
    const column = <K extends keyof (typeof rows)[number]>(key: K) => sql.param(chunk.map((row) => row[key] ?? null));
    await tx.execute(sql`
      update due_inputs s set odometer_on = n.on, odometer_km = n.km, suspect_readings = n.suspects,
        rate_km_per_day = n.rate, rate_weekly_spread = n.spread, rate_drift = n.drift, rate_observed_days = n.observed, rate_readings = n.used
      from unnest(${column('vehicleId')}::uuid[], ${column('odometerOn')}::date[], ${column('odometerKm')}::numeric[],
        ${column('suspectReadings')}::int[], ${column('rateKmPerDay')}::float8[], ${column('rateWeeklySpread')}::float8[], ${column('rateDrift')}::float8[],
        ${column('rateObservedDays')}::int[], ${column('rateReadings')}::int[]) as n (id, "on", km, suspects, rate, spread, drift, observed, used)
      where s.vehicle_id = n.id`);
  }
}

/**
 * By vehicle, a mark that changes whenever anybody writes its status.
 *
 * @param locked these alone, and nobody else writes them until the end; null: all, locked by no one
 */
export async function dueInputMarks(
  tx: Tx,
  fleetId: FleetId,
  locked: readonly string[] | null,
): Promise<ReadonlyMap<string, string>> {
  const those = locked ? sql`and vehicle_id = any(${sql.param(locked)}::uuid[]) order by vehicle_id for update` : sql``;
  const result = await tx.execute<{ id: string; mark: string }>(
    sql`select vehicle_id as id, xmin::text as mark from due_inputs where fleet_id = ${fleetId} ${those}`,
  );
  return new Map(result.rows.map(({ id, mark }) => [id, mark]));
}

export type DueStatusRow = typeof dueStatus.$inferInsert;

/** Writes where vehicles stand over what is there: all components of each, so that one of them leads. */
export async function saveDueStatus(tx: Tx, rows: readonly DueStatusRow[]): Promise<void> {
  await replaceRows(tx, dueStatus, ['vehicle_id', 'component'], rows);
}

/** Own rates of the vehicles that have one, by duty group. */
export async function loadGroupRates(q: Querier, fleetId: FleetId, dutyGroup: string): Promise<readonly number[]> {
  const result = await q.execute<{ rate: number }>(sql`
    select s.rate_km_per_day as rate from due_inputs s join vehicles v on v.id = s.vehicle_id
    where v.fleet_id = ${fleetId} and v.duty_group = ${dutyGroup} and s.rate_km_per_day is not null`);
  return result.rows.map((row) => row.rate);
}
