import { and, asc, count, desc, eq, gte, inArray, lte, type SQL, sql } from 'drizzle-orm';
import type { Binding, Certainty, DueState } from '@/core/due/due';
import type { DUE_SORTS, OtherDue } from '@/core/due/due-item';
import { COMPONENTS, type Component } from '@/core/engine/quantities';
import type { Shell } from '@/core/policy/apply';
import type { ChartPoint } from '@/core/reliability/chart-point';
import type { FleetId, Km } from '@/core/shared/kinds';
import type { Head } from '@/core/torque/plan';
import type { Querier, Tx } from '../client';
import { dueCounts, dueStatus, vehicles } from '../schema';
import { OPEN_MISFIRE } from './due-inputs';
import { literally } from './like';

type DueSort = (typeof DUE_SORTS)[number];

interface DueQuery {
  /** One row of each vehicle that has such a component; left out: each vehicle with what binds first. */
  readonly component?: Component | undefined;
  readonly depot?: string | undefined;
  readonly group?: string | undefined;
  readonly state?: DueState | undefined;
  readonly search?: string | undefined;
  readonly before?: string | undefined;
  readonly minLife?: number | undefined;
  readonly minPressure?: number | undefined;
  readonly ids?: readonly string[] | undefined;
  readonly sort: DueSort;
  readonly descending?: boolean | undefined;
}

function conditions(fleetId: FleetId, query: DueQuery): SQL | undefined {
  const search = query.search?.trim().toLowerCase();
  return and(
    eq(dueStatus.fleetId, fleetId),
    query.component ? eq(dueStatus.component, query.component) : dueStatus.leads,
    query.depot ? eq(dueStatus.depot, query.depot) : undefined,
    query.group ? eq(dueStatus.dutyGroup, query.group) : undefined,
    query.state ? eq(dueStatus.state, query.state) : undefined,
    search ? sql`${dueStatus.vehicleId} = any(${foundBy(fleetId, search)})` : undefined,
    query.before ? lte(dueStatus.dueP50, query.before) : undefined,
    query.minLife === undefined ? undefined : gte(dueStatus.lifeUsed, query.minLife),
    query.minPressure === undefined ? undefined : gte(pressureIn(query), query.minPressure),
    query.ids ? inArray(dueStatus.vehicleId, [...query.ids]) : undefined,
  );
}

/** Of the component asked for, else of all of the vehicle. */
const pressureIn = ({ component }: Pick<DueQuery, 'component'>) =>
  component ? dueStatus.pressure : dueStatus.vehiclePressure;

/** Vehicles with this in their number or name. A change of a vehicle is rare, of its due status frequent: it is looked up there, once. */
const foundBy = (fleetId: FleetId, search: string): SQL =>
  sql`array(select ${vehicles.id} from ${vehicles} where ${vehicles.fleetId} = ${fleetId} and lower(${vehicles.unitNumber} || ' ' || ${vehicles.name}) like ${`%${literally(search)}%`})`;

/** What is highest or soonest first, ties by unit; on request the whole list the other way round, as an index is read backwards. */
function order({ sort, component, descending: turned = false }: DueQuery): readonly SQL[] {
  const highest = (column: SQL): SQL => (turned ? sql`${column} asc nulls first` : sql`${column} desc nulls last`);
  const lowest = (column: SQL): SQL => (turned ? sql`${column} desc nulls first` : sql`${column} asc nulls last`);
  const first: Record<DueSort, SQL> = {
    pressure: highest(sql`${pressureIn({ component })}`),
    life: highest(sql`${dueStatus.lifeUsed}`),
    due: lowest(sql`${dueStatus.dueP50}`),
    unit: turned ? desc(dueStatus.unitOrder) : asc(dueStatus.unitOrder),
    depot: turned ? desc(dueStatus.depot) : asc(dueStatus.depot),
    odometer: highest(sql`${dueStatus.odometerNowKm}`),
  };
  return [first[sort], turned ? desc(dueStatus.unitOrder) : asc(dueStatus.unitOrder)];
}

