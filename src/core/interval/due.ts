import { addDays, addMonths, daysBetween, type PlainDate } from '../calendar/plain-date';
import type { UseRate } from '../odometer/use-rate';

/** What limits the life of a component. At least one of the two. */
export interface Limits {
  readonly distanceKm?: number | null;
  readonly months?: number | null;
  /** School of *early change*: the share of each limit at which it counts as due, in (0, 1]. 1 is *to the limit*. */
  readonly share?: number;
}

/** How sure a recorded figure is. `assumed`: nothing is known, taken as fitted when the vehicle was new. */
export const CERTAINTIES = ['exact', 'estimated', 'assumed'] as const;
export type Certainty = (typeof CERTAINTIES)[number];

export interface Installed {
  readonly on: PlainDate;
  readonly km: number;
}

/** Where the vehicle's odometer stands, from its last accepted reading. */
export interface Odometer {
  readonly on: PlainDate;
  readonly km: number;
}

export type Binding = 'distance' | 'time';

export interface DueDates {
  readonly p10: PlainDate;
  readonly p50: PlainDate;
  readonly p90: PlainDate;
}

export interface Due {
  readonly odometerNowKm: number;
  /** Share of the binding limit used, 1 at the limit; not rounded, may pass 1. */
  readonly lifeUsed: number;
  readonly binds: Binding;
  /** Null when nothing can date it: no time limit, and the vehicle stands still. */
  readonly due: DueDates | null;
}

export interface DueInput {
  readonly today: PlainDate;
  readonly odometer: Odometer;
  readonly rate: UseRate | null;
  readonly installed: Installed;
  readonly limits: Limits;
}

/** Beyond this a date says nothing; it is shown as the far end. */
const FARTHEST_DAYS = 36_525;

/**
 * Life used and due date of one component at one site.
 *
 * Life used is the greatest of distance over its limit and months over theirs. The due date is today plus the
 * remaining distance over the rate; P10 (earliest likely) and P90 come from the rate's 80 % interval; the time limit
 * caps all three.
 *
 * @throws RangeError when neither limit is given or one is not above 0: a caller's mistake
 */
export function due(input: DueInput): Due {
  const { today, odometer, rate, installed } = input;
  const limits = effectiveLimits(input.limits);
  const odometerNowKm = projectedOdometer(odometer, rate, today);
  const byDistance = limits.km === null ? null : Math.max(0, odometerNowKm - installed.km) / limits.km;
  const timeLimit = limits.months === null ? null : addPartMonths(installed.on, limits.months);
  const byTime =
    timeLimit === null
      ? null
      : Math.max(0, daysBetween(installed.on, today)) / Math.max(1, daysBetween(installed.on, timeLimit));
  const byDistanceDates =
    limits.km === null ? null : distanceDates(limits.km - (odometerNowKm - installed.km), rate, today, installed.on);
  const binds: Binding = byTime !== null && (byDistance === null || byTime > byDistance) ? 'time' : 'distance';
  return {
    odometerNowKm,
    lifeUsed: Math.max(byDistance ?? 0, byTime ?? 0),
    binds,
    due: capped(byDistanceDates, timeLimit),
  };
}

function effectiveLimits({ distanceKm, months, share = 1 }: Limits): { km: number | null; months: number | null } {
  if (distanceKm == null && months == null) throw new RangeError('due: no limit given');
  for (const limit of [distanceKm, months, share]) {
    if (limit != null && !(limit > 0 && Number.isFinite(limit)))
      throw new RangeError(`due: a limit must be above 0, got ${limit}`);
  }
  return { km: distanceKm == null ? null : distanceKm * share, months: months == null ? null : months * share };
}

/** The last reading carried on at the vehicle's rate; never carried backwards. */
export function projectedOdometer(odometer: Odometer, rate: UseRate | null, on: PlainDate): number {
  return odometer.km + (rate?.kmPerDay ?? 0) * Math.max(0, daysBetween(odometer.on, on));
}

function addPartMonths(from: PlainDate, months: number): PlainDate {
  const whole = addMonths(from, Math.floor(months));
  return addDays(whole, Math.round((months % 1) * 30.4375));
}

/** A limit already passed at standstill was passed by today; no limit was passed before the part was fitted. */
function distanceDates(
  remainingKm: number,
  rate: UseRate | null,
  today: PlainDate,
  fittedOn: PlainDate,
): DueDates | null {
  if (!rate || rate.kmPerDay <= 0) return remainingKm > 0 ? null : { p10: today, p50: today, p90: today };
  const least = Math.min(0, daysBetween(today, fittedOn));
  const days = (kmPerDay: number): number => {
    const exact = kmPerDay > 0 ? Math.floor(remainingKm / kmPerDay) : Math.sign(remainingKm) * FARTHEST_DAYS;
    return Math.max(least, Math.min(FARTHEST_DAYS, exact));
  };
  const [early, middle, late] = [days(rate.ci80[1]), days(rate.kmPerDay), days(rate.ci80[0])];
  const day = (offset: number): PlainDate => addDays(today, offset);
  return { p10: day(Math.min(early, late)), p50: day(middle), p90: day(Math.max(early, late)) };
}

function capped(dates: DueDates | null, cap: PlainDate | null): DueDates | null {
  if (!dates) return cap === null ? null : { p10: cap, p50: cap, p90: cap };
  if (cap === null) return dates;
  const least = (date: PlainDate): PlainDate => (date < cap ? date : cap);
  return { p10: least(dates.p10), p50: least(dates.p50), p90: least(dates.p90) };
}

/** A site's own clock. */
export interface SiteClock {
  readonly cylinder: number;
  readonly position: string;
  readonly installed: Installed;
  readonly certainty: Certainty;
}

export interface WorstSite {
  readonly site: SiteClock;
  readonly due: Due;
}

/** The worst site speaks for its component group. @returns null for no site */
export function worstSite(sites: readonly SiteClock[], rest: Omit<DueInput, 'installed'>): WorstSite | null {
  let worst: WorstSite | null = null;
  for (const site of sites) {
    const found = due({ ...rest, installed: site.installed });
    if (!worst || found.lifeUsed > worst.due.lifeUsed) worst = { site, due: found };
  }
  return worst;
}

export const DUE_STATES = [
  'past',
  'soon',
  'later',
  'inspect',
  'deferred',
  'no-match',
  'no-odometer',
  'no-date',
] as const;
/**
 * past: over a limit; soon: due within `SOON_DAYS`; inspect: life is only assumed, so it cannot be called overdue;
 * deferred: a person moved its due date; no-match: no firm spec; no-odometer: no accepted reading; no-date: nothing dates it.
 */
export type DueState = (typeof DUE_STATES)[number];

export const SOON_DAYS = 28;

/** The band a component group stands in. */
export function dueState({ lifeUsed, due: dates }: Due, certainty: Certainty, today: PlainDate): DueState {
  if (certainty === 'assumed' && (lifeUsed >= 1 || (dates && dates.p50 <= addDays(today, SOON_DAYS)))) return 'inspect';
  if (lifeUsed >= 1) return 'past';
  if (!dates) return 'no-date';
  return dates.p50 <= addDays(today, SOON_DAYS) ? 'soon' : 'later';
}
