import { and, asc, count, desc, eq, gte, ilike, inArray, isNull, lt, lte, min, notInArray, or, sql } from 'drizzle-orm';
import { minuteOf } from '@/core/calendar/zone';
import type { Booking } from '@/core/planning/booking';
import { groupBy } from '@/core/shared/group-by';
import type { DepotId, FleetId, PersonId, VehicleId, WorkOrderId } from '@/core/shared/kinds';
import type { Stop } from '@/core/work/stop';
import type { Querier, Tx } from '../client';
import { lockOne } from '../locks';
import {
  bays,
  bookings,
  depots,
  dueStatus,
  engineFamilies,
  fittedComponents,
  parts,
  people,
  taskPlaces,
  vehicles,
  workOrderSteps,
  workOrders,
  workTasks,
  workTimes,
} from '../schema';
import { literally } from './like';

export type WorkOrderRow = typeof workOrders.$inferSelect;
export type TaskRow = typeof workTasks.$inferSelect;
export type PlaceRow = typeof taskPlaces.$inferSelect;
export type FittedRow = typeof fittedComponents.$inferSelect;
export type StepRow = typeof workOrderSteps.$inferSelect;

const ENDED = ['closed', 'cancelled'] as const;

export async function loadWorkOrder(q: Querier, fleetId: FleetId, id: string): Promise<WorkOrderRow | null> {
  const [row] = await q
    .select()
    .from(workOrders)
    .where(and(eq(workOrders.fleetId, fleetId), eq(workOrders.id, id)));
  return row ?? null;
}

/** Takes the row until the transaction ends, so that two people closing it do so one after the other. */
export async function lockWorkOrder(tx: Tx, fleetId: FleetId, id: string): Promise<WorkOrderRow | null> {
  const [row] = await tx
    .select()
    .from(workOrders)
    .where(and(eq(workOrders.fleetId, fleetId), eq(workOrders.id, id)))
    .for('update');
  return row ?? null;
}

/** The tasks of an order in the order in which they were put on, without those that were taken off. */
export const loadTasks = (q: Querier, workOrderId: WorkOrderId) =>
  q
    .select()
    .from(workTasks)
    .where(and(eq(workTasks.workOrderId, workOrderId), isNull(workTasks.takenOffAt)))
    .orderBy(asc(workTasks.ordinal));

/** The places of the tasks of an order, those that went to another visit among them. */
export async function loadPlaces(q: Querier, workOrderId: WorkOrderId): Promise<readonly PlaceRow[]> {
  const rows = await q
    .select({ place: taskPlaces })
    .from(taskPlaces)
    .innerJoin(workTasks, eq(workTasks.id, taskPlaces.taskId))
    .where(and(eq(taskPlaces.workOrderId, workOrderId), isNull(workTasks.takenOffAt)))
    .orderBy(asc(workTasks.ordinal), asc(taskPlaces.cylinder), asc(taskPlaces.position));
  return rows.map(({ place }) => place);
}

/** Those of them at which a plug comes out, goes in or is looked at. */
export const loadPlugPlaces = async (q: Querier, workOrderId: WorkOrderId): Promise<readonly PlaceRow[]> =>
  (await loadPlaces(q, workOrderId)).filter(({ component }) => component === 'plug');

export const loadSteps = (q: Querier, workOrderId: WorkOrderId) =>
  q.select().from(workOrderSteps).where(eq(workOrderSteps.workOrderId, workOrderId)).orderBy(asc(workOrderSteps.place));

export async function nextNumber(tx: Tx, fleetId: FleetId): Promise<number> {
  await lockOne(tx, 'orderNumber', fleetId);
  const [row] = await tx
    .select({ last: sql<number>`coalesce(max(${workOrders.number}), 1000)` })
    .from(workOrders)
    .where(eq(workOrders.fleetId, fleetId));
  return Number(row?.last ?? 1000) + 1;
}

/** What the record says sits in a vehicle now. */
export const loadFitted = (q: Querier, vehicleId: VehicleId) =>
  q
    .select({ fitted: fittedComponents, number: parts.number })
    .from(fittedComponents)
    .leftJoin(parts, eq(parts.id, fittedComponents.partId))
    .where(and(eq(fittedComponents.vehicleId, vehicleId), isNull(fittedComponents.removedOn)));

