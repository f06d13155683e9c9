import { addDays, daysBetween, mondayOf, type PlainDate } from '../calendar/plain-date';
import { Z_80 } from '../stats/theil-sen';
import type { DueDates } from './due';

/** One coming visit of a vehicle. */
export interface ComingWork {
  readonly due: DueDates;
  readonly minutes: number;
}

export interface HorizonWeek {
  /** Monday; the first week also holds all that is due before it. */
  readonly from: PlainDate;
  /** How many visits are expected to fall due. */
  readonly visits: number;
  /** Bay time that falls due, minutes. */
  readonly p10: number;
  readonly mean: number;
  readonly p90: number;
}

/**
 * Work falling due by week, with its uncertainty. Each visit's due day is spread over its P10–P50–P90; what is due
 * already falls into the first week. Visits are taken as independent: the week's sum is near normal, its variance the
 * sum of theirs.
 *
 * @param weeks how many, from the week of `today` on
 */
export function horizon(work: readonly ComingWork[], today: PlainDate, weeks: number): readonly HorizonWeek[] {
  const monday = mondayOf(today);
  const ends = Array.from({ length: weeks }, (_, i) => addDays(monday, 7 * (i + 1) - 1));
  return fallingDue(work, ends).map(({ visits, mean, variance }, i) => {
    const spread = Z_80 * Math.sqrt(variance);
    return {
      from: addDays(monday, 7 * i),
      visits,
      mean,
      p10: Math.max(0, mean - spread),
      p90: mean + spread,
    };
  });
}

/** Work that falls due in a period: how many visits are expected, and their bay time in minutes with its variance. */
interface FallingDue {
  readonly visits: number;
  readonly mean: number;
  readonly variance: number;
}

/** The same by any periods that follow each other. @param ends the last day of each; the first holds all before it */
export function fallingDue(work: readonly ComingWork[], ends: readonly PlainDate[]): readonly FallingDue[] {
  const sums = ends.map(() => ({ visits: 0, mean: 0, variance: 0 }));
  for (const { due, minutes } of work) {
    let before = 0;
    for (const [i, sum] of sums.entries()) {
      const by = chanceDueBy(due, ends[i] ?? due.p90);
      const chance = by - before;
      before = by;
      sum.visits += chance;
      sum.mean += chance * minutes;
      sum.variance += chance * (1 - chance) * minutes * minutes;
    }
  }
  return sums;
}

/**
 * Chance that a vehicle falls due on or before a day: straight lines through P10, P50 and P90, carried on at the outer
 * slopes until 0 and 1.
 */
export function chanceDueBy({ p10, p50, p90 }: DueDates, day: PlainDate): number {
  const [early, late] = [daysBetween(p10, p50), daysBetween(p50, p90)];
  const at = daysBetween(p50, day);
  if (at === 0) return 0.5 + (late === 0 ? 0.5 : 0);
  const width = at < 0 ? early : late;
  if (width === 0) return at < 0 ? 0 : 1;
  return Math.min(1, Math.max(0, 0.5 + (0.4 * at) / width));
}
