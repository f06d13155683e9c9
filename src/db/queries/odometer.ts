import { and, asc, desc, eq, gte, inArray, lte, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Beginning } from '@/core/odometer/check';
import { type KnownReadings, readingKey } from '@/core/odometer/intake';
import type { FleetId, Km, VehicleId } from '@/core/shared/kinds';
import type { Querier, Tx } from '../client';
import { engineHourReadings, odometerReadings, vehicles } from '../schema';

export type NewReading = Omit<typeof odometerReadings.$inferInsert, 'fleetId' | 'createdAt'>;

const CHUNK = 50_000;

/** Adds many readings in few statements: arrays instead of a parameter a cell. */
export async function insertReadings(tx: Tx, fleetId: FleetId, rows: readonly NewReading[]): Promise<void> {
  for (let at = 0; at < rows.length; at += CHUNK) {
    const chunk = rows.slice(at, at + CHUNK);
    const column = <K extends keyof NewReading>(key: K) => sql.param(chunk.map((row) => row[key] ?? null));
    await tx.execute(sql`
      insert into odometer_readings (fleet_id, vehicle_id, read_on, odometer_km, as_typed, unit, source, certainty, state, doubt, suggested_km, entered_by)
      select ${fleetId}::uuid, t.* from unnest(${column('vehicleId')}::uuid[], ${column('readOn')}::date[], ${column('odometerKm')}::numeric[],
        ${column('asTyped')}::text[], ${column('unit')}::text[], ${column('source')}::text[], ${sql.param(chunk.map((row) => row.certainty ?? 'exact'))}::text[], ${column('state')}::text[], ${column('doubt')}::text[], ${column('suggestedKm')}::numeric[],
        ${column('enteredBy')}::uuid[]) as t`);
  }
}

export async function loadReadings(q: Querier, fleetId: FleetId, vehicleId: VehicleId) {
  return q
    .select()
    .from(odometerReadings)
    .where(and(eq(odometerReadings.fleetId, fleetId), eq(odometerReadings.vehicleId, vehicleId)))
    .orderBy(asc(odometerReadings.readOn), asc(odometerReadings.odometerKm));
}

export type ReadingRow = Awaited<ReturnType<typeof loadReadings>>[number];

/** What is known of a vehicle's meter, for the next reading. */
export interface History extends KnownReadings {
  /** How many nobody has resolved yet. */
  readonly suspects: number;
}

type ReadingState = typeof odometerReadings.$inferSelect.state;

/** A vehicle's meter, and what is known of it before its first reading. */
type MeterRecord = Pick<KnownReadings, 'meter'> & { readonly beginning: Beginning };

/** @param vehicleIds null: all of the fleet */
export async function loadMeters(
  q: Pick<Querier, 'execute'>,
  fleetId: FleetId,
  vehicleIds: readonly string[] | null,
): Promise<ReadonlyMap<string, MeterRecord>> {
  const some = vehicleIds ? sql`and v.id = any(${sql.param(vehicleIds)}::uuid[])` : sql``;
  const theirs = vehicleIds ? sql`and vehicle_id = any(${sql.param(vehicleIds)}::uuid[])` : sql``;
  const result = await q.execute<{
    id: string;
    offset: number;
    replaced: string | null;
    began: number;
    day: number | null;
    km: number | null;
    lent: number | null;
  }>(sql`
    select v.id, v.meter_offset_km::float8 as offset, v.meter_replaced_on::text as replaced,
      v.in_service_on - date '1970-01-01' as began, f.day, f.km, t.rate_km_per_day as lent
    from vehicles v
    left join due_status t on t.vehicle_id = v.id and t.leads
    left join (
      select distinct on (vehicle_id) vehicle_id, installed_on - date '1970-01-01' as day, installed_km::float8 as km
      from fitted_components
      where fleet_id = ${fleetId} ${theirs} and removed_on is null and installed_km_certainty = 'exact'
      order by vehicle_id, installed_on desc, installed_km desc) f on f.vehicle_id = v.id
    where v.fleet_id = ${fleetId} ${some}`);
  return new Map(
    result.rows.map(({ id, offset, replaced, began, day, km, lent }) => [
      id,
      {
        meter: { meterOffsetKm: offset, meterReplacedOn: replaced },
        beginning: { day: began, fitted: day === null || km === null ? null : { day, km }, lentKmPerDay: lent },
      },
    ]),
  );
}

