/* How unevenly a vehicle is used: an odometer is a running sum, so that its readings tell of the weeks between them, and never of
   each other. */

/** Standard deviation of the logarithm of one week's use, before a vehicle has shown its own. Source: the fleet's choice. */
export const ASSUMED_WEEKLY = 0.4;
/** So many intervals between readings weigh as much as what is assumed. */
const WEIGHT_OF_ASSUMED = 8;
/** One interval that says more than this is a holiday or a mistake, and counts as this. */
const FARTHEST = 1.5;
const WEEK = 7;

/**
 * Standard deviation of the logarithm of a week's use, from the use between readings, each weighed by the weeks it covers and
 * drawn towards what is assumed where there are few.
 *
 * @param readings in order of day @param kmPerDay the vehicle's rate, above 0
 */
export function weeklySpread(
  readings: readonly { readonly day: number; readonly km: number }[],
  kmPerDay: number,
): number {
  let sum = 0;
  let count = 0;
  for (const [i, { day, km }] of readings.entries()) {
    const before = readings[i - 1];
    if (!before || day <= before.day) continue;
    const days = day - before.day;
    const off = Math.log(Math.max((km - before.km) / days, 1e-9) / kmPerDay);
    const most = Math.min(FARTHEST, Math.max(-FARTHEST, off));
    sum += (most * most * days) / WEEK;
    count++;
  }
  const free = Math.max(0, count - 1);
  const own = count === 0 ? 0 : (sum / count) * (free > 0 ? count / free : 1);
  return Math.sqrt((WEIGHT_OF_ASSUMED * ASSUMED_WEEKLY ** 2 + free * own) / (WEIGHT_OF_ASSUMED + free));
}
