import type { Km } from '../shared/kinds';
import { median, quantile, theilSen, Z_80 } from '../stats/theil-sen';
import { ASSUMED_DRIFT, ASSUMED_WEEKLY, spreadOfUse } from './spread';

/** One accepted odometer reading. */
export interface Reading {
  /** Days since any fixed day. */
  readonly day: number;
  readonly km: Km;
}

/** In order of day, and of figure within a day. */
export const byDay = (a: Reading, b: Reading): number => a.day - b.day || a.km - b.km;

export interface UseRate {
  readonly kmPerDay: number;
  /** Number of readings behind it; 0 when borrowed. */
  readonly used: number;
  /** The vehicle's own readings do not tell: this is its duty group's rate. */
  readonly borrowed: boolean;
  /** Standard deviation of the logarithm of one week's use. */
  readonly weeklySpread: number;
  /** The same of how far usual use wanders in a week. */
  readonly drift: number;
  /** Days that its readings cover; 0 when borrowed. */
  readonly observedDays: number;
  /** Standard deviation of the logarithm of the rates of the group it is borrowed from; 0 when its own. */
  readonly groupSpread: number;
}

/** A rate of the vehicle's own readings. */
interface OwnRate extends UseRate {
  /** Sen's 80 % interval of the slope, km a day. Not the band of a date: readings of a sum are not independent. */
  readonly ci80: readonly [number, number];
}

/** Rates of the other vehicles in the duty group. */
export interface GroupRate {
  readonly medianKmPerDay: number;
  readonly p10KmPerDay: number;
  readonly p90KmPerDay: number;
}

export const WINDOW_DAYS = 180;
const MIN_READINGS = 3;
const MIN_SPAN_DAYS = 14;
/** Where the window holds too few, it reaches back for the last three, and so far at most, days. */
export const WIDEST_WINDOW_DAYS = 730;
/** Spread taken for a borrowed rate when only the group's middle is known. */
const ASSUMED_SPREAD = 0.5;

/**
 * Distance a vehicle covers a day, by the Theil–Sen slope of its last 180 days of accepted readings.
 *
 * @param readings any order; the window ends at the latest
 * @returns null where its readings cannot tell (under 3, or under 14 days apart); never below 0; not rounded
 *
 * Source: Sen (1968), see `theilSen`.
 */
export const ownRate = (readings: readonly Reading[]): OwnRate | null => rateOf(inWindow(readings));

/**
 * The same for a vehicle that is read seldom: its window widens, to two years at most, until it holds three readings.
 *
 * @param readings any order
 */
export function ownRateOfFew(readings: readonly Reading[]): OwnRate | null {
  const recent = inWindow(readings);
  if (recent.length >= MIN_READINGS) return rateOf(recent);
  const last = [...readings].sort(byDay).slice(-MIN_READINGS);
  const [first, end] = [last[0], last.at(-1)];
  return first && end && end.day - first.day <= WIDEST_WINDOW_DAYS ? rateOf(last) : null;
}

function rateOf(recent: readonly Reading[]): OwnRate | null {
  const days = recent.map((r) => r.day);
  const span = Math.max(...days) - Math.min(...days);
  if (recent.length < MIN_READINGS || span < MIN_SPAN_DAYS) return null;
  const fit = theilSen(
    days,
    recent.map((r) => r.km),
  );
  if (!fit) return null;
  const ci80 = [Math.max(0, fit.ci80[0]), Math.max(0, fit.ci80[1])] as const;
  const kmPerDay = Math.max(0, fit.slope);
  const { weekly, drift } =
    kmPerDay > 0 ? spreadOfUse([...recent].sort(byDay), kmPerDay) : { weekly: ASSUMED_WEEKLY, drift: ASSUMED_DRIFT };
  return {
    kmPerDay,
    ci80,
    used: recent.length,
    borrowed: false,
    weeklySpread: weekly,
    drift,
    observedDays: span,
    groupSpread: 0,
  };
}

/** The rate to work with: the vehicle's own, or its duty group's where it has none. @returns null where neither can tell */
export const effectiveRate = (ofVehicle: UseRate | null, group: GroupRate | null): UseRate | null =>
  ofVehicle ?? (group ? borrow(group) : null);

function inWindow(readings: readonly Reading[]): readonly Reading[] {
  const last = readings.reduce((latest, r) => Math.max(latest, r.day), Number.NEGATIVE_INFINITY);
  return readings.filter((r) => r.day >= last - WINDOW_DAYS);
}

const borrow = ({ medianKmPerDay, p10KmPerDay, p90KmPerDay }: GroupRate): UseRate => ({
  kmPerDay: medianKmPerDay,
  used: 0,
  borrowed: true,
  weeklySpread: ASSUMED_WEEKLY,
  drift: ASSUMED_DRIFT,
  observedDays: 0,
  groupSpread: p10KmPerDay > 0 ? Math.log(p90KmPerDay / p10KmPerDay) / (2 * Z_80) : 1,
});

/** A group of which only a middle is known. */
export const groupAround = (kmPerDay: number): GroupRate => ({
  medianKmPerDay: kmPerDay,
  p10KmPerDay: kmPerDay * (1 - ASSUMED_SPREAD),
  p90KmPerDay: kmPerDay * (1 + ASSUMED_SPREAD),
});

/** @param kmPerDay own rates of the vehicles of one duty group @returns null for none */
export function groupRate(kmPerDay: readonly number[]): GroupRate | null {
  if (kmPerDay.length === 0) return null;
  if (kmPerDay.length < MIN_READINGS) return groupAround(median([...kmPerDay].sort((a, b) => a - b)));
  const sorted = [...kmPerDay].sort((a, b) => a - b);
  return { medianKmPerDay: median(sorted), p10KmPerDay: quantile(sorted, 0.1), p90KmPerDay: quantile(sorted, 0.9) };
}

/** Most that any vehicle of ours can cover a day, km. */
export const MAX_KM_PER_DAY = 1500;