/**
 * The vehicles of a page, in order, and how many fit in all where that is asked for: one look at the rows tells both.
 *
 * @param isCounted without it `found` is null, and an index may end the search with the page
 */
export async function loadDueIds(
  q: Querier,
  fleetId: FleetId,
  query: DueQuery,
  { page, isCounted }: { page: { readonly from: number; readonly limit: number } | undefined; isCounted: boolean },
): Promise<{ readonly ids: readonly string[]; readonly found: number | null }> {
  const all = q
    .select({ id: dueStatus.vehicleId, found: isCounted ? sql<number>`(count(*) over ())::int` : sql<null>`null` })
    .from(dueStatus)
    .where(conditions(fleetId, query))
    .orderBy(...order(query))
    .$dynamic();
  const rows = await (page ? all.limit(page.limit).offset(page.from) : all);
  const past = isCounted && rows.length === 0 && (page?.from ?? 0) > 0;
  const total = past ? await countDue(q, fleetId, query) : (rows[0]?.found ?? (isCounted ? 0 : null));
  return { ids: rows.map((row) => row.id), found: total };
}

async function countDue(q: Querier, fleetId: FleetId, query: DueQuery): Promise<number> {
  const [row] = await q.select({ n: count() }).from(dueStatus).where(conditions(fleetId, query));
  return row?.n ?? 0;
}

/** How many stand where: the whole fleet by depot, duty group and state. */
export const countByPlace = (q: Querier, fleetId: FleetId) =>
  q
    .select({ depot: dueCounts.depot, dutyGroup: dueCounts.dutyGroup, state: dueCounts.state, n: SUMMED })
    .from(dueCounts)
    .where(eq(dueCounts.fleetId, fleetId))
    .groupBy(dueCounts.depot, dueCounts.dutyGroup, dueCounts.state)
    .having(sql`sum(${dueCounts.n}) <> 0`);

/** The same of one component. */
export const countComponentByPlace = (q: Querier, fleetId: FleetId, component: Component) =>
  q
    .select({ depot: dueStatus.depot, dutyGroup: dueStatus.dutyGroup, state: dueStatus.state, n: count() })
    .from(dueStatus)
    .where(and(eq(dueStatus.fleetId, fleetId), eq(dueStatus.component, component)))
    .groupBy(dueStatus.depot, dueStatus.dutyGroup, dueStatus.state);

/** Components of which some vehicle has a due status, in the order of the trade. */
export async function loadDueComponents(q: Querier, fleetId: FleetId): Promise<readonly Component[]> {
  const each = COMPONENTS.map(
    (component) =>
      sql`(select ${component} as component where exists (select from due_status where fleet_id = ${fleetId} and component = ${component}))`,
  );
  const result = await q.execute<{ component: Component }>(sql.join(each, sql` union all `));
  return result.rows.map(({ component }) => component);
}

const SUMMED = sql<number>`sum(${dueCounts.n})::int`;

/** Sums up the changes that have gathered: a row a place is left. */
export async function sumUpCounts(tx: Tx, fleetId: FleetId): Promise<void> {
  await tx.execute(sql`
    with gone as (delete from due_counts where fleet_id = ${fleetId} returning depot, duty_group, state, n)
    insert into due_counts (fleet_id, depot, duty_group, state, n)
    select ${fleetId}::uuid, depot, duty_group, state, sum(n) from gone group by 2, 3, 4 having sum(n) <> 0`);
}

