import { addDays, type PlainDate } from '../calendar/plain-date';
import { type GroupRate, settledRate, type UseRate } from '../odometer/use-rate';
import { pressureOf } from '../reliability/pressure';
import type { LifeModel } from '../reliability/weibull';
import {
  type DueDates,
  type DueState,
  dueState,
  type Limits,
  type Odometer,
  type SiteClock,
  type WorstSite,
  worstSite,
} from './due';

/** What is recorded of a vehicle's component group. */
export interface Recorded {
  readonly matched: boolean;
  readonly odometer: Odometer | null;
  readonly ownRate: UseRate | null;
  readonly limits: Limits;
  readonly clocks: readonly SiteClock[];
  /** A person moved its due date to this day. */
  readonly deferredUntil: PlainDate | null;
}

export interface Money {
  /** Of a failure on the road, for this vehicle. */
  readonly failureCost: number;
  readonly wearCostPerPercent: number;
}

export interface Standing {
  readonly state: DueState;
  readonly worst: WorstSite | null;
  /** The due dates to work by: those of the worst site, unless a person moved them. */
  readonly dates: DueDates | null;
  readonly rate: UseRate | null;
  /** Life used by the worst site in 7 and in 28 days. */
  readonly lifeIn7: number | null;
  readonly lifeIn28: number | null;
  /** Money a week if the work waits; null where life is not known. */
  readonly pressure: number | null;
}

/** Where a vehicle stands on a day: band, life, where it is heading, and what it costs to wait. */
export function standingOf(
  recorded: Recorded,
  group: GroupRate | null,
  money: Money,
  model: LifeModel,
  today: PlainDate,
): Standing {
  const rate = settledRate(recorded.ownRate, group);
  const on = (day: PlainDate): WorstSite | null => worstOn(recorded, rate, day);
  const worst = on(today);
  const state = !recorded.matched
    ? 'no-match'
    : worst
      ? dueState(worst.due, worst.site.certainty, today)
      : 'no-odometer';
  if (!worst) return { state, worst, dates: null, rate, lifeIn7: null, lifeIn28: null, pressure: null };
  const lifeIn7 = on(addDays(today, 7))?.due.lifeUsed ?? worst.due.lifeUsed;
  const lifeIn28 = on(addDays(today, 28))?.due.lifeUsed ?? worst.due.lifeUsed;
  const pressure = pressureFor(recorded, worst, lifeIn7, money, model).total;
  return { ...deferred(state, worst.due.due, recorded.deferredUntil, today), worst, rate, lifeIn7, lifeIn28, pressure };
}

/** A deferral moves the date that is worked by, and nothing else: life and pressure go on. It never brings work forward. */
function deferred(
  state: DueState,
  dates: DueDates | null,
  until: PlainDate | null,
  today: PlainDate,
): Pick<Standing, 'state' | 'dates'> {
  const asked = state === 'past' || state === 'soon' || state === 'inspect';
  if (until === null || until <= today || !asked || (dates && dates.p50 >= until)) return { state, dates };
  return { state: 'deferred', dates: { p10: until, p50: until, p90: until } };
}

/**
 * The parts of one vehicle's pressure. Life counts against the full limit, whatever the school: a plug does not wear
 * faster because it is to be changed early. Life that is only assumed counts as at the limit at most, since nobody knows
 * that it is past it.
 */
export function pressureFor(
  { limits }: Pick<Recorded, 'limits'>,
  worst: WorstSite,
  lifeIn7: number,
  money: Money,
  model: LifeModel,
) {
  const share = limits.share ?? 1;
  const full = worst.due.lifeUsed * share;
  return pressureOf({
    lifeUsed: worst.site.certainty === 'assumed' ? Math.min(1, full) : full,
    weeklyLife: (lifeIn7 - worst.due.lifeUsed) * share,
    ...money,
    model,
  });
}

function worstOn(recorded: Recorded, rate: UseRate | null, today: PlainDate): WorstSite | null {
  const { matched, odometer, limits, clocks } = recorded;
  if (!matched || odometer === null) return null;
  if (limits.distanceKm == null && limits.months == null) return null;
  return worstSite(clocks, { today, odometer, rate, limits });
}
