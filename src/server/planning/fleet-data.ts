import { and, asc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { COMPONENTS } from '@/core/engine/quantities';
import { groupBy } from '@/core/shared/group-by';
import type { DepotId, FleetId } from '@/core/shared/kinds';
import type { Querier } from '@/db/client';
import { loadFamilies } from '@/db/queries/catalogue';
import { loadWays } from '@/db/queries/depots';
import { loadPolicyChoices } from '@/db/queries/policies';
import { loadTimeRatios } from '@/db/queries/work-entries';
import { listWorkOrderRows } from '@/db/queries/work-orders';
import { absences, bays, deferrals, depots, dueStatus, parts, people, specSheets, vehicles } from '@/db/schema';
import { loadCosts } from '../due/costs';
import { absenceOf } from './absences';

/** Due, soon, or to be looked at, with the part that goes in. */
const loadWaiting = (q: Querier, fleetId: FleetId, depotId?: DepotId) =>
  q
    .select({
      vehicleId: dueStatus.vehicleId,
      component: dueStatus.component,
      state: dueStatus.state,
      fitment: dueStatus.fitment,
      lifeUsed: dueStatus.lifeUsed,
      lifeIn7: dueStatus.lifeIn7,
      share: dueStatus.limitShare,
      certainty: dueStatus.certainty,
      vehiclePressure: dueStatus.vehiclePressure,
      failureCost: dueStatus.failureCost,
      pressure: dueStatus.pressure,
      number: parts.number,
      price: parts.price,
      onHand: parts.onHand,
      leadDays: parts.leadDays,
    })
    .from(dueStatus)
    .innerJoin(vehicles, eq(vehicles.id, dueStatus.vehicleId))
    .leftJoin(specSheets, eq(specSheets.id, dueStatus.specSheetId))
    .leftJoin(parts, eq(parts.id, specSheets.partId))
    .where(and(eq(dueStatus.fleetId, fleetId), depotId && eq(vehicles.depotId, depotId)))
    // A plan and its words are the same however the rows lie in the table.
    .orderBy(asc(dueStatus.vehicleId), sql`array_position(${sql.param(COMPONENTS)}::text[], ${dueStatus.component})`);

/** Everything that planning reads, at once. @param depotId only what is at this depot */
export async function loadFleetData(q: Querier, fleetId: FleetId, depotId?: DepotId) {
  return {
    isOneDepot: depotId !== undefined,
    costs: await loadCosts(q, fleetId),
    way: await loadWays(q, fleetId),
    depots: await q.select().from(depots).where(eq(depots.fleetId, fleetId)),
    bays: await q
      .select()
      .from(bays)
      .where(and(eq(bays.fleetId, fleetId), depotId && eq(bays.depotId, depotId)))
      .orderBy(asc(bays.name)),
    people: await q
      .select()
      .from(people)
      .where(and(eq(people.fleetId, fleetId), eq(people.active, true), eq(people.role, 'technician')))
      .orderBy(asc(people.name)),
    absences: groupBy(
      await q.select().from(absences).where(eq(absences.fleetId, fleetId)),
      ({ of, ofId }) => `${of} ${ofId}`,
    ),
    vehicles: await q
      .select()
      .from(vehicles)
      .where(and(eq(vehicles.fleetId, fleetId), depotId && eq(vehicles.depotId, depotId))),
    families: await loadFamilies(q, fleetId),
    ratios: await loadTimeRatios(q, fleetId, null),
    choices: await loadPolicyChoices(q, fleetId),
    due: groupBy(await loadWaiting(q, fleetId, depotId), ({ vehicleId }) => vehicleId),
    orders: await listWorkOrderRows(q, fleetId, { open: true, depotId }),
    faults: new Set(
      (
        await q
          .select({ id: deferrals.vehicleId })
          .from(deferrals)
          .where(and(eq(deferrals.fleetId, fleetId), isNotNull(deferrals.fault), isNull(deferrals.endedAt)))
      ).map(({ id }) => id),
    ),
  };
}
export type FleetData = Awaited<ReturnType<typeof loadFleetData>>;

/** A component of a vehicle with how it stands and the part that goes in. */
export type DueRow = Awaited<ReturnType<typeof loadWaiting>>[number];

/** What of a fleet's data is of one depot: its bays, vehicles and orders, and what is due of them. */
export function dataOfDepot(data: FleetData, depotId: DepotId): FleetData {
  const isHere = (row: { readonly depotId: DepotId }): boolean => row.depotId === depotId;
  const vehicles = data.vehicles.filter(isHere);
  const ids = new Set(vehicles.map(({ id }) => id));
  return {
    ...data,
    isOneDepot: true,
    bays: data.bays.filter(isHere),
    vehicles,
    due: new Map([...data.due].filter(([vehicleId]) => ids.has(vehicleId))),
    orders: data.orders.filter(isHere),
  };
}

/** When a depot, bay, person or vehicle is away, and why: "bay 0d1f…". */
export const awayOf = ({ absences: away }: Pick<FleetData, 'absences'>, key: string) =>
  (away.get(key) ?? []).map((row) => ({ ...absenceOf(row), what: row.what }));
