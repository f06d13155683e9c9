import { and, asc, desc, eq, inArray, isNull, lt, ne, sql } from 'drizzle-orm';
import type { CaseState } from '@/core/misfire/case-state';
import type { FleetId, VehicleId } from '@/core/shared/kinds';
import type { Querier, Tx } from '../client';
import { lockOne } from '../locks';
import { depots, dueInputs, misfireCases, misfireEntries, people, vehicles, workOrders } from '../schema';

export type CaseRow = typeof misfireCases.$inferSelect;

const FIRST_NUMBER = 1;

/** The number of the next case of a fleet. */
export async function nextCaseNumber(tx: Tx, fleetId: FleetId): Promise<number> {
  await lockOne(tx, 'caseNumber', fleetId);
  const [row] = await tx
    .select({ last: sql<number>`coalesce(max(${misfireCases.number}), ${FIRST_NUMBER - 1})` })
    .from(misfireCases)
    .where(eq(misfireCases.fleetId, fleetId));
  return Number(row?.last ?? 0) + 1;
}

/** Takes a case until the transaction ends. */
export async function lockCase(tx: Tx, fleetId: FleetId, id: string): Promise<CaseRow | null> {
  const [row] = await tx
    .select()
    .from(misfireCases)
    .where(and(eq(misfireCases.fleetId, fleetId), eq(misfireCases.id, id)))
    .for('update');
  return row ?? null;
}

/** The case of a vehicle that has not ended, else the last that did. */
export async function lastCaseOf(q: Querier, fleetId: FleetId, vehicleId: VehicleId): Promise<CaseRow | null> {
  const [row] = await q
    .select()
    .from(misfireCases)
    .where(and(eq(misfireCases.fleetId, fleetId), eq(misfireCases.vehicleId, vehicleId)))
    .orderBy(sql`${misfireCases.state} = 'closed'`, desc(misfireCases.number))
    .limit(1);
  return row ?? null;
}

/** What was said of a case in its order, with who said it; what was taken back is left out unless it is asked for. */
export const loadCaseEntries = (q: Querier, caseId: string, all = false) =>
  q
    .select({ entry: misfireEntries, who: people.name })
    .from(misfireEntries)
    .leftJoin(people, eq(people.id, misfireEntries.saidBy))
    .where(and(eq(misfireEntries.caseId, caseId), all ? undefined : isNull(misfireEntries.takenBackAt)))
    .orderBy(asc(misfireEntries.ordinal));

export type CaseEntryRow = Awaited<ReturnType<typeof loadCaseEntries>>[number];

const caseColumns = {
  misfire: misfireCases,
  unitNumber: vehicles.unitNumber,
  vehicleName: vehicles.name,
  depot: depots.name,
  odometerKm: dueInputs.odometerKm,
  orderNumber: workOrders.number,
};

/** Cases of a fleet with their vehicles, the newest first. */
export const loadCases = (
  q: Querier,
  fleetId: FleetId,
  filter: {
    readonly id?: string;
    readonly unit?: string;
    readonly vehicleId?: string;
    readonly states?: readonly CaseState[];
    /** Below this number. */
    readonly before?: number;
  },
  limit = 1,
) =>
  q
    .select(caseColumns)
    .from(misfireCases)
    .innerJoin(vehicles, eq(vehicles.id, misfireCases.vehicleId))
    .innerJoin(depots, eq(depots.id, vehicles.depotId))
    .leftJoin(dueInputs, eq(dueInputs.vehicleId, misfireCases.vehicleId))
    .leftJoin(workOrders, eq(workOrders.id, misfireCases.workOrderId))
    .where(
      and(
        eq(misfireCases.fleetId, fleetId),
        filter.id ? eq(misfireCases.id, filter.id) : undefined,
        filter.unit ? eq(vehicles.unitNumber, filter.unit) : undefined,
        filter.vehicleId ? eq(misfireCases.vehicleId, filter.vehicleId) : undefined,
        filter.states ? inArray(misfireCases.state, [...filter.states]) : undefined,
        filter.before ? lt(misfireCases.number, filter.before) : undefined,
      ),
    )
    .orderBy(desc(misfireCases.number))
    .limit(limit);

export type CaseListRow = Awaited<ReturnType<typeof loadCases>>[number];

/** Parts of the same lot and number as those that sit in a vehicle now, that failed wherever they sat. */
export async function loadLotFailures(
  q: Querier,
  fleetId: FleetId,
  vehicleId: VehicleId,
): Promise<readonly { readonly component: string; readonly cylinder: number; readonly failed: number }[]> {
  const result = await q.execute<{ component: string; cylinder: number; failed: number }>(sql`
    select f.component, f.cylinder, count(*)::int as failed
    from fitted_components f
    join fitted_components o on o.fleet_id = f.fleet_id and o.part_id = f.part_id and o.lot = f.lot
      and o.id <> f.id and o.removal_reason in ('failed','found_damaged') and o.tag is distinct from f.tag
    where f.fleet_id = ${fleetId} and f.vehicle_id = ${vehicleId} and f.removed_on is null and f.lot is not null
    group by f.component, f.cylinder`);
  return result.rows;
}

/** Cases that a visit is to cure and that have not ended. */
export const lockCasesOfOrder = (tx: Tx, fleetId: FleetId, workOrderId: string): Promise<readonly CaseRow[]> =>
  tx
    .select()
    .from(misfireCases)
    .where(
      and(
        eq(misfireCases.fleetId, fleetId),
        eq(misfireCases.workOrderId, workOrderId),
        ne(misfireCases.state, 'closed'),
      ),
    )
    .for('update');
