import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import type { FleetId, WorkOrderId } from '@/core/shared/kinds';
import type { Querier } from '../client';
import { dueInputs, findingVerdicts, followUps, people, vehicles, workOrders } from '../schema';

/** What people said to the findings of an order. */
export const loadVerdicts = (q: Querier, workOrderId: WorkOrderId) =>
  q
    .select({ verdict: findingVerdicts, who: people.name, role: people.role })
    .from(findingVerdicts)
    .innerJoin(people, eq(people.id, findingVerdicts.saidBy))
    .where(eq(findingVerdicts.workOrderId, workOrderId))
    .orderBy(asc(findingVerdicts.saidAt));

export type VerdictRow = Awaited<ReturnType<typeof loadVerdicts>>[number];

/** Follow-ups with their vehicle and where its odometer stands; the soonest first. */
export const loadFollowUps = (
  q: Querier,
  fleetId: FleetId,
  filter: { readonly workOrderId?: WorkOrderId; readonly open?: boolean },
) =>
  q
    .select({
      followUp: followUps,
      unitNumber: vehicles.unitNumber,
      vehicleName: vehicles.name,
      odometerKm: dueInputs.odometerKm,
      orderNumber: workOrders.number,
      owner: people.name,
    })
    .from(followUps)
    .innerJoin(vehicles, eq(vehicles.id, followUps.vehicleId))
    .innerJoin(workOrders, eq(workOrders.id, followUps.workOrderId))
    .innerJoin(people, eq(people.id, followUps.ownerId))
    .leftJoin(dueInputs, eq(dueInputs.vehicleId, followUps.vehicleId))
    .where(
      and(
        eq(followUps.fleetId, fleetId),
        filter.workOrderId ? eq(followUps.workOrderId, filter.workOrderId) : undefined,
        filter.open ? isNull(followUps.doneAt) : undefined,
      ),
    )
    .orderBy(sql`${followUps.doneAt} is not null`, asc(followUps.dueOn), asc(followUps.createdAt))
    .limit(1000);
