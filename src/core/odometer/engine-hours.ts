import { fromDayNumber } from '../calendar/plain-date';
import type { HourMeter } from '../due/due';
import { ownRate } from './use-rate';

/** One accepted reading of an hour meter. */
export interface HourReading {
  /** Days since 1970-01-01. */
  readonly day: number;
  readonly hours: number;
}

/** Most that an hour meter can show. */
export const MAX_HOURS = 99_999;
const HOURS_A_DAY = 24;

export type HourDoubt = 'backwards' | 'too_fast';

/**
 * Judges a new reading of an hour meter against what is accepted: it must lie between its neighbours in time, and no
 * engine runs more than 24 hours a day. Two readings of one day may differ by a day's hours.
 *
 * @returns null where nothing speaks against it
 */
export function doubtHours(history: readonly HourReading[], reading: HourReading): HourDoubt | null {
  const before = history.filter((known) => known.day <= reading.day);
  const after = history.filter((known) => known.day > reading.day);
  if (before.some(({ hours }) => hours > reading.hours) || after.some(({ hours }) => hours < reading.hours))
    return 'backwards';
  const tooFast = (a: HourReading, b: HourReading): boolean =>
    b.hours - a.hours > HOURS_A_DAY * Math.max(1, b.day - a.day);
  const fast = before.some((known) => tooFast(known, reading)) || after.some((known) => tooFast(reading, known));
  return fast ? 'too_fast' : null;
}

/**
 * What the meter showed on a day: between two readings in proportion, outside them at their mean rate, never below 0.
 *
 * @param sorted by day @returns null where fewer than two readings tell
 */
export function hoursOn(sorted: readonly HourReading[], day: number): number | null {
  const [first, last] = [sorted[0], sorted.at(-1)];
  const same = sorted.find((known) => known.day === day);
  if (same) return same.hours;
  if (!first || !last || last.day === first.day) return null;
  const before = sorted.findLast((known) => known.day < day);
  const after = sorted.find((known) => known.day > day);
  const [a, b] = before && after ? [before, after] : [first, last];
  const from = before ?? first;
  return Math.max(0, from.hours + ((b.hours - a.hours) / (b.day - a.day)) * (day - from.day));
}

/**
 * The meter as the reckoning of life wants it: where it stands and how fast it goes, its hours as distance.
 *
 * @param sorted by day @param kmPerHour what an hour counts as; 0: hours do not count @returns null without readings
 */
export function hourMeter(sorted: readonly HourReading[], kmPerHour: number): HourMeter | null {
  const last = sorted.at(-1);
  if (!last || kmPerHour <= 0) return null;
  const rate = ownRate(sorted.map(({ day, hours }) => ({ day, km: hours * kmPerHour })));
  return { on: fromDayNumber(last.day), hours: last.hours, kmPerHour, rate };
}
