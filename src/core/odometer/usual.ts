import { spreadOfUse } from './spread';
import type { Reading } from './use-rate';

/* What a step between two readings usually is for this very vehicle: its pace, how uneven its weeks are, and the most it has done. */

export interface Usual {
  readonly kmPerDay: number;
  /** Standard deviation of the logarithm of a week's use. */
  readonly weekly: number;
  /** The fastest it has gone between two readings, km a day. */
  readonly fastest: number;
}

/** So many of the last readings are looked at. */
const LAST = 24;
/** Readings nearer than this say little of a pace, days. */
const LEAST_DAYS = 3;
/** A vehicle that stands still may go anywhere; it counts as going so far, km a day. */
const STANDING_KM_PER_DAY = 5;
/** Of two readings nobody knows how uneven the weeks are. */
const UNKNOWN_WEEKLY = 0.8;

/**
 * How far it goes a day.
 *
 * @param sorted accepted, by day
 * @param kmPerDay known already; null: that of the last readings
 * @returns null where two readings on two days are not there
 */
export function paceOf(sorted: readonly Reading[], kmPerDay: number | null): number | null {
  const [first, last] = [sorted[Math.max(0, sorted.length - LAST)], sorted.at(-1)];
  if (!first || !last || last.day <= first.day) return null;
  return Math.max(kmPerDay ?? (last.km - first.km) / (last.day - first.day), STANDING_KM_PER_DAY);
}

/** What is usual. Parameters and null as in `paceOf`. */
export function usualOf(sorted: readonly Reading[], kmPerDay: number | null): Usual | null {
  const pace = paceOf(sorted, kmPerDay);
  const recent = sorted.slice(-LAST);
  const [first] = recent;
  if (pace === null || !first) return null;
  let fastest = pace;
  let from = first;
  for (const reading of recent) {
    const days = reading.day - from.day;
    if (days < LEAST_DAYS) continue;
    fastest = Math.max(fastest, (reading.km - from.km) / days);
    from = reading;
  }
  return { kmPerDay: pace, weekly: recent.length < 4 ? UNKNOWN_WEEKLY : spreadOfUse(recent, pace).weekly, fastest };
}

/** What is usual in its duty group, for a vehicle that has no pace of its own yet. */
export const lentUsual = (kmPerDay: number | null): Usual | null =>
  kmPerDay === null
    ? null
    : { kmPerDay: Math.max(kmPerDay, STANDING_KM_PER_DAY), weekly: UNKNOWN_WEEKLY, fastest: 2 * kmPerDay };

const WEEK = 7;

/** How far a step stands out: deviations of its logarithm from what is usual for so many days. */
export function standsOut({ kmPerDay, weekly }: Usual, km: number, days: number): number {
  const spread = weekly * Math.sqrt(WEEK / Math.max(LEAST_DAYS, days) + 0.15);
  return Math.log(Math.max(km, 1e-6) / (kmPerDay * days)) / spread;
}
