import { and, eq, isNotNull, isNull } from 'drizzle-orm';
import { groupBy } from '@/core/shared/group-by';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier } from '@/db/client';
import { loadFamilies } from '@/db/queries/catalogue';
import { loadPolicyChoices } from '@/db/queries/policies';
import { loadTimeRatios } from '@/db/queries/work-entries';
import { listWorkOrderRows } from '@/db/queries/work-orders';
import { absences, bays, deferrals, depots, dueStatus, parts, people, specSheets, vehicles } from '@/db/schema';
import { loadCosts } from '../due/costs';
import { absenceOf } from './absences';

/** Due, soon, or to be looked at, with the part that goes in. */
const loadWaiting = (q: Querier, fleetId: FleetId) =>
  q
    .select({
      vehicleId: dueStatus.vehicleId,
      component: dueStatus.component,
      state: dueStatus.state,
      fitment: dueStatus.fitment,
      lifeUsed: dueStatus.lifeUsed,
      lifeIn28: dueStatus.lifeIn28,
      failureCost: dueStatus.failureCost,
      number: parts.number,
      price: parts.price,
      onHand: parts.onHand,
      leadDays: parts.leadDays,
    })
    .from(dueStatus)
    .leftJoin(specSheets, eq(specSheets.id, dueStatus.specSheetId))
    .leftJoin(parts, eq(parts.id, specSheets.partId))
    .where(eq(dueStatus.fleetId, fleetId));

/** Everything that planning reads, at once. */
export async function loadFleetData(q: Querier, fleetId: FleetId) {
  const own = { fleetId };
  return {
    costs: await loadCosts(q, fleetId),
    depots: await q.select().from(depots).where(eq(depots.fleetId, own.fleetId)),
    bays: await q.select().from(bays).where(eq(bays.fleetId, fleetId)),
    people: await q
      .select()
      .from(people)
      .where(and(eq(people.fleetId, fleetId), eq(people.active, true), eq(people.role, 'technician'))),
    absences: groupBy(
      await q.select().from(absences).where(eq(absences.fleetId, fleetId)),
      ({ of, ofId }) => `${of} ${ofId}`,
    ),
    vehicles: await q.select().from(vehicles).where(eq(vehicles.fleetId, fleetId)),
    families: await loadFamilies(q, fleetId),
    ratios: await loadTimeRatios(q, fleetId, null),
    choices: await loadPolicyChoices(q, fleetId),
    due: groupBy(await loadWaiting(q, fleetId), ({ vehicleId }) => vehicleId),
    orders: await listWorkOrderRows(q, fleetId, { open: true }),
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

/** When a depot, bay, person or vehicle is away: "bay 0d1f…". */
export const awayOf = ({ absences: away }: Pick<FleetData, 'absences'>, key: string) =>
  (away.get(key) ?? []).map(absenceOf);
