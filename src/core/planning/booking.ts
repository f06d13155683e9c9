import type { PlainDate } from '../calendar/plain-date';
import type { BayId, PersonId } from '../shared/kinds';
import { isWorkingDay, type WorkingHours } from './hours';
import type { PlanSlot } from './plan-problem';

/** A day, bay and person for one work order, by the clock of its depot. */
export interface Booking {
  readonly bayId: BayId;
  readonly personId: PersonId;
  readonly day: PlainDate;
  /** Minutes since midnight. */
  readonly startMin: number;
  readonly minutes: number;
  /** Counts the moves: whoever moves it says which one they saw. */
  readonly version: number;
}

/** A booking as the planner knows it. */
export const slotOfBooking = ({ day, bayId, personId, startMin }: Omit<Booking, 'minutes' | 'version'>): PlanSlot => ({
  day,
  bay: bayId,
  person: personId,
  startMin,
});

/** Starts and lengths of a plan are told in whole steps of so many minutes. */
const STEP_MIN = 5;

/** So many minutes in whole steps, one at least. */
export const inSteps = (minutes: number): number => Math.max(1, Math.ceil(minutes / STEP_MIN)) * STEP_MIN;

export type BookingFault = 'past' | 'closed_day' | 'outside_hours';

/**
 * Why work cannot be done there and then; null: it can. It begins within the hours; that it ends after them is overtime,
 * which the week shows and nobody is kept from.
 *
 * @param today at the depot
 */
export function bookingFault(
  booking: Pick<Booking, 'day' | 'startMin'>,
  hours: WorkingHours,
  today: PlainDate,
): BookingFault | null {
  if (booking.day < today) return 'past';
  if (!isWorkingDay(hours, booking.day)) return 'closed_day';
  return booking.startMin < hours.fromMin || booking.startMin >= hours.toMin ? 'outside_hours' : null;
}
