import { addDays, addMonths, daysBetween, type PlainDate } from '../calendar/plain-date';
import type { UseRate } from '../odometer/use-rate';
import type { Km } from '../shared/kinds';
import { ASSUMED_FORECAST, band, type Forecast } from './forecast';

/** What limits the life of a component. At least one of the two. */
export interface Limits {
  readonly distanceKm?: Km | null;
  readonly months?: number | null;
  /** Early change by policy: the share of each limit at which it counts as due, in (0, 1]. 1 is *to the limit*. */
  readonly share?: number;
}

/** How sure a recorded figure is. `assumed`: nothing is known, taken as fitted when the vehicle was new. */
export const CERTAINTIES = ['exact', 'estimated', 'assumed'] as const;
export type Certainty = (typeof CERTAINTIES)[number];

export interface Installed {
  readonly on: PlainDate;
  readonly km: Km;
  /** What the hour meter showed then; null or missing: not known, or the engine has none. */
  readonly hours?: number | null;
  /** Looked at while it stayed in, and found good for so much more: from then on this counts. */
  readonly good?: Good | null;
}

/** What an inspection said of a part that stayed in. */
interface Good {
  readonly on: PlainDate;
  /** Odometer on that day, km. */
  readonly km: Km;
  readonly forKm: Km;
}

/**
 * When a part would have been fitted for it to be at its limit where an inspection said that it will be. What it was before
 * that day no longer counts, its hours neither: nobody knows what they were worth.
 */
function countedFrom(
  installed: Installed,
  limits: { readonly km: Km | null; readonly months: number | null },
): Installed {
  const { good } = installed;
  if (!good) return installed;
  const limitKm = limits.km ?? good.forKm;
  const used = Math.max(0, 1 - good.forKm / limitKm);
  const on = limits.months === null ? good.on : addPartMonths(good.on, -used * limits.months);
  return { on, km: good.km + good.forKm - limitKm, hours: null };
}

/** An engine whose hours are metered: idling wears plugs and covers no distance. */
export interface HourMeter {
  readonly on: PlainDate;
  readonly hours: number;
  /** Distance that an hour counts as at least, km. A policy of the shop. */
  readonly kmPerHour: number;
  /** Hours a day as that distance, km a day; null where the readings cannot tell. */
  readonly rate: UseRate | null;
}

/** Where the vehicle's odometer stands, from its last accepted reading. */
export interface Odometer {
  readonly on: PlainDate;
  readonly km: Km;
}

/** `hours`: engine hours, counted as distance, are more than what was driven. */
const BINDINGS = ['distance', 'hours', 'time'] as const;
export type Binding = (typeof BINDINGS)[number];

export interface DueDates {
  readonly p10: PlainDate;
  readonly p50: PlainDate;
  readonly p90: PlainDate;
}

interface Due {
  readonly odometerNowKm: Km;
  /** Share of the binding limit used, 1 at the limit; not rounded, may pass 1. */
  readonly lifeUsed: number;
  /** The limit of which most is used. */
  readonly binds: Binding;
  /** The limit whose date is given; it may be another, as a limit of time can come first with less of it used. */
  readonly datedBy: Binding | null;
  /** Null when nothing can date it: no time limit, and the vehicle stands still. */
  readonly due: DueDates | null;
}

export interface DueInput {
  readonly today: PlainDate;
  readonly odometer: Odometer;
  readonly rate: UseRate | null;
  readonly installed: Installed;
  readonly limits: Limits;
  readonly meter?: HourMeter | null;
  /** What past forecasts taught; left out: assumed. */
  readonly forecast?: Forecast;
}

/** Beyond this a date says nothing; it is shown as the far end. */
const FARTHEST_DAYS = 36_525;

/**
 * Life used and due date of one component at one site.
 *
 * Life used is the greatest of distance over its limit, engine hours as distance over the same, and months over theirs.
 * Each due date is that of the last reading plus the distance left then over the rate, whichever of distance and hours comes
 * first; P10 (earliest likely) and P90 are the ends of an 80 % band, see `band`; the time limit caps all three.
 *
 * @throws RangeError when neither limit is given or one is not above 0: a caller's mistake
 */
export function due(given: DueInput): Due {
  const limits = effectiveLimits(withGood(given.limits, given.installed));
  const input = { ...given, installed: countedFrom(given.installed, limits) };
  const { today, odometer, rate, installed } = input;
  const odometerNowKm = projectedOdometer(odometer, rate, today);
  const driven = wear(limits.km, odometerNowKm - installed.km, rate, odometer.on, input);
  const ran = hoursAsDistance(input);
  const run = ran === null ? null : wear(limits.km, ran.km, ran.rate, ran.on, input);
  const timeLimit = limits.months === null ? null : addPartMonths(installed.on, limits.months);
  const byTime =
    timeLimit === null
      ? 0
      : Math.max(0, daysBetween(installed.on, today)) / Math.max(1, daysBetween(installed.on, timeLimit));
  const lives = [
    ['distance', driven?.used ?? -1],
    ['hours', run?.used ?? -1],
    ['time', timeLimit === null ? -1 : byTime],
  ] as const;
  const [binds, lifeUsed] = lives.reduce((most, next) => (next[1] > most[1] ? next : most));
  const dates = capped(first(driven?.dates, run?.dates), timeLimit);
  const days = { distance: driven?.dates?.p50, hours: run?.dates?.p50, time: timeLimit };
  const givers = BINDINGS.filter((by) => dates && days[by] === dates.p50);
  const datedBy = givers.includes(binds) ? binds : (givers[0] ?? null);
  return { odometerNowKm, lifeUsed, binds, datedBy, due: dates };
}