/** The readings of some vehicles. */
export async function loadHistories(
  q: Querier,
  fleetId: FleetId,
  vehicleIds: readonly string[],
): Promise<ReadonlyMap<string, History>> {
  // In the order of the key, so that nothing is sorted.
  const result = await q.execute<{
    vehicle_id: string;
    offset: number;
    replaced: string | null;
    days: number[] | null;
    kms: number[] | null;
    states: ReadingState[] | null;
    certainties: string[] | null;
  }>(sql`
    select v.id as vehicle_id, v.meter_offset_km::float8 as offset, v.meter_replaced_on::text as replaced,
      r.days, r.kms, r.states, r.certainties
    from vehicles v left join (
      select vehicle_id, array_agg(day) as days, array_agg(km) as kms, array_agg(state) as states,
        array_agg(certainty) as certainties
      from (
        select vehicle_id, read_on - date '1970-01-01' as day, odometer_km::float8 as km, state, certainty from odometer_readings
        where fleet_id = ${fleetId} and vehicle_id = any(${sql.param(vehicleIds)}::uuid[]) order by vehicle_id, read_on, odometer_km
      ) ordered group by vehicle_id) r on r.vehicle_id = v.id
    where v.fleet_id = ${fleetId} and v.id = any(${sql.param(vehicleIds)}::uuid[])`);
  // Only of these is it asked how they began: the others have a past to go by.
  const young = result.rows.filter(({ states }) => (states ?? []).filter((s) => s === 'accepted').length < 2);
  const meters =
    young.length === 0
      ? null
      : await loadMeters(
          q,
          fleetId,
          young.map((row) => row.vehicle_id),
        );
  return new Map(
    result.rows.map(
      ({ vehicle_id: id, offset, replaced, days: daysThere, kms: kmsThere, states: statesThere, certainties }) => {
        const [days, kms, states] = [daysThere ?? [], kmsThere ?? [], statesThere ?? []];
        const readings = days.map((day, i) => ({ day, km: kms[i] ?? 0 }));
        return [
          id,
          {
            known: new Set(readings.map(readingKey)),
            // What is only about so much is no evidence against the next.
            accepted: readings.filter((_, i) => states[i] === 'accepted' && certainties?.[i] === 'exact'),
            suspects: states.filter((state) => state === 'suspect').length,
            meter: { meterOffsetKm: offset, meterReplacedOn: replaced },
            beginning: meters?.get(id)?.beginning ?? null,
          },
        ];
      },
    ),
  );
}

/** Suspect readings with what is accepted around them. */
export async function loadSuspects(q: Querier, fleetId: FleetId) {
  const result = await q.execute<{
    vehicleId: VehicleId;
    unitNumber: string;
    name: string;
    readOn: string;
    odometerKm: Km;
    asTyped: string;
    source: string;
    doubt: string | null;
    suggestedKm: Km | null;
    lastKm: Km | null;
    lastOn: string | null;
    dash: 'km' | 'mi';
  }>(sql`
    select r.vehicle_id as "vehicleId", v.unit_number as "unitNumber", v.name, r.read_on::text as "readOn",
      r.odometer_km::float8 as "odometerKm", r.as_typed as "asTyped", r.source, r.doubt,
      r.suggested_km::float8 as "suggestedKm", l.odometer_km::float8 as "lastKm", l.read_on::text as "lastOn",
      v.odometer_unit as dash
    from odometer_readings r
    join vehicles v on v.id = r.vehicle_id
    left join lateral (
      select odometer_km, read_on from odometer_readings a
      where a.vehicle_id = r.vehicle_id and a.state = 'accepted' and a.read_on <= r.read_on
      order by a.read_on desc, a.odometer_km desc limit 1) l on true
    where r.fleet_id = ${fleetId} and r.state = 'suspect'
    order by r.read_on desc, v.unit_number limit 500`);
  return result.rows;
}