/** A due status with what is shown beside it. */
export interface DueRow {
  readonly component: Component;
  readonly others: readonly OtherDue[];
  readonly id: string;
  readonly unitNumber: string;
  readonly name: string;
  readonly depot: string;
  readonly dutyGroup: string;
  readonly engineCode: string;
  readonly state: DueState;
  readonly lifeUsed: number | null;
  readonly odometerNowKm: Km | null;
  readonly binds: Binding | null;
  readonly certainty: Certainty | null;
  readonly dueP10: string | null;
  readonly dueP50: string | null;
  readonly dueP90: string | null;
  readonly rateKmPerDay: number | null;
  readonly rateReadings: number;
  readonly rateBorrowed: boolean;
  readonly failureCost: number;
  readonly pressure: number | null;
  readonly limitKm: Km | null;
  readonly limitBy: 'sheet' | 'maker' | 'shop';
  readonly limitMonths: number | null;
  readonly limitShare: number;
  readonly odometerUnit: 'km' | 'mi';
  readonly odometerKm: Km | null;
  readonly odometerOn: string | null;
  readonly suspectReadings: number;
  readonly fitmentWhy: string | null;
  readonly partNumber: string | null;
  readonly openWorkOrderId: string | null;
  readonly openWorkOrderNumber: number | null;
  readonly plannedOn: string | null;
  readonly fittedOn: string | null;
  readonly fittedKm: Km | null;
  /** What the dash is behind the life of the vehicle, where its meter was replaced; 0: it never was. */
  readonly dashBehindKm: Km;
  /** Its own service reminder has been on since then. */
  readonly reminderOn: string | null;
  /** Number of its open misfire. */
  readonly misfire: number | null;
  readonly headMaterial: Head;
  readonly shell: Shell | null;
  /** Its engine family is known for plugs that seize. */
  readonly seizes: boolean;
}

/** The order of a vehicle `v` that was opened first and goes on, as `w`: a vehicle may have several. */
const FIRST_OPEN_ORDER = sql`left join lateral (
      select id, number from work_orders
      where vehicle_id = v.id and state not in ('closed', 'cancelled') order by number limit 1) w on true`;

/** All that a list shows of some vehicles, in the order asked for: of one component, of each, or of the one that leads. */
export async function loadDueRows(
  q: Querier,
  fleetId: FleetId,
  ids: readonly string[],
  component?: Component | 'each',
): Promise<readonly DueRow[]> {
  if (ids.length === 0) return [];
  const named = component === 'each' ? sql`true` : sql`t.component = ${component}`;
  const which = component ? named : sql`t.leads`;
  const result = await q.execute<Record<string, unknown> & DueRow>(sql`
    select v.id, v.unit_number as "unitNumber", v.name, t.depot, t.duty_group as "dutyGroup",
      f.code as "engineCode", t.state, t.life_used as "lifeUsed",
      t.odometer_now_km as "odometerNowKm", t.binds, t.certainty,
      t.due_p_10::text as "dueP10", t.due_p_50::text as "dueP50", t.due_p_90::text as "dueP90",
      t.rate_km_per_day as "rateKmPerDay",
      t.rate_readings as "rateReadings", t.rate_borrowed as "rateBorrowed", t.failure_cost as "failureCost",
      ${component ? sql`t.pressure` : sql`t.vehicle_pressure`} as pressure, t.component, t.fitted_on::text as "fittedOn", t.fitted_km::float8 as "fittedKm",
      t.limit_km::float8 as "limitKm", t.limit_by as "limitBy", t.limit_months as "limitMonths", t.limit_share as "limitShare",
      case when v.meter_replaced_on is null then 0 else v.meter_offset_km end::float8 as "dashBehindKm",
      case when t.component = 'plug' then v.reminder_on::text end as "reminderOn", m.number as misfire,
      f.head_material as "headMaterial", p.shell, coalesce(f.weak_points @> '[{"kind": "seizing"}]', false) as seizes,
      v.odometer_unit as "odometerUnit", s.odometer_km::float8 as "odometerKm", s.odometer_on::text as "odometerOn",
      coalesce(s.suspect_readings, 0) as "suspectReadings", t.fitment_why as "fitmentWhy", p.number as "partNumber",
      coalesce(o.others, '[]'::jsonb) as others,
      w.id as "openWorkOrderId", w.number as "openWorkOrderNumber", lower(b.during)::date::text as "plannedOn"
    from unnest(${sql.param(ids)}::uuid[]) with ordinality as asked (id, place)
    join due_status t on t.vehicle_id = asked.id and t.fleet_id = ${fleetId} and ${which}
    join vehicles v on v.id = t.vehicle_id
    join engine_families f on f.id = v.engine_family_id
    left join due_inputs s on s.vehicle_id = v.id
    ${OPEN_MISFIRE}
    left join spec_sheets sh on sh.id = t.spec_sheet_id
    left join parts p on p.id = sh.part_id
    left join lateral (
      select jsonb_agg(jsonb_build_object('component', c.component, 'state', c.state, 'lifeUsed', c.life_used,
        'certainty', c.certainty, 'due', c.due_p_50) order by c.due_p_50, c.component) as others
      from due_status c where c.vehicle_id = t.vehicle_id and c.component <> t.component) o on true
    ${FIRST_OPEN_ORDER}
    left join bookings b on b.work_order_id = w.id
    order by asked.place, t.leads desc, t.due_p_50, t.component`);
  return result.rows;
}