/** The parts that an order takes out: those in the vehicle, or, once it is closed, those that it took out. */
export const loadOutgoing = (q: Querier, order: Pick<WorkOrderRow, 'id' | 'vehicleId' | 'state'>) =>
  q
    .select()
    .from(fittedComponents)
    .where(
      and(
        eq(fittedComponents.vehicleId, order.vehicleId),
        order.state === 'closed'
          ? eq(fittedComponents.removedByWorkOrderId, order.id)
          : isNull(fittedComponents.removedOn),
      ),
    );

/** Every coil that sits or sat in a vehicle, oldest first. */
export const loadCoils = (q: Querier, vehicleId: VehicleId) =>
  q
    .select({
      fitted: fittedComponents,
      number: parts.number,
      warranty: { months: parts.warrantyMonths, km: parts.warrantyKm },
    })
    .from(fittedComponents)
    .leftJoin(parts, eq(parts.id, fittedComponents.partId))
    .where(and(eq(fittedComponents.vehicleId, vehicleId), inArray(fittedComponents.component, ['coil', 'rail'])))
    .orderBy(fittedComponents.installedOn, fittedComponents.cylinder);

const listColumns = {
  id: workOrders.id,
  number: workOrders.number,
  state: workOrders.state,
  openedOn: workOrders.openedOn,
  handedOverAt: workOrders.handedOverAt,
  closedOn: workOrders.closedOn,
  minutes: workOrders.minutes,
  vehicleId: vehicles.id,
  unitNumber: vehicles.unitNumber,
  vehicleName: vehicles.name,
  engineCode: engineFamilies.code,
  hybrid: engineFamilies.hybrid,
  depotId: vehicles.depotId,
  depot: depots.name,
  bayId: bookings.bayId,
  bay: bays.name,
  personId: bookings.personId,
  bookingVersion: bookings.version,
  pinned: bookings.pinned,
  person: people.name,
  startsAt: sql<string | null>`to_char(lower(${bookings.during}), 'YYYY-MM-DD"T"HH24:MI')`,
  endsAt: sql<string | null>`to_char(upper(${bookings.during}), 'YYYY-MM-DD"T"HH24:MI')`,
  /** Where it stands still: the last that was said, without its place, which only the engine can name. */
  stop: sql<Stop | null>`(
    select jsonb_build_object('id', w.id, 'reason', w.reason, 'by', p.name, 'at', w.said_at, 'note', w.note,
      'next', n.name, 'place', null, 'part', case when w.part_number is not null then w.quantity || ' × ' || w.part_number end)
    from work_order_waits w join people p on p.id = w.said_by left join people n on n.id = w.next_person_id
    where w.work_order_id = ${workOrders.id} and w.ended_at is null order by w.said_at desc limit 1)`,
};

/** The booking of a listed order; null where it has none. */
export function bookingOf(row: WorkOrderListRow): Booking | null {
  const { bayId, personId, startsAt, endsAt, bookingVersion: version } = row;
  if (!bayId || !personId || !startsAt || !endsAt || version === null) return null;
  const minutes = (Date.parse(`${endsAt}Z`) - Date.parse(`${startsAt}Z`)) / 60_000;
  return { bayId, personId, day: startsAt.slice(0, 10), startMin: minuteOf(startsAt.slice(11)), minutes, version };
}

const listQuery = (q: Querier) =>
  q
    .select(listColumns)
    .from(workOrders)
    .innerJoin(vehicles, eq(vehicles.id, workOrders.vehicleId))
    .innerJoin(engineFamilies, eq(engineFamilies.id, vehicles.engineFamilyId))
    .innerJoin(depots, eq(depots.id, vehicles.depotId))
    .leftJoin(bookings, eq(bookings.workOrderId, workOrders.id))
    .leftJoin(bays, eq(bays.id, bookings.bayId))
    .leftJoin(people, eq(people.id, bookings.personId));

export type WorkOrderListRow = Awaited<ReturnType<typeof listWorkOrderRows>>[number];

export const listWorkOrderRows = (q: Querier, fleetId: FleetId, only: OrderFilter = {}) => {
  const rows = listQuery(q)
    .where(ordersThat(fleetId, only))
    .orderBy(...ORDER_SORTS[only.sort ?? 'latest']);
  const some = only.limit === undefined ? rows : rows.limit(only.limit);
  return only.from === undefined ? some : some.offset(only.from);
};

/** How many orders fit a filter. */
export async function countWorkOrders(q: Querier, fleetId: FleetId, only: OrderFilter): Promise<number> {
  const [row] = await q
    .select({ count: count() })
    .from(workOrders)
    .innerJoin(vehicles, eq(vehicles.id, workOrders.vehicleId))
    .innerJoin(engineFamilies, eq(engineFamilies.id, vehicles.engineFamilyId))
    .innerJoin(depots, eq(depots.id, vehicles.depotId))
    .leftJoin(bookings, eq(bookings.workOrderId, workOrders.id))
    .where(ordersThat(fleetId, only));
  return row?.count ?? 0;
}

