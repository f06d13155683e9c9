import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { planForm } from '@/contracts/forms/planning';
import { addDays, type PlainDate } from '@/core/calendar/plain-date';
import { minuteOf, timeOf } from '@/core/calendar/zone';
import { type Booking, type BookingFault, bookingFault } from '@/core/planning/booking';
import type { WorkingHours } from '@/core/planning/hours';
import { dayClashes } from '@/core/planning/plan-check';
import type { PlanProblem } from '@/core/planning/plan-problem';
import type { DepotId, FleetId, PersonId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { isLive } from '@/core/work/order-state';
import type { Querier, Tx } from '@/db/client';
import { violation } from '@/db/constraint-error';
import { writeAudit } from '@/db/queries/audit';
import { depotHours, loadWays } from '@/db/queries/depots';
import { findActivePerson } from '@/db/queries/people';
import {
  bookingOf,
  listBooked,
  listWorkOrderRows,
  lockWorkOrder,
  type WorkOrderListRow,
} from '@/db/queries/work-orders';
import { bays, bookings, depots, workOrders } from '@/db/schema';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import type { Undoable } from '../undo/undoable';
import { useCase } from '../use-case';
import { busyOf, closedJob } from './board-jobs';

const FAULT_WORDS: Readonly<
  Record<BookingFault, (depot: string, hours: WorkingHours) => [field: string, message: string]>
> = {
  past: () => ['day', 'This day has passed. Choose today or a later day.'],
  closed_day: (depot) => [
    'day',
    `${depot} does not work on this day of the week. Choose another, or change its days under Settings.`,
  ],
  outside_hours: (depot, { fromMin, toMin }) => [
    'start',
    `${depot} works from ${timeOf(fromMin)} to ${timeOf(toMin)}: the job has to begin within.`,
  ],
};

/** Gives an open order a day, bay and person. The database refuses a bay or person twice at the same time. */
export const planWorkOrder = useCase({
  permission: 'plan work orders',
  input: planForm.schema,
  async run(deps, actor, input): Promise<Outcome<Undoable>> {
    const during = spanOf(input);
    try {
      return await deps.db.transaction(async (tx) => {
        const order = await lockWorkOrder(tx, actor.fleetId, input.workOrderId);
        const [row] = order ? await listWorkOrderRows(tx, actor.fleetId, { id: order.id }) : [];
        if (!order || !row) return notFound('work order');
        if (!isLive(order)) return fail('conflict', `Work order ${order.number} is ${order.state}.`);
        const before = bookingOf(row);
        if (input.version !== '' && before && before.version !== input.version) return editedMeanwhile();
        const [bay] = await tx
          .select()
          .from(bays)
          .where(and(eq(bays.fleetId, actor.fleetId), eq(bays.id, input.bayId)));
        const person = await findActivePerson(tx, actor.fleetId, input.personId);
        if (!bay || !person) return notFound(bay ? 'person' : 'bay');
        if (bay.depotId !== row.depotId)
          return fail('invalid', `Unit ${row.unitNumber} is kept at ${row.depot}; this bay is at another depot.`, {
            bayId: `Choose a bay at ${row.depot}.`,
          });
        if (row.hybrid && !person.hybridQualified)
          return fail('invalid', `${person.name} is not qualified for hybrid traction systems.`, {
            personId: 'Choose a qualified person.',
          });
        const misfit =
          (await whyNotThen(tx, bay.depotId, input, deps.today())) ??
          (await tooFar(tx, actor.fleetId, row, person, input));
        if (misfit) return misfit;
        const values = { bayId: bay.id, personId: person.id, during, version: (before?.version ?? 0) + 1 };
        await tx
          .insert(bookings)
          .values({ fleetId: actor.fleetId, workOrderId: order.id, ...values })
          .onConflictDoUpdate({ target: bookings.workOrderId, set: values });
        if (order.state === 'proposed')
          await tx.update(workOrders).set({ state: 'planned' }).where(eq(workOrders.id, order.id));
        const undo = await writeAudit(tx, actor, {
          action: 'plan',
          entity: 'work-order',
          entityId: order.id,
          changes: {
            ...{ day: input.day, start: input.start, minutes: input.minutes, bay: bay.name, person: person.name },
            before: before && slotOf(before),
          },
        });
        return ok({ undo });
      });
    } catch (error) {
      const broken = violation(error);
      if (broken?.constraint === 'bookings_bay_free')
        return fail(
          'conflict',
          `The bay is taken then: ${await takenBy(deps.db, 'bay', input)}. Choose another time or bay.`,
          { bayId: 'Taken at this time.' },
        );
      if (broken?.constraint === 'bookings_person_free')
        return fail(
          'conflict',
          `This person is busy then: ${await takenBy(deps.db, 'person', input)}. Choose another time or person.`,
          { personId: 'Busy at this time.' },
        );
      throw error;
    }
  },
});

/** A booking as it is asked for. */
const slotOf = ({ day, startMin, minutes, bayId, personId }: Booking) => ({
  ...{ day, start: timeOf(startMin), minutes, bayId, personId },
});

/** The time of a booking as the database holds it. */
function spanOf({ day, start, minutes }: z.output<typeof planForm.schema>) {
  const starts = `${day} ${start}`;
  return sql<string>`tsrange(${starts}::timestamp, ${starts}::timestamp + make_interval(mins => ${minutes}::int))`;
}

/** Why no work is done at the depot then; null: it is. */
async function whyNotThen(tx: Tx, depotId: DepotId, input: z.output<typeof planForm.schema>, today: PlainDate) {
  const [depot] = await tx.select({ name: depots.name, hours: depotHours }).from(depots).where(eq(depots.id, depotId));
  if (!depot) return notFound('depot');
  const { name, hours } = depot;
  const fault = bookingFault({ day: input.day, startMin: minuteOf(input.start) }, hours, today);
  if (!fault) return null;
  const [field, message] = FAULT_WORDS[fault](name, hours);
  return fail('invalid', message, { [field]: message });
}

/** Why a person cannot come from another depot in time, or get to it; null: they can. */
async function tooFar(
  tx: Tx,
  fleetId: FleetId,
  row: WorkOrderListRow,
  { id, name }: { readonly id: PersonId; readonly name: string },
  { day, start, minutes, bayId }: z.output<typeof planForm.schema>,
) {
  const booked = await listBooked(tx, fleetId, day, addDays(day, 1));
  const startMin = minuteOf(start);
  // Two at one time are the database's to refuse.
  const isApart = (row: WorkOrderListRow): boolean =>
    busyOf(row).every(({ fromMin, toMin }) => toMin <= startMin || startMin + minutes <= fromMin);
  const others = booked.filter(
    (other) => other.personId === id && other.id !== row.id && other.depotId !== row.depotId && isApart(other),
  );
  if (others.length === 0) return null;
  const way = await loadWays(tx, fleetId);
  const job = { ...closedJob(row, [day]), minutes };
  const problem: PlanProblem = {
    ...{ days: [day], bays: [], jobs: [job], moveCost: 0, seconds: 1, seed: 1 },
    people: [{ id, name, depots: [], skills: [], shift: [], busy: others.flatMap(busyOf) }],
    travelMin: {
      [row.depot]: Object.fromEntries(others.map((other) => [other.depot, way(row.depotId, other.depotId)])),
    },
  };
  const [clash] = dayClashes(problem, [{ job: job.id, day, bay: bayId, person: id, startMin }], id);
  return clash
    ? fail('conflict', `${clash.message} Choose another time or person.`, { personId: 'At another depot then.' })
    : null;
}

async function takenBy(db: Querier, what: 'bay' | 'person', input: z.output<typeof planForm.schema>): Promise<string> {
  const column = what === 'bay' ? sql`b.bay_id = ${input.bayId}` : sql`b.person_id = ${input.personId}`;
  const result = await db.execute<{ number: number; span: string }>(sql`
    select w.number, to_char(lower(b.during), 'HH24:MI') || ' to ' || to_char(upper(b.during), 'HH24:MI') as span
    from bookings b join work_orders w on w.id = b.work_order_id
    where ${column} and b.work_order_id <> ${input.workOrderId}
      and b.during && ${spanOf(input)} limit 1`);
  const [row] = result.rows;
  return row ? `work order ${row.number} from ${row.span}` : 'another work order';
}

/** Takes an order off the plan. */
export const unplanWorkOrder = useCase({
  permission: 'plan work orders',
  input: z.uuid(),
  async run(deps, actor, workOrderId): Promise<Outcome<Undoable>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockWorkOrder(tx, actor.fleetId, workOrderId);
      const [row] = order ? await listWorkOrderRows(tx, actor.fleetId, { id: order.id }) : [];
      if (!order || !row) return notFound('work order');
      const before = bookingOf(row);
      const gone = await tx.delete(bookings).where(eq(bookings.workOrderId, order.id)).returning({ id: bookings.id });
      if (gone.length === 0) return fail('conflict', `Work order ${order.number} is not on the plan.`);
      if (order.state === 'planned')
        await tx.update(workOrders).set({ state: 'proposed' }).where(eq(workOrders.id, order.id));
      const undo = await writeAudit(tx, actor, {
        action: 'unplan',
        entity: 'work-order',
        entityId: order.id,
        changes: { before: before && slotOf(before) },
      });
      return ok({ undo });
    });
  },
});