/** Vehicles with a pressure, the highest first. */
export async function loadChartPoints(
  q: Querier,
  fleetId: FleetId,
  filter: Pick<DueQuery, 'component' | 'depot' | 'group' | 'search'>,
  most: number,
): Promise<readonly ChartPoint[]> {
  const result = await q.execute<Record<string, unknown> & ChartPoint>(sql`
    select v.id, v.unit_number as unit, v.name, ${dueStatus.dutyGroup} as "group", f.code as engine, ${dueStatus.depot},
      ${dueStatus.lifeUsed} as life, ${dueStatus.lifeIn28} as "lifeIn28", ${dueStatus.failureCost} as cost, ${pressureIn(filter)} as pressure,
      ${dueStatus.component}, ${dueStatus.state}, ${dueStatus.certainty}, ${dueStatus.binds},
      ${dueStatus.dueP10}::text as p10, ${dueStatus.dueP50}::text as p50, ${dueStatus.dueP90}::text as p90,
      f.service_minutes as minutes, w.id as "orderId", w.number as "orderNumber", v.retires_on::text as "retiresOn"
    from ${dueStatus}
    join vehicles v on v.id = ${dueStatus.vehicleId}
    join engine_families f on f.id = v.engine_family_id
    ${FIRST_OPEN_ORDER}
    where ${conditions(fleetId, { ...filter, sort: 'pressure' })} and ${pressureIn(filter)} is not null and ${dueStatus.lifeUsed} is not null
    order by ${pressureIn(filter)} desc, ${dueStatus.unitOrder}
    limit ${most}`);
  return result.rows;
}

/** What an ordinary week adds to life used, over the whole fleet; null where nothing is known. */
export async function medianWeeklyLife(q: Querier, fleetId: FleetId): Promise<number | null> {
  const result = await q.execute<{ median: number | null }>(sql`
    select percentile_cont(0.5) within group (order by life_in7 - life_used) as median
    from due_status where fleet_id = ${fleetId} and leads and life_in7 > life_used`);
  return result.rows[0]?.median ?? null;
}

/** A component that is likely due by a day. */
export interface ComingRow {
  readonly vehicleId: string;
  readonly component: Component;
  readonly engineFamilyId: string;
  readonly depot: string;
  readonly p10: string;
  readonly p50: string;
  readonly p90: string;
  readonly partNumber: string | null;
  readonly failureCost: number;
  readonly lifeUsed: number | null;
  readonly lifeIn28: number | null;
}

/** Coming work: every component of every vehicle that is likely due by a day. */
export async function loadComing(q: Querier, fleetId: FleetId, until: string): Promise<readonly ComingRow[]> {
  const result = await q.execute<Record<string, unknown> & ComingRow>(sql`
    select t.vehicle_id as "vehicleId", t.component, v.engine_family_id as "engineFamilyId", t.depot,
      t.due_p_10::text as p10, t.due_p_50::text as p50, t.due_p_90::text as p90, p.number as "partNumber",
      t.failure_cost as "failureCost", t.life_used as "lifeUsed", t.life_in28 as "lifeIn28"
    from due_status t
    join vehicles v on v.id = t.vehicle_id
    left join spec_sheets sh on sh.id = t.spec_sheet_id
    left join parts p on p.id = sh.part_id
    where t.fleet_id = ${fleetId} and t.due_p_50 is not null and t.due_p_10 <= ${until}
    order by t.due_p_50, t.component <> 'plug'`);
  return result.rows;
}