interface Wear {
  readonly used: number;
  readonly dates: DueDates | null;
}

/** What so many km since the fitting, up to today, have used of a limit of distance, and when the rest will be gone. */
function wear(limitKm: Km | null, km: Km, rate: UseRate | null, readOn: PlainDate, input: DueInput): Wear | null {
  if (limitKm === null) return null;
  return { used: Math.max(0, km) / limitKm, dates: distanceDates(limitKm - km, rate, readOn, input) };
}

/** Engine hours since the fitting as distance, km, up to today; null where they are not metered or were not then. */
export function hoursAsDistance({ today, installed, meter }: Pick<DueInput, 'today' | 'installed' | 'meter'>): {
  readonly km: Km;
  readonly rate: UseRate | null;
  readonly on: PlainDate;
} | null {
  if (!meter || installed.hours == null) return null;
  const now = projectedOdometer({ on: meter.on, km: meter.hours * meter.kmPerHour }, meter.rate, today);
  return { km: now - installed.hours * meter.kmPerHour, rate: meter.rate, on: meter.on };
}

/** The earlier of two, percentile by percentile. */
function first(a: DueDates | null | undefined, b: DueDates | null | undefined): DueDates | null {
  if (!a || !b) return a ?? b ?? null;
  const least = (key: keyof DueDates): PlainDate => (a[key] < b[key] ? a[key] : b[key]);
  return { p10: least('p10'), p50: least('p50'), p90: least('p90') };
}

function effectiveLimits({ distanceKm, months, share = 1 }: Limits): { km: Km | null; months: number | null } {
  if (distanceKm == null && months == null) throw new RangeError('due: no limit given');
  for (const limit of [distanceKm, months, share]) {
    if (limit != null && !(limit > 0 && Number.isFinite(limit)))
      throw new RangeError(`due: a limit must be above 0, got ${limit}`);
  }
  return { km: distanceKm == null ? null : distanceKm * share, months: months == null ? null : months * share };
}

/** A part without an interval that was found good for some distance has that as its limit. */
const withGood = (limits: Limits, { good }: Installed): Limits =>
  good && limits.distanceKm == null ? { ...limits, distanceKm: good.forKm } : limits;

/** The last reading carried on at the vehicle's rate; never carried backwards. */
function projectedOdometer(odometer: Odometer, rate: UseRate | null, on: PlainDate): number {
  return odometer.km + (rate?.kmPerDay ?? 0) * Math.max(0, daysBetween(odometer.on, on));
}

function addPartMonths(from: PlainDate, months: number): PlainDate {
  const whole = addMonths(from, Math.floor(months));
  return addDays(whole, Math.round((months - Math.floor(months)) * 30.4375));
}

/**
 * A limit already passed at standstill was passed by today; no limit was passed before the part was fitted.
 *
 * @param remainingKm today @param readOn the day of the last reading: what was driven since is not known either
 */
function distanceDates(
  remainingKm: Km,
  rate: UseRate | null,
  readOn: PlainDate,
  { today, installed, forecast = ASSUMED_FORECAST }: DueInput,
): DueDates | null {
  if (!rate || rate.kmPerDay <= 0) return remainingKm > 0 ? null : { p10: today, p50: today, p90: today };
  const least = Math.min(0, daysBetween(today, installed.on));
  const day = (days: number): PlainDate => addDays(today, Math.max(least, Math.min(FARTHEST_DAYS, Math.floor(days))));
  const since = Math.max(0, daysBetween(readOn, today));
  const days = remainingKm / rate.kmPerDay;
  const [early, late] = band(rate, days + since, forecast);
  return { p10: day(early - since), p50: day(days), p90: day(late - since) };
}

function capped(dates: DueDates | null, cap: PlainDate | null): DueDates | null {
  if (!dates) return cap === null ? null : { p10: cap, p50: cap, p90: cap };
  if (cap === null) return dates;
  const least = (date: PlainDate): PlainDate => (date < cap ? date : cap);
  return { p10: least(dates.p10), p50: least(dates.p50), p90: least(dates.p90) };
}

/** The less certain of two. */
export const leastCertain = (a: Certainty, b: Certainty): Certainty =>
  CERTAINTIES.indexOf(a) > CERTAINTIES.indexOf(b) ? a : b;

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
    const result = due({ ...rest, installed: site.installed });
    if (!worst || result.lifeUsed > worst.due.lifeUsed) worst = { site, due: result };
  }
  return worst;
}

export const DUE_STATES = [
  'past',
  'soon',
  'later',
  'inspect',
  'deferred',
  'blocked',
  'no-match',
  'no-odometer',
  'no-date',
] as const;
/**
 * past: over a limit; soon: due within `SOON_DAYS`; inspect: life is only assumed, so it cannot be called overdue;
 * deferred: a person moved its due date; blocked: another fault is to be mended first; no-match: no firm spec; no-odometer: no accepted reading; no-date: nothing dates it.
 */
export type DueState = (typeof DUE_STATES)[number];

const SOON_DAYS = 28;

/** The band a component group stands in. */
export function dueState({ lifeUsed, due: dates }: Due, certainty: Certainty, today: PlainDate): DueState {
  if (certainty === 'assumed' && (lifeUsed >= 1 || (dates && dates.p50 <= addDays(today, SOON_DAYS)))) return 'inspect';
  if (lifeUsed >= 1) return 'past';
  if (!dates) return 'no-date';
  return dates.p50 <= addDays(today, SOON_DAYS) ? 'soon' : 'later';
}
