import type { Km } from '../shared/kinds';
import { median, quantile, theilSen } from '../stats/theil-sen';

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
  /** 80 % interval, km a day. */
  readonly ci80: readonly [number, number];
  /** Number of readings behind it; 0 when borrowed. */
  readonly used: number;
  /** The vehicle's own readings do not tell: this is its duty group's rate. */
  readonly borrowed: boolean;
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
/** Up to this many readings, the group's spread widens the interval. */
export const FEW_READINGS = 5;
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
export function ownRate(readings: readonly Reading[]): UseRate | null {
  const recent = inWindow(readings);
  const days = recent.map((r) => r.day);
  const span = Math.max(...days) - Math.min(...days);
  if (recent.length < MIN_READINGS || span < MIN_SPAN_DAYS) return null;
  const fit = theilSen(
    days,
    recent.map((r) => r.km),
  );
  if (!fit) return null;
  const ci80 = [Math.max(0, fit.ci80[0]), Math.max(0, fit.ci80[1])] as const;
  return { kmPerDay: Math.max(0, fit.slope), ci80, used: recent.length, borrowed: false };
}

/**
 * The rate to work with: the vehicle's own, widened by its duty group's spread where it rests on 3 to 5 readings, or the
 * group's where it has none. @returns null where neither can tell
 */
export function effectiveRate(own: UseRate | null, group: GroupRate | null): UseRate | null {
  if (!own) return group ? borrow(group) : null;
  return own.used <= FEW_READINGS && group ? { ...own, ci80: widen(own.kmPerDay, own.ci80, group) } : own;
}

function inWindow(readings: readonly Reading[]): readonly Reading[] {
  const last = readings.reduce((latest, r) => Math.max(latest, r.day), Number.NEGATIVE_INFINITY);
  return readings.filter((r) => r.day >= last - WINDOW_DAYS);
}

const borrow = (group: GroupRate): UseRate => ({
  kmPerDay: group.medianKmPerDay,
  ci80: [group.p10KmPerDay, group.p90KmPerDay],
  used: 0,
  borrowed: true,
});

function widen(rate: number, [lo, hi]: readonly [number, number], group: GroupRate): readonly [number, number] {
  if (group.medianKmPerDay <= 0) return [lo, hi];
  const share = (bound: number): number => (rate * bound) / group.medianKmPerDay;
  return [Math.min(lo, share(group.p10KmPerDay)), Math.max(hi, share(group.p90KmPerDay))];
}

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
