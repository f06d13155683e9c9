import type { Breaks, PlanProblem } from './plan-problem';
import type { WeekHours } from './presence';

/* What a person's day asks for besides its jobs: the way between depots, and a break. */

/** Work of somebody on a day, minutes since midnight. */
export interface Stay {
  readonly fromMin: number;
  readonly toMin: number;
}

/** Minutes from one depot to another; either direction stands for both, and a pair that is not named takes none. */
export const travelBetween = ({ travelMin }: Pick<PlanProblem, 'travelMin'>, a: string, b: string): number =>
  a === b ? 0 : (travelMin?.[a]?.[b] ?? travelMin?.[b]?.[a] ?? 0);

/**
 * How long a job takes that begins at a minute: longer by the break where it covers the whole window of breaks.
 *
 * @example minutesWithBreak(400, 480, { minutes: 30, fromMin: 660, toMin: 840 }) // 430: from 08:00 to 15:10
 */
export const minutesWithBreak = (minutes: number, startMin: number, breaks: Breaks | null): number =>
  breaks && startMin <= breaks.fromMin && startMin + minutes >= breaks.toMin ? minutes + breaks.minutes : minutes;

/** The work alone of a time that was booked: less the break where the booking covers the window and the break. */
export const minutesWithoutBreak = (booked: number, startMin: number, breaks: Breaks | null): number =>
  breaks && startMin <= breaks.fromMin && startMin + booked >= breaks.toMin + breaks.minutes
    ? booked - breaks.minutes
    : booked;

/** A day with less than this needs no break, minutes. */
const LONG_DAY_MIN = 6 * 60;
/** The window of a break begins so long after the beginning of the day and ends so long before its end, minutes. */
const AFTER_BEGIN_MIN = 3 * 60;
const BEFORE_END_MIN = 2 * 60;

/**
 * The break of somebody who works by such a week: in the middle of their longest day.
 *
 * @param minutes of the break; 0: none
 * @returns null: no day is long enough, or there are no breaks
 * @example breakIn({ 1: { fromMin: 480, toMin: 960 } }, 30) // { minutes: 30, fromMin: 660, toMin: 840 }
 */
export function breakIn(week: WeekHours, minutes: number): Breaks | null {
  const longest = Object.values(week).sort((a, b) => b.toMin - b.fromMin - (a.toMin - a.fromMin))[0];
  if (!longest || minutes <= 0 || longest.toMin - longest.fromMin < LONG_DAY_MIN) return null;
  const window = { fromMin: longest.fromMin + AFTER_BEGIN_MIN, toMin: longest.toMin - BEFORE_END_MIN };
  return window.toMin - window.fromMin < minutes ? null : { minutes, ...window };
}

/**
 * Whether somebody has a break: free minutes in one piece within the window, on a day on which their work begins before it and
 * ends after it.
 *
 * @param stays in order of their beginning
 * @param travel minutes on the way from the stay with that index to the next: no break
 */
export function hasBreak(
  stays: readonly Stay[],
  { minutes, fromMin, toMin }: Breaks,
  travel: (index: number) => number,
): boolean {
  const [first] = stays;
  if (!first || first.fromMin >= fromMin || !stays.some((stay) => stay.toMin > toMin)) return true;
  // The break lies within a job that covers the whole window.
  if (stays.some((stay) => stay.fromMin <= fromMin && stay.toMin >= toMin)) return true;
  return stays.some((stay, i) => {
    const next = stays[i + 1];
    return next !== undefined && fits(stay.toMin, next.fromMin, travel(i));
  });

  /** Whether a break fits between two stays: before the way or after it. */
  function fits(leaves: number, arrives: number, way: number): boolean {
    const lies = (from: number, to: number): boolean => Math.max(from, fromMin) + minutes <= Math.min(to, toMin);
    return lies(leaves + way, arrives) || lies(leaves, arrives - way);
  }
}

/** The break of somebody; null: nobody has said that they need one. */
export const breaksOf = (
  { breaks }: Pick<PlanProblem, 'breaks'>,
  person: { readonly breaks?: Breaks | null } | undefined,
): Breaks | null => person?.breaks ?? breaks ?? null;
