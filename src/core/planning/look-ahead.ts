import { expectedExcess, normalBelow } from '../stats/normal';
import { Z_80 } from '../stats/theil-sen';

/* Where hours run out, month by month: what falls due against what bays and people can take, with the spread. */

/** Of a depot in a month, minutes. */
interface MonthWork {
  readonly mean: number;
  readonly variance: number;
}

export interface MonthHours {
  /** Minutes that bays are open. */
  readonly bays: number;
  /** Minutes that people are there. */
  readonly people: number;
}

export interface MonthAhead {
  /** Work that falls due, minutes. */
  readonly mean: number;
  readonly p10: number;
  readonly p90: number;
  /** What is left of the months before, on average. */
  readonly carried: number;
  /** The fewer of bays and people. */
  readonly hours: number;
  /** Which of them runs out first. */
  readonly binds: 'bays' | 'people';
  /** Chance that hours run out. */
  readonly chance: number;
  /** Minutes of work that are expected to be left at its end. */
  readonly left: number;
  /** What waiting costs because of them, in the month after. */
  readonly cost: number;
}

const WEEKS_A_MONTH = 365.25 / 12 / 7;

/**
 * Months of a depot, one after the other: what one does not get done is carried into the next.
 *
 * @param pressurePerMinute service pressure of due work, money a week for each minute of bay time that it waits for
 */
export function lookAhead(
  work: readonly MonthWork[],
  hours: readonly MonthHours[],
  pressurePerMinute: number,
): readonly MonthAhead[] {
  let carried = 0;
  return work.map(({ mean, variance }, i) => {
    const { bays, people } = hours[i] ?? { bays: 0, people: 0 };
    const can = Math.min(bays, people);
    const sd = Math.sqrt(variance);
    const before = carried;
    carried = expectedExcess(before + mean, sd, can);
    const isSure = sd <= 0;
    const chance = isSure ? Number(before + mean > can) : normalBelow((before + mean - can) / sd);
    return {
      mean,
      p10: Math.max(0, mean - Z_80 * sd),
      p90: mean + Z_80 * sd,
      carried: before,
      hours: can,
      binds: people < bays ? 'people' : 'bays',
      chance,
      left: carried,
      cost: carried * pressurePerMinute * WEEKS_A_MONTH,
    };
  });
}

/** What all months together cost by waiting for hours. */
export const waitingCost = (months: readonly MonthAhead[]): number => months.reduce((sum, { cost }) => sum + cost, 0);

/** With so many minutes more of bays, or of people, in each month. */
export const withMore = (hours: readonly MonthHours[], more: readonly Partial<MonthHours>[]): readonly MonthHours[] =>
  hours.map(({ bays, people }, i) => ({
    bays: bays + (more[i]?.bays ?? 0),
    people: people + (more[i]?.people ?? 0),
  }));
