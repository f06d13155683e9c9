import { addDays, type PlainDate } from '../calendar/plain-date';
import { effectiveRate, type GroupRate, type UseRate } from '../odometer/use-rate';
import { type PressureInput, pressureOf } from '../reliability/pressure';
import type { LifeModel } from '../reliability/weibull';
import {
  type Certainty,
  type DueDates,
  type DueState,
  dueState,
  type HourMeter,
  type Limits,
  type Odometer,
  type SiteClock,
  type WorstSite,
  worstSite,
} from './due';
import type { Forecast } from './forecast';

/** What is recorded of one component of a vehicle. */
export interface Recorded {
  readonly matched: boolean;
  readonly odometer: Odometer | null;
  readonly ownRate: UseRate | null;
  readonly limits: Limits;
  readonly clocks: readonly SiteClock[];
  /** Null: the engine has no hour meter, or nobody reads it. */
  readonly meter: HourMeter | null;
  readonly deferral: Deferral | null;
  /** The vehicle's own service reminder has been on since then; null: it is off, or speaks of another component. */
  readonly reminderOn: PlainDate | null;
  readonly forecast: Forecast;
}

/** Why the work is not asked for now: a person moved its date, or another fault is to be mended first. */
interface Deferral {
  /** The day before which it is not asked for; null: nobody can say when the fault will be mended. */
  readonly until: PlainDate | null;
  readonly fault: string | null;
}

interface Money {
  /** Of a failure on the road, for this vehicle. */
  readonly failureCost: number;
  readonly wearCostPerPercent: number;
}

export interface DueStatus {
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
export function computeDueStatus(
  recorded: Recorded,
  group: GroupRate | null,
  money: Money,
  model: LifeModel,
  today: PlainDate,
): DueStatus {
  const rate = effectiveRate(recorded.ownRate, group);
  const on = (day: PlainDate): WorstSite | null => worstOn(recorded, rate, day);
  const worst = on(today);
  const known = worst ? dueState(worst.due, worst.site.certainty, today) : nothingDates(recorded);
  const state = recorded.matched ? known : 'no-match';
  if (!worst) return { state, worst, dates: null, rate, lifeIn7: null, lifeIn28: null, pressure: null };
  const lifeIn7 = on(addDays(today, 7))?.due.lifeUsed ?? worst.due.lifeUsed;
  const lifeIn28 = on(addDays(today, 28))?.due.lifeUsed ?? worst.due.lifeUsed;
  const pressure = pressureFor(recorded, worst, lifeIn7, money, model).total;
  const asked = reminded(state, worst.due.due, recorded.reminderOn);
  return { ...deferred(asked.state, asked.dates, recorded.deferral, today), worst, rate, lifeIn7, lifeIn28, pressure };
}

/** Its own reminder asks for the work from the day it came on, unless a limit was there before it. It may be deferred like any. */
function reminded(
  state: DueState,
  dates: DueDates | null,
  reminderOn: PlainDate | null,
): Pick<DueStatus, 'state' | 'dates'> {
  const quiet = state === 'later' || state === 'soon' || state === 'no-date';
  if (reminderOn === null || !quiet || (dates && dates.p50 <= reminderOn)) return { state, dates };
  return { state: 'soon', dates: { p10: reminderOn, p50: reminderOn, p90: reminderOn } };
}

/** Without a reading nothing can be dated; without an interval nothing is: such a part is changed on failure. */
const nothingDates = ({ odometer }: Recorded): DueState => (odometer === null ? 'no-odometer' : 'no-date');

/**
 * A deferral moves the date that is worked by, and nothing else: life and pressure go on. It never brings work forward. A
 * deferral ends with its day; another fault blocks the work until someone says that it is mended, even past the day that
 * was expected.
 */
function deferred(
  state: DueState,
  dates: DueDates | null,
  deferral: Deferral | null,
  today: PlainDate,
): Pick<DueStatus, 'state' | 'dates'> {
  const asked = state === 'past' || state === 'soon' || state === 'inspect';
  if (deferral === null || !asked) return { state, dates };
  const { until } = deferral;
  const later = until !== null && until > today && !(dates && dates.p50 >= until);
  const moved = later ? { p10: until, p50: until, p90: until } : dates;
  if (deferral.fault !== null) return { state: 'blocked', dates: moved };
  return later ? { state: 'deferred', dates: moved } : { state, dates };
}

/**
 * The parts of one vehicle's pressure. Life counts against the full limit, whatever the option: a plug does not wear
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
  return pressureOf({
    ...lifeForPressure({ ...worst.due, lifeIn7, share: limits.share ?? 1, certainty: worst.site.certainty }),
    ...money,
    model,
  });
}

/** What service pressure counts of a life: of the full limit, and of one that is only assumed at most up to the limit. */
export function lifeForPressure({
  lifeUsed,
  lifeIn7,
  share,
  certainty,
}: {
  readonly lifeUsed: number;
  readonly lifeIn7: number;
  /** Of the full limit that the option in force asks for. */
  readonly share: number;
  readonly certainty: Certainty | null;
}): Pick<PressureInput, 'lifeUsed' | 'weeklyLife' | 'mostLife'> {
  const mostLife = certainty === 'assumed' ? 1 : null;
  return {
    lifeUsed: Math.min(mostLife ?? Number.POSITIVE_INFINITY, lifeUsed * share),
    weeklyLife: (lifeIn7 - lifeUsed) * share,
    mostLife,
  };
}

function worstOn(recorded: Recorded, rate: UseRate | null, today: PlainDate): WorstSite | null {
  const { matched, odometer, limits, clocks, meter, forecast } = recorded;
  if (!matched || odometer === null) return null;
  // Without an interval only what somebody found good for so much more has an end.
  const ends = limits.distanceKm != null || limits.months != null;
  const dated = ends ? clocks : clocks.filter(({ installed }) => installed.good);
  return worstSite(dated, { today, odometer, rate, limits, meter, forecast });
}
