import type { UseRate } from '../odometer/use-rate';
import { Z_80 } from '../stats/theil-sen';

/* How far off the day may be on which a distance will have been covered. Use is taken as lognormal, week by week; what is usual
   for a vehicle drifts as its duty does. The band comes from four things: how uneven weeks are, how long the vehicle was watched,
   how far duty drifts, and how far forecasts of this fleet's own past were off. */

/** What past forecasts of a duty group taught; `ASSUMED_FORECAST` before there are any. */
export interface Forecast {
  /** By how much more than its own readings tell usual use of such a vehicle wanders in a week: seasons, and duty that changes. */
  readonly drift: number;
  /** The band is so much wider than reckoned, so that it holds 80 %. */
  readonly scale: number;
}

/** As long as no forecast has been held against what came. */
export const ASSUMED_FORECAST: Forecast = { drift: 0, scale: 1 };
/** Theil–Sen on a running sum is less sure than its two ends by so much. Source: 6/5, as for least squares on a random walk. */
const SLOPE_ON_A_SUM = 1.2;
/**
 * Several spreads of a vehicle are likely at once: what holds 80 % of all of them is narrower than their mean variance says.
 * Source: bench/due-band.ts.
 */
const OF_MEAN = 0.9;
const WEEK = 7;
/** More than this says nothing any more. */
const WIDEST = 1.6;

/**
 * Standard deviation of the logarithm of the days that a distance takes.
 *
 * @param days that it takes at the rate, from the last reading, above 0
 */
export function logSpread(rate: UseRate, days: number, { drift, scale }: Forecast): number {
  const weekly = rate.weeklySpread ** 2 * WEEK;
  const watched = rate.observedDays > 0 ? (SLOPE_ON_A_SUM * weekly) / rate.observedDays : 0;
  const wander = ((drift ** 2 + rate.drift ** 2) * (rate.observedDays + days)) / WEEK / 3;
  const variance = watched + rate.groupSpread ** 2 + wander + weekly / Math.max(1, days);
  return Math.min(WIDEST, scale * OF_MEAN * Math.sqrt(variance));
}

/** Days from the last reading, the earliest and the latest likely ones. @param days at the rate; below 0: so long ago */
export function band(rate: UseRate, days: number, forecast: Forecast): readonly [number, number] {
  if (days === 0) return [0, 0];
  const wide = Math.exp(Z_80 * logSpread(rate, Math.abs(days), forecast));
  return days > 0 ? [days / wide, days * wide] : [days * wide, days / wide];
}
