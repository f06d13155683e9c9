import type { PlainDate } from '@/core/calendar/plain-date';
import { wallClock } from '@/core/calendar/zone';
import type { Progress } from '@/core/planning/board';
import type { BoardJob } from '@/core/planning/board-week';
import { type Booking, slotOfBooking } from '@/core/planning/booking';
import { breaksOf, minutesWithoutBreak } from '@/core/planning/person-day';
import type { Breaks, BusyWindow, PlanJob, PlanProblem, PlanSlot } from '@/core/planning/plan-problem';
import type { JobFacts } from '@/core/planning/plan-proposal';
import type { Place } from '@/core/planning/solver/place-in';
import type { TaskComponent } from '@/core/work/task';
import { bookingOf, type WorkOrderListRow } from '@/db/queries/work-orders';

/** What is known of a job of the board besides what the planner sees. */
interface Known {
  /** Booked for this week. */
  readonly row: WorkOrderListRow | undefined;
  /** Open or due. */
  readonly facts: JobFacts | undefined;
  readonly components: readonly TaskComponent[];
  readonly estimate: number | undefined;
  readonly startedAt: Date | undefined;
  readonly zone: string;
  readonly place: Place | undefined;
  readonly why: string | undefined;
}

export function boardJob(job: PlanJob, known: Known): BoardJob {
  const { row, facts, components, estimate, place } = known;
  const booking = row ? bookingOf(row) : null;
  return {
    id: job.id,
    unitNumber: facts?.unitNumber ?? row?.unitNumber ?? '',
    name: facts?.name ?? row?.vehicleName ?? '',
    components: facts?.components ?? components,
    workOrderId: facts?.workOrderId ?? row?.id ?? null,
    vehicleId: facts?.vehicleId ?? row?.vehicleId ?? '',
    number: facts?.number ?? row?.number ?? null,
    minutes: job.minutes,
    estimate: estimate ?? job.minutes,
    likely: facts?.likely ?? null,
    why: whyOf(known),
    weekCost: facts?.weekCost ?? null,
    weekly: facts?.costs.weekly ?? job.costByDay.map(() => 0),
    costs: facts?.costs ?? null,
    short: facts?.short ?? [],
    coolFromMin: job.coolFromMin,
    booking,
    isPinned: row?.pinned === true,
    isBegun: row?.state === 'in_bay',
    isFinished: isFinished(row),
    stop: row?.state === 'in_bay' ? row.stop : null,
    progress: booking && row ? progressOf(row, booking.day, known) : NOT_BEGUN,
    place: booking ? null : (place ?? null),
  };
}

function whyOf({ row, why }: Known): string | null {
  if (isFinished(row)) return null;
  return row?.state === 'in_bay' ? 'Work has begun.' : (why ?? null);
}

const NOT_BEGUN: Progress = { startedMin: null, finishedMin: null };

const isFinished = (row: WorkOrderListRow | undefined): boolean =>
  row !== undefined && (row.handedOverAt !== null || row.state === 'closed');

/** As far as it happened on the day that it is booked for. */
function progressOf(row: WorkOrderListRow, day: PlainDate, { startedAt, zone }: Known): Progress {
  const minuteOn = (at: Date | null | undefined): number | null => {
    const wall = at && wallClock(at, zone);
    return wall && wall.day === day ? wall.minute : null;
  };
  return { startedMin: minuteOn(startedAt), finishedMin: isFinished(row) ? minuteOn(row.handedOverAt) : null };
}

const slotIn = (row: WorkOrderListRow): PlanSlot | null => {
  const booking = bookingOf(row);
  return booking && slotOfBooking(booking);
};

/** The time that an order has with its person, as work that is none of a board. */
export function busyOf(row: WorkOrderListRow): readonly BusyWindow[] {
  const booking = bookingOf(row);
  if (!booking) return [];
  const { day, startMin: fromMin, minutes } = booking;
  return [{ day, fromMin, toMin: fromMin + minutes, depot: row.depot, name: `unit ${row.unitNumber}` }];
}

export const breaksBy = (problem: PlanProblem): ReadonlyMap<string, Breaks | null> =>
  new Map(problem.people.map((person) => [person.id, breaksOf(problem, person)]));

/** The work alone of a booking, without the break that lies in it. @param breaks by person */
export const workIn = (booking: Booking, breaks: ReadonlyMap<string, Breaks | null>): number =>
  minutesWithoutBreak(booking.minutes, booking.startMin, breaks.get(booking.personId) ?? null);

/** An order that is closed still takes the time that it took. */
export const closedJob = (row: WorkOrderListRow, days: readonly PlainDate[]): PlanJob => ({
  id: `order ${row.id}`,
  name: `unit ${row.unitNumber}`,
  depot: row.depot,
  minutes: bookingOf(row)?.minutes ?? row.minutes,
  needsSkills: [],
  needsBay: [],
  allowed: null,
  kitFrom: null,
  coolFromMin: null,
  costByDay: days.map(() => 0),
  costUnplanned: 0,
  pin: slotIn(row),
  was: slotIn(row),
});