interface OrderFilter {
  readonly open?: boolean;
  readonly state?: WorkOrderRow['state'];
  readonly depotId?: DepotId | undefined;
  /** Its name. */
  readonly depot?: string;
  readonly personId?: PersonId;
  readonly vehicleId?: VehicleId;
  readonly id?: string;
  readonly unit?: string;
  /** Part of a unit, name or engine code, or a whole order number. */
  readonly search?: string;
  /** First and last day of the order, see `orderDay`. */
  readonly firstDay?: string;
  readonly lastDay?: string;
  /** Orders with a lower number only. */
  readonly below?: number;
  readonly sort?: keyof typeof ORDER_SORTS;
  readonly from?: number;
  readonly limit?: number;
}

/** The day of an order: when it was closed, else for when it is planned, else when it was opened. */
const orderDay = sql`coalesce(${workOrders.closedOn}, lower(${bookings.during})::date, ${workOrders.openedOn})`;

/** Units in the order of the due list: 9 before 10. */
const unitOrder = sql`(select min(${dueStatus.unitOrder}) from ${dueStatus} where ${dueStatus.vehicleId} = ${vehicles.id})`;

/** How a list of orders may be sorted; the latest number decides between equals. */
export const ORDER_SORTS = {
  latest: [desc(workOrders.number)],
  day: [asc(orderDay), desc(workOrders.number)],
  unit: [asc(unitOrder), desc(workOrders.number)],
} as const;

function ordersThat(fleetId: FleetId, only: OrderFilter) {
  const words = only.search?.trim() ?? '';
  const like = `%${literally(words)}%`;
  const number = /^\d{1,9}$/.test(words) ? eq(workOrders.number, Number(words)) : undefined;
  return and(
    eq(workOrders.fleetId, fleetId),
    only.unit === undefined ? undefined : eq(vehicles.unitNumber, only.unit),
    only.below === undefined ? undefined : lt(workOrders.number, only.below),
    only.open ? notInArray(workOrders.state, [...ENDED]) : undefined,
    only.state ? eq(workOrders.state, only.state) : undefined,
    only.depotId ? eq(vehicles.depotId, only.depotId) : undefined,
    only.depot ? eq(depots.name, only.depot) : undefined,
    only.personId ? eq(bookings.personId, only.personId) : undefined,
    only.vehicleId ? eq(workOrders.vehicleId, only.vehicleId) : undefined,
    only.id ? eq(workOrders.id, only.id) : undefined,
    only.firstDay ? gte(orderDay, only.firstDay) : undefined,
    only.lastDay ? lte(orderDay, only.lastDay) : undefined,
    words === ''
      ? undefined
      : or(number, ilike(vehicles.unitNumber, like), ilike(vehicles.name, like), ilike(engineFamilies.code, like)),
  );
}

/** What is done on some orders, by order: action and component of each task. */
export async function loadTaskKinds(q: Querier, ids: readonly WorkOrderId[]) {
  const rows = await q
    .select({ orderId: workTasks.workOrderId, action: workTasks.action, component: workTasks.component })
    .from(workTasks)
    .where(and(inArray(workTasks.workOrderId, [...ids]), isNull(workTasks.takenOffAt)))
    .orderBy(workTasks.ordinal);
  return groupBy(rows, ({ orderId }) => orderId);
}

/** When work at some orders began, by order. */
export async function loadStarts(q: Querier, ids: readonly WorkOrderId[]): Promise<ReadonlyMap<string, Date>> {
  const rows = await q
    .select({ id: workTimes.workOrderId, at: min(workTimes.fromAt) })
    .from(workTimes)
    .where(inArray(workTimes.workOrderId, [...ids]))
    .groupBy(workTimes.workOrderId);
  return new Map(rows.flatMap(({ id, at }) => (at ? [[id, at] as const] : [])));
}

/** Booked work that touches the days from `from` up to, not with, `to`. */
export const listBooked = (q: Querier, fleetId: FleetId, from: string, to: string) =>
  listQuery(q)
    .where(
      and(eq(workOrders.fleetId, fleetId), sql`${bookings.during} && tsrange(${from}::timestamp, ${to}::timestamp)`),
    )
    .orderBy(sql`lower(${bookings.during})`);
