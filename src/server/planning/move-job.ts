import { and, eq, ne, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { sayDay } from '@/core/calendar/day-names';
import { addDays, type PlainDate } from '@/core/calendar/plain-date';
import { timeOf, timeTo24 } from '@/core/calendar/zone';
import { judgeMove } from '@/core/planning/board';
import { inSteps } from '@/core/planning/booking';
import { minutesTaken } from '@/core/planning/plan-check';
import type { PlanProblem, PlanSlot } from '@/core/planning/plan-problem';
import type { DepotId, FleetId, WorkOrderId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { isLive } from '@/core/work/order-state';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { bookingOf, listBooked, listWorkOrderRows, lockWorkOrder } from '@/db/queries/work-orders';
import { bookings, workOrders } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { editedMeanwhile, fail, notFound, type Outcome, Refused } from '../failure';
import { useCase } from '../use-case';
import { openWorkOrder } from '../work-orders/open-work-order';
import { breaksBy, busyOf, workIn } from './board-jobs';
import { loadFleetData } from './fleet-data';
import { problemOf, stillAhead } from './fleet-problem';
import { planWorkOrder, unplanWorkOrder } from './plan-work-order';

const slot = z.object({
  day: z.iso.date('Give the day as 2026-04-18.'),
  bayId: z.uuid('Choose a bay.'),
  personId: z.uuid('Choose a person.'),
  startMin: z.number().int().min(0).max(1439),
});

const moveInput = z.object({
  /** An order, or a vehicle that is due: moving it opens its order. */
  job: z.string().regex(/^(order|vehicle) [0-9a-f-]{36}$/, 'There is no such job.'),
  /** Null: it is taken off the plan. */
  to: slot.nullable(),
  /** It goes back to where it was agreed to be: that is not judged anew. */
  isUndo: z.boolean().default(false),
  /** The booking that was seen; null: there was none. */
  version: z.number().int().nullable(),
});

interface Moved {
  readonly workOrderId: WorkOrderId;
  /** An order was opened for it. */
  readonly opened: boolean;
  /** Of its booking now; null: it has none. */
  readonly version: number | null;
}

/**
 * Moves a job on the plan, puts one on it, or takes it off. Every hard rule of the planner is kept; of two people who move
 * something at once the second is told.
 */
export const moveJob = useCase({
  permission: 'plan work orders',
  input: moveInput,
  async run(deps, actor, { job, to, isUndo, version }): Promise<Outcome<Moved>> {
    return deps.db.transaction(async (tx): Promise<Outcome<Moved>> => {
      const within = { ...deps, db: tx };
      const [kind, id = ''] = job.split(' ');
      const opened = kind === 'vehicle';
      if (opened && !to) return fail('invalid', 'It is not on the plan.');
      // Told before anything is opened: many may want the same hour at once.
      const taken = to && (await whoHas(tx, actor.fleetId, to, opened ? null : id));
      if (taken) return fail('conflict', taken);
      const workOrderId = opened ? await opening(within, actor, id) : (id as WorkOrderId);
      const order = await lockWorkOrder(tx, actor.fleetId, workOrderId);
      const [row] = order ? await listWorkOrderRows(tx, actor.fleetId, { id: order.id }) : [];
      if (!order || !row) return notFound('work order');
      if (!isLive(order)) return fail('conflict', `Work order ${order.number} is ${order.state}.`);
      const booking = bookingOf(row);
      if ((booking?.version ?? null) !== version) return movedMeanwhile(row.unitNumber, booking);
      if (!to) {
        if (row.pinned) return fail('invalid', `Unit ${row.unitNumber} is pinned. Take the pin off first.`);
        const off = await unplanWorkOrder(within, actor, order.id);
        return off.ok ? ok({ workOrderId: order.id, opened, version: null }) : off;
      }
      const slot = { day: to.day, bay: to.bayId, person: to.personId, startMin: to.startMin };
      const problem = await dayProblem(tx, within, actor, order.id, row.depotId, slot);
      const minutes = booking ? workIn(booking, breaksBy(problem)) : inSteps(order.minutes);
      const breaks = isUndo ? [] : whatBreaks(problem, `order ${order.id}`, minutes, slot, deps.today());
      if (breaks.length > 0) throw new Refused(cannot(row.unitNumber, to.day, breaks));
      const { day, bayId, personId, startMin } = to;
      const planned = await planWorkOrder(within, actor, {
        workOrderId: order.id,
        day,
        start: timeOf(startMin),
        minutes: minutesTaken(problem, { minutes }, slot),
        bayId,
        personId,
      });
      // An order that was opened for it goes with it.
      if (!planned.ok) throw new Refused(planned.error);
      return ok({ workOrderId: order.id, opened, version: (booking?.version ?? 0) + 1 });
    });
  },
});

/** Who has the bay or the person at that minute already; null: nobody but the order itself. */
async function whoHas(
  tx: Tx,
  fleetId: FleetId,
  to: z.output<typeof slot>,
  exceptId: string | null,
): Promise<string | null> {
  const at = sql`${`${to.day} ${timeOf(to.startMin)}`}::timestamp`;
  const [row] = await tx
    .select({ number: workOrders.number, isBay: sql<boolean>`${bookings.bayId} = ${to.bayId}` })
    .from(bookings)
    .innerJoin(workOrders, eq(workOrders.id, bookings.workOrderId))
    .where(
      and(
        eq(bookings.fleetId, fleetId),
        sql`${bookings.during} @> ${at}`,
        or(eq(bookings.bayId, to.bayId), eq(bookings.personId, to.personId)),
        exceptId === null ? undefined : ne(bookings.workOrderId, exceptId),
      ),
    )
    .limit(1);
  return row
    ? `The ${row.isBay ? 'bay' : 'person'} has work order ${row.number} then. Choose another time, or another ${row.isBay ? 'bay' : 'person'}.`
    : null;
}

async function opening(within: Deps, actor: Actor, vehicleId: string): Promise<WorkOrderId> {
  const made = await openWorkOrder(within, actor, { vehicleId });
  if (!made.ok) throw new Refused(made.error);
  return made.value.workOrderId;
}

const cannot = (unit: string, day: string, breaks: readonly string[]) => ({
  kind: 'conflict' as const,
  message: `Unit ${unit} cannot be there on ${sayDay(day)}: ${breaks.join('; ')}.`,
});

function movedMeanwhile(unit: string, booking: ReturnType<typeof bookingOf>) {
  const now = booking
    ? `it is on ${sayDay(booking.day)} at ${timeTo24(booking.startMin)} now`
    : 'it is off the plan now';
  return fail('edited-meanwhile', `Somebody else moved unit ${unit} meanwhile: ${now}. Look again, then move it.`);
}

/** The depot of an order on a day, with all else that a person does then as work that stays. */
async function dayProblem(
  tx: Tx,
  deps: Deps,
  actor: Actor,
  orderId: WorkOrderId,
  depotId: DepotId,
  { day, person: personId }: PlanSlot,
): Promise<PlanProblem> {
  const clock = { today: deps.today(), now: deps.now() };
  const data = await loadFleetData(tx, actor.fleetId, depotId);
  const { problem } = await problemOf(tx, data, [day], clock.today);
  const booked = await listBooked(tx, actor.fleetId, day, addDays(day, 1));
  const busy = booked.filter((row) => row.personId === personId && row.id !== orderId).flatMap(busyOf);
  const people = problem.people.map((person) => (person.id === personId ? { ...person, busy } : person));
  return stillAhead(data, { ...problem, people }, clock);
}

/** Hard rules that a slot breaks. Whether the bay is free is the database's to say. */
function whatBreaks(problem: PlanProblem, id: string, minutes: number, to: PlanSlot, today: PlainDate) {
  const jobs = problem.jobs.filter((job) => job.id === id).map((job) => ({ ...job, minutes }));
  return judgeMove({ ...problem, jobs }, new Map(), { job: id, to }, today).breaks;
}

/** Says of a booking that it stays where it is, or that it may move again. */
export const pinBooking = useCase({
  permission: 'plan work orders',
  input: z.object({ workOrderId: z.uuid(), isPinned: z.boolean(), version: z.number().int() }),
  async run(deps, actor, { workOrderId, isPinned, version }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockWorkOrder(tx, actor.fleetId, workOrderId);
      if (!order) return notFound('work order');
      const [changed] = await tx
        .update(bookings)
        .set({ pinned: isPinned, version: version + 1 })
        .where(and(eq(bookings.workOrderId, order.id), eq(bookings.version, version)))
        .returning({ id: bookings.id });
      if (!changed) return editedMeanwhile();
      await writeAudit(tx, actor, {
        action: 'plan',
        entity: 'work-order',
        entityId: order.id,
        changes: { pinned: isPinned },
      });
      return ok(null);
    });
  },
});
