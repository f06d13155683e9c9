import { normal, type Random } from '../src/core/stats/seeded';

/* Simulated vehicles whose true use is known day by day: uneven weeks, duty that drifts, seasons. */

interface Duty {
  readonly kmPerDay: number;
  /** Standard deviation of one week's use, as a share of what is usual. */
  readonly weekly: number;
  /** How far usual use wanders in a week, as a share of it. */
  readonly drift: number;
  /** Swing of the seasons, as a share of usual use. */
  readonly season: number;
}

/** km at the end of each day from day 0 on, 0 first. The same random numbers give the same vehicle. */
export function drive({ kmPerDay, weekly, drift, season }: Duty, days: number, random: Random): Float64Array {
  const km = new Float64Array(days + 1);
  const sigma = Math.sqrt(Math.log(1 + weekly ** 2));
  let level = 0;
  let week = 1;
  for (let day = 1; day <= days; day++) {
    if (day % 7 === 1) {
      level += drift * normal(random);
      week = Math.exp(sigma * normal(random) - sigma ** 2 / 2);
    }
    const swing = 1 + season * Math.sin((2 * Math.PI * day) / 365);
    km[day] = (km[day - 1] ?? 0) + kmPerDay * Math.exp(level) * week * swing;
  }
  return km;
}

/** The first day on which so many km have been covered; null: not within the days driven. */
export function dayOf(km: Float64Array, covered: number): number | null {
  const day = km.findIndex((so) => so >= covered);
  return day < 0 ? null : day;
}
