import type { PlainDate } from '../calendar/plain-date';
import type { DepotId, WorkOrderId } from '../shared/kinds';
import type { Stop } from '../work/stop';
import type { TaskComponent } from '../work/task';
import type { Placing, Progress } from './board';
import { type Booking, slotOfBooking } from './booking';
import type { BusyWindow, PlanProblem } from './plan-problem';
import type { JobFacts } from './plan-proposal';
import type { Place } from './solver/place-in';

/* The week of a depot, with all that is needed to judge a move before it is made. */

/** A job of the board: what it is, where it is booked, and how far it is. */
export interface BoardJob {
  readonly id: string;
  readonly unitNumber: string;
  readonly name: string;
  readonly components: readonly TaskComponent[];
  readonly workOrderId: WorkOrderId | null;
  readonly vehicleId: string;
  readonly number: number | null;
  /** As booked; of one that waits as estimated. */
  readonly minutes: number;
  /** More than it is booked for where work was added to it. */
  readonly estimate: number;
  /** Within which four of five visits like it end, minutes; null: it is closed. */
  readonly likely: JobFacts['likely'] | null;
  /** Of one that is booked: why there, as the plan stands; null: it waits, or is done. */
  readonly why: string | null;
  /** What the vehicle costs each week that it waits, as everywhere; null: nobody knows. */
  readonly weekCost: number | null;
  /** What waiting with this visit costs by day, money a week. */
  readonly weekly: readonly number[];
  /** Null: it is closed. */
  readonly costs: JobFacts['costs'] | null;
  readonly short: JobFacts['short'];
  readonly coolFromMin: number | null;
  readonly booking: Booking | null;
  readonly isPinned: boolean;
  readonly isBegun: boolean;
  readonly isFinished: boolean;
  /** Why it stands still; null: it does not. */
  readonly stop: Stop | null;
  readonly progress: Progress;
  /** Of one that waits: where it could be, or why it cannot; null: it is booked. */
  readonly place: Place | null;
}

export interface NamedDepot {
  readonly id: DepotId;
  readonly name: string;
  readonly timeZone: string;
}

export interface BoardWeek {
  readonly depot: NamedDepot;
  readonly depots: readonly NamedDepot[];
  readonly monday: PlainDate;
  readonly today: PlainDate;
  /** By the clock of the depot; null: today is none of the clock's days. */
  readonly nowMin: number | null;
  readonly problem: PlanProblem;
  /** What people of this depot do at others. */
  readonly elsewhere: readonly (BusyWindow & { readonly person: string })[];
  /** Why bays are closed and people are away, by the id of either. */
  readonly away: readonly { readonly id: string; readonly day: PlainDate; readonly what: string }[];
  readonly jobs: readonly BoardJob[];
  readonly currency: string;
}

/** Where the jobs of a week are booked. */
export const placingOf = (jobs: readonly Pick<BoardJob, 'id' | 'booking'>[]): Placing =>
  new Map(jobs.flatMap(({ id, booking }) => (booking ? [[id, slotOfBooking(booking)] as const] : [])));

export type KitState = 'complete' | 'coming' | 'short';

/** Whether the parts of a job are there on a day: at hand, by a delivery until then, or not. */
export function kitOn({ short }: Pick<BoardJob, 'short'>, day: PlainDate | null): KitState {
  if (short.length === 0) return 'complete';
  return day !== null && short.every(({ from }) => from <= day) ? 'coming' : 'short';
}
