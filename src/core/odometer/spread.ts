/* How unevenly a vehicle is used: an odometer is a running sum, so that its readings tell of the weeks between them, and never of
   each other. */

/** Standard deviation of the logarithm of one week's use, before a vehicle has shown its own. Source: the fleet's choice. */
export const ASSUMED_WEEKLY = 0.4;
/** Standard deviation, by week, of how the logarithm of usual use wanders, before a vehicle has shown it. Source: the fleet's choice. */
export const ASSUMED_DRIFT = 0.018;
/** One interval that says more than this is a holiday or a mistake, and counts as this. */
const FARTHEST = 1.5;
const WEEK = 7;

/**
 * What may be, each as likely as the next: deviations of a week's use, and a week's drift as a share of them. Source: the fleet's
 * choice, by bench/due-band.ts; a vehicle with even weeks drifts less.
 */
const WEEKLY = [0.05, 0.1, 0.18, 0.28, 0.4, 0.55, 0.8];
const DRIFTS = [0, 0.03, 0.06, 0.1, 0.16];

interface SpreadOfUse {
  /** Standard deviation of the logarithm of one week's use. */
  readonly weekly: number;
  /** The same of how far usual use wanders in a week. */
  readonly drift: number;
}

interface Interval {
  /** Logarithm of its use a day over the vehicle's rate. */
  readonly off: number;
  readonly weeks: number;
}

/**
 * How unevenly a vehicle is used, and how far its duty drifts: both by how likely its readings make each of a grid of values,
 * weighed. Use between two readings is the level of its duty with an error that shrinks with the weeks covered; the level walks.
 * Few readings leave what is assumed nearly as it was.
 *
 * @param readings in order of day @param kmPerDay the vehicle's rate, above 0
 * @returns roots of the mean variances
 *
 * Source: local level model, its likelihood by Kalman's filter.
 */
export function spreadOfUse(
  readings: readonly { readonly day: number; readonly km: number }[],
  kmPerDay: number,
): SpreadOfUse {
  const intervals = intervalsOf(readings, kmPerDay);
  const grid = WEEKLY.flatMap((weekly) =>
    DRIFTS.map((share) => ({ weekly, drift: share * weekly, fit: likelihood(intervals, weekly, share * weekly) })),
  );
  const best = Math.max(...grid.map(({ fit }) => fit));
  let [count, weekly, drift] = [0, 0, 0];
  for (const step of grid) {
    const weight = Math.exp(step.fit - best);
    count += weight;
    weekly += weight * step.weekly ** 2;
    drift += weight * step.drift ** 2;
  }
  return { weekly: Math.sqrt(weekly / count), drift: Math.sqrt(drift / count) };
}

/** Shorter intervals share their weeks with their neighbours, and are taken together. */
const LEAST_WEEKS = 2;

function intervalsOf(readings: Parameters<typeof spreadOfUse>[0], kmPerDay: number): readonly Interval[] {
  const intervals: Interval[] = [];
  let [from] = readings;
  for (const reading of readings) {
    if (
      !from ||
      (reading.day - from.day < LEAST_WEEKS * WEEK && reading !== readings.at(-1)) ||
      reading.day <= from.day
    )
      continue;
    const days = reading.day - from.day;
    const off = Math.log(Math.max((reading.km - from.km) / days, 1e-9) / kmPerDay);
    intervals.push({ off: Math.min(FARTHEST, Math.max(-FARTHEST, off)), weeks: days / WEEK });
    from = reading;
  }
  return intervals;
}

/** Variance of the level before the first interval: the rate is worked out from the same readings, so that it is near 0. */
const VARIANCE_AT_FIRST = 1;

/** Logarithm of how likely the intervals are. */
function likelihood(intervals: readonly Interval[], weekly: number, drift: number): number {
  let [level, variance, fit] = [0, VARIANCE_AT_FIRST, 0];
  let last = 0;
  for (const { off, weeks } of intervals) {
    variance += (drift ** 2 * (last + weeks)) / 2;
    last = weeks;
    const total = variance + weekly ** 2 / weeks;
    const miss = off - level;
    fit -= (Math.log(total) + miss ** 2 / total) / 2;
    const gain = variance / total;
    level += gain * miss;
    variance *= 1 - gain;
  }
  return fit;
}