/** Readings of hour meters of some vehicles, whatever their state, in order of day. */
export async function loadHourRows(q: Querier, fleetId: FleetId, vehicleIds: readonly string[]) {
  if (vehicleIds.length === 0) return [];
  return q
    .select()
    .from(engineHourReadings)
    .where(and(eq(engineHourReadings.fleetId, fleetId), inArray(engineHourReadings.vehicleId, [...vehicleIds])))
    .orderBy(asc(engineHourReadings.readOn), asc(engineHourReadings.hours));
}

export const loadSuspectHours = (q: Querier, fleetId: FleetId) => {
  const earlier = alias(engineHourReadings, 'earlier');
  const before = q
    .select({ hours: earlier.hours, readOn: earlier.readOn })
    .from(earlier)
    .where(
      and(
        eq(earlier.vehicleId, engineHourReadings.vehicleId),
        eq(earlier.state, 'accepted'),
        lte(earlier.readOn, engineHourReadings.readOn),
      ),
    )
    .orderBy(desc(earlier.readOn), desc(earlier.hours))
    .limit(1)
    .as('before');
  return q
    .select({
      vehicleId: engineHourReadings.vehicleId,
      unitNumber: vehicles.unitNumber,
      name: vehicles.name,
      readOn: engineHourReadings.readOn,
      hours: engineHourReadings.hours,
      asTyped: engineHourReadings.asTyped,
      source: engineHourReadings.source,
      doubt: engineHourReadings.doubt,
      /** The last accepted before it, to compare with. */
      lastHours: before.hours,
      lastOn: before.readOn,
    })
    .from(engineHourReadings)
    .innerJoin(vehicles, eq(vehicles.id, engineHourReadings.vehicleId))
    .leftJoinLateral(before, sql`true`)
    .where(and(eq(engineHourReadings.fleetId, fleetId), eq(engineHourReadings.state, 'suspect')))
    .orderBy(asc(engineHourReadings.readOn))
    .limit(500);
};

export interface ReadingKey {
  readonly vehicleId: VehicleId;
  readonly readOn: string;
  readonly odometerKm: Km;
}

interface ReadingFilter {
  readonly unitNumber?: string | undefined;
  readonly from?: string | undefined;
  readonly to?: string | undefined;
  readonly state?: 'accepted' | 'suspect' | 'rejected' | undefined;
  readonly after?: ReadingKey | undefined;
}

export type ReadingPageRow = Awaited<ReturnType<typeof loadReadingPage>>[number];

/** Readings in the order of their key, from behind one of them on. */
export const loadReadingPage = (q: Querier, fleetId: FleetId, filter: ReadingFilter, limit: number) =>
  q
    .select({
      vehicleId: odometerReadings.vehicleId,
      unitNumber: vehicles.unitNumber,
      readOn: odometerReadings.readOn,
      odometerKm: odometerReadings.odometerKm,
      asTyped: odometerReadings.asTyped,
      unit: odometerReadings.unit,
      source: odometerReadings.source,
      certainty: odometerReadings.certainty,
      state: odometerReadings.state,
      doubt: odometerReadings.doubt,
      suggestedKm: odometerReadings.suggestedKm,
    })
    .from(odometerReadings)
    .innerJoin(vehicles, eq(vehicles.id, odometerReadings.vehicleId))
    .where(
      and(
        eq(odometerReadings.fleetId, fleetId),
        filter.unitNumber ? eq(vehicles.unitNumber, filter.unitNumber) : undefined,
        filter.from ? gte(odometerReadings.readOn, filter.from) : undefined,
        filter.to ? lte(odometerReadings.readOn, filter.to) : undefined,
        filter.state ? eq(odometerReadings.state, filter.state) : undefined,
        filter.after
          ? sql`(${odometerReadings.vehicleId}, ${odometerReadings.readOn}, ${odometerReadings.odometerKm}) > (${filter.after.vehicleId}::uuid, ${filter.after.readOn}::date, ${filter.after.odometerKm}::numeric)`
          : undefined,
      ),
    )
    .orderBy(asc(odometerReadings.vehicleId), asc(odometerReadings.readOn), asc(odometerReadings.odometerKm))
    .limit(limit);
