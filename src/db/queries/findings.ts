import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import type { Finding } from '@/core/inspection/finding';
import type { FleetId, VehicleId, WorkOrderId } from '@/core/shared/kinds';
import type { Querier } from '../client';
import { dueInputs, findingVerdicts, followUps, misfireCases, people, vehicles, workOrders } from '../schema';

/** What people said to the findings of an order. */
export const loadVerdicts = (q: Querier, workOrderId: WorkOrderId) =>
  q
    .select({ verdict: findingVerdicts, who: people.name, role: people.role })
    .from(findingVerdicts)
    .innerJoin(people, eq(people.id, findingVerdicts.saidBy))
    .where(eq(findingVerdicts.workOrderId, workOrderId))
    .orderBy(asc(findingVerdicts.saidAt));

export type VerdictRow = Awaited<ReturnType<typeof loadVerdicts>>[number];

/** Findings of closed orders of a vehicle that a person confirmed, and that no task was put on for. */
export async function loadUnanswered(
  q: Querier,
  vehicleId: VehicleId,
): Promise<readonly { key: string; found: Finding }[]> {
  const rows = await q.execute<{ key: string; found: Finding }>(sql`
    select f.finding_key as key, f.found from finding_verdicts f
    join work_orders o on o.id = f.work_order_id and o.state = 'closed'
    where o.vehicle_id = ${vehicleId} and f.verdict = 'confirmed'
      and not exists (
        select from work_tasks t join work_orders p on p.id = t.work_order_id
        where p.vehicle_id = o.vehicle_id and t.finding_key = f.finding_key and t.taken_off_at is null)
    order by f.said_at desc limit 20`);
  return rows.rows;
}

/** Follow-ups with their vehicle and where its odometer stands; the soonest first. */
export const loadFollowUps = (
  q: Querier,
  fleetId: FleetId,
  filter: { readonly workOrderId?: WorkOrderId; readonly vehicleId?: VehicleId; readonly open?: boolean },
) =>
  q
    .select({
      followUp: followUps,
      unitNumber: vehicles.unitNumber,
      vehicleName: vehicles.name,
      odometerKm: dueInputs.odometerKm,
      orderNumber: workOrders.number,
      caseNumber: misfireCases.number,
      owner: people.name,
    })
    .from(followUps)
    .innerJoin(vehicles, eq(vehicles.id, followUps.vehicleId))
    .leftJoin(workOrders, eq(workOrders.id, followUps.workOrderId))
    .leftJoin(misfireCases, eq(misfireCases.id, followUps.misfireCaseId))
    .innerJoin(people, eq(people.id, followUps.ownerId))
    .leftJoin(dueInputs, eq(dueInputs.vehicleId, followUps.vehicleId))
    .where(
      and(
        eq(followUps.fleetId, fleetId),
        filter.workOrderId ? eq(followUps.workOrderId, filter.workOrderId) : undefined,
        filter.vehicleId ? eq(followUps.vehicleId, filter.vehicleId) : undefined,
        filter.open ? isNull(followUps.doneAt) : undefined,
      ),
    )
    .orderBy(sql`${followUps.doneAt} is not null`, asc(followUps.dueOn), asc(followUps.createdAt))
    .limit(1000);
