import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { AccessClass } from '@/core/engine/access';
import { groupBy } from '@/core/shared/group-by';
import type { FleetId, WorkOrderId } from '@/core/shared/kinds';
import type { TimeRatio } from '@/core/work/procedure/learned';
import type { ItemNote } from '@/core/work/procedure/step';
import type { Querier } from '../client';
import {
  floorEntries,
  floorPhotos,
  gateLifts,
  people,
  workOrderCodes,
  workOrderCounts,
  workOrderWaits,
  workTimes,
  wrenches,
} from '../schema';

export const loadCounts = (q: Querier, workOrderId: WorkOrderId) =>
  q
    .select()
    .from(workOrderCounts)
    .where(eq(workOrderCounts.workOrderId, workOrderId))
    .orderBy(asc(workOrderCounts.key));
export type CountRow = Awaited<ReturnType<typeof loadCounts>>[number];

/** Entries that say otherwise than the record and wait for a choice, the oldest first. */
export const loadDifferences = (q: Querier, workOrderId: WorkOrderId) =>
  q
    .select({ entry: floorEntries, who: people.name })
    .from(floorEntries)
    .innerJoin(people, eq(people.id, floorEntries.enteredBy))
    .where(and(eq(floorEntries.workOrderId, workOrderId), eq(floorEntries.outcome, 'differs')))
    .orderBy(asc(floorEntries.receivedAt));

/** Photos without their bytes. */
export const loadPhotos = (q: Querier, workOrderId: WorkOrderId) =>
  q
    .select({ id: floorPhotos.id, target: floorPhotos.target, takenAt: floorPhotos.takenAt, who: people.name })
    .from(floorPhotos)
    .innerJoin(people, eq(people.id, floorPhotos.takenBy))
    .where(eq(floorPhotos.workOrderId, workOrderId))
    .orderBy(asc(floorPhotos.takenAt));

/** Gates that were lifted, the earliest first. */
export const loadLifts = (q: Querier, workOrderId: WorkOrderId) =>
  q
    .select({
      gate: gateLifts.gate,
      target: gateLifts.target,
      reason: gateLifts.reason,
      by: people.name,
      at: gateLifts.liftedAt,
    })
    .from(gateLifts)
    .innerJoin(people, eq(people.id, gateLifts.liftedBy))
    .where(eq(gateLifts.workOrderId, workOrderId))
    .orderBy(asc(gateLifts.liftedAt));

/** The torque wrenches in use, by name. */
export const loadWrenches = (q: Querier, fleetId: FleetId) =>
  q
    .select({
      name: wrenches.name,
      unit: wrenches.unit,
      min: wrenches.min,
      max: wrenches.max,
      step: wrenches.step,
      lengthMm: wrenches.lengthMm,
      calibratedOn: wrenches.calibratedOn,
    })
    .from(wrenches)
    .where(and(eq(wrenches.fleetId, fleetId), eq(wrenches.retired, false)))
    .orderBy(asc(wrenches.name));

export const loadCodes = (q: Querier, workOrderId: WorkOrderId) =>
  q
    .select()
    .from(workOrderCodes)
    .where(eq(workOrderCodes.workOrderId, workOrderId))
    .orderBy(asc(workOrderCodes.readAt));

/** Who goes on where a job stands. */
const nextPeople = alias(people, 'next_people');

export const loadWaits = (q: Querier, fleetId: FleetId, only: { workOrderId?: WorkOrderId; open?: boolean }) =>
  q
    .select({ wait: workOrderWaits, who: people.name, next: nextPeople.name })
    .from(workOrderWaits)
    .innerJoin(people, eq(people.id, workOrderWaits.saidBy))
    .leftJoin(nextPeople, eq(nextPeople.id, workOrderWaits.nextPersonId))
    .where(
      and(
        eq(workOrderWaits.fleetId, fleetId),
        only.workOrderId ? eq(workOrderWaits.workOrderId, only.workOrderId) : undefined,
        only.open ? isNull(workOrderWaits.endedAt) : undefined,
      ),
    )
    .orderBy(asc(workOrderWaits.saidAt));

export type WaitRow = Awaited<ReturnType<typeof loadWaits>>[number];

export const loadTimes = (q: Querier, workOrderId: WorkOrderId) =>
  q
    .select({ time: workTimes, who: people.name })
    .from(workTimes)
    .innerJoin(people, eq(people.id, workTimes.personId))
    .where(eq(workTimes.workOrderId, workOrderId))
    .orderBy(asc(workTimes.fromAt));

/** Items that come off on open orders, with what was said of them on arrival and whether they are on again. */
export async function loadItemsAhead(q: Querier, fleetId: FleetId) {
  const { rows } = await q.execute<{
    order: number;
    familyId: string;
    item: string;
    isDefect: boolean;
    isOn: boolean;
  }>(sql`
    select w.number as order, v.engine_family_id as "familyId", substr(s.key, length('open_') + 1) as item,
      coalesce(s.answers->>'found', '') <> '' as "isDefect",
      exists (
        select 1 from work_order_steps back
        where back.work_order_id = w.id and back.state = 'done'
          and back.key in ('close_' || substr(s.key, length('open_') + 1), 'lids_' || substr(s.key, length('open_') + 1))
      ) as "isOn"
    from work_order_steps s join work_orders w on w.id = s.work_order_id join vehicles v on v.id = w.vehicle_id
    where w.fleet_id = ${fleetId} and w.state not in ('closed', 'cancelled') and s.kind = 'open'
    order by w.number, s.place`);
  return rows;
}

/** Notes that technicians left at the items on the way, on orders of a family that are closed; the latest first. */
export async function loadItemNotes(
  q: Querier,
  fleetId: FleetId,
  engineFamilyId: string,
): Promise<readonly ItemNote[]> {
  const { rows } = await q.execute<{ item: string; says: string; by: string; unit: string }>(sql`
    select substr(s.key, length('open_') + 1) as item, s.answers->>'note' as says, p.name as by, v.unit_number as unit
    from work_order_steps s join work_orders w on w.id = s.work_order_id join vehicles v on v.id = w.vehicle_id
      join people p on p.id = s.said_by
    where w.fleet_id = ${fleetId} and v.engine_family_id = ${engineFamilyId} and w.state = 'closed'
      and s.kind = 'open' and coalesce(s.answers->>'note', '') <> ''
    order by w.closed_on desc, w.number desc limit 40`);
  return rows;
}

/** The last visits of a family say how long it takes now. */
const LAST_VISITS = 60;

/** Minutes worked over minutes computed, of the last closed orders of each engine family that is asked for, or of all. */
export async function loadTimeRatios(
  q: Querier,
  fleetId: FleetId,
  engineFamilyId: string | null,
): Promise<ReadonlyMap<string, readonly TimeRatio[]>> {
  const { rows } = await q.execute<{ family: string; access: AccessClass; ratio: number }>(sql`
    select family, access, ratio from (
      select v.engine_family_id as family, coalesce(w.access, 'open') as access,
             w.minutes_worked::float8 / w.computed_minutes as ratio,
             row_number() over (partition by v.engine_family_id order by w.closed_on desc, w.number desc) as nth
      from work_orders w join vehicles v on v.id = w.vehicle_id
      where w.fleet_id = ${fleetId} and w.state = 'closed' and w.minutes_worked > 0 and w.computed_minutes > 0
        and (${engineFamilyId}::uuid is null or v.engine_family_id = ${engineFamilyId}::uuid)
    ) visits where nth <= ${LAST_VISITS}`);
  return groupBy(rows, ({ family }) => family);
}
