import type { Km } from '../shared/kinds';
import { keptKm } from '../units/round';
import { KM_PER_MILE } from '../units/unit';
import { digitSlips, halfUnitKm, kmOf, rolledOver, type Shown } from './slips';
import { byDay, MAX_KM_PER_DAY, ownRate, type Reading } from './use-rate';
import { lentUsual, paceOf, standsOut, type Usual, usualOf } from './usual';

/** No road vehicle has gone further, km: what is over it is misread or of another unit. */
export const MAX_ODOMETER_KM = 3_300_000;

export const CHECK_CODES = [
  'backwards',
  'too_fast',
  'unusual',
  'before_service',
  'below_fitting',
  'unit_slip',
  'digit_slip',
  'stuck',
  'rollover',
] as const;
export type CheckCode = (typeof CHECK_CODES)[number];
/** What may well be right: it is asked about, and holds nothing up. */
const ASKED_ONLY: readonly CheckCode[] = ['unusual', 'before_service', 'below_fitting'];
export const isAskedOnly = ({ reasons }: ReadingCheck): boolean => reasons.some((code) => ASKED_ONLY.includes(code));

interface Suggestion {
  readonly km: Km;
  readonly why: Extract<CheckCode, 'unit_slip' | 'digit_slip' | 'rollover'>;
}

export interface ReadingCheck {
  readonly verdict: 'accept' | 'suspect';
  /** What is wrong first, then the likely cause. */
  readonly reasons: readonly CheckCode[];
  readonly suggestion: Suggestion | null;
}

/** A reading with the digits as they stood on the dash. */
export interface ShownReading extends Shown {
  readonly day: number;
}

/** Two figures are one unit apart when their ratio is this near to the factor. */
const SLIP_TOLERANCE = 0.02;
/** Faster than this many times its own rate, and a step is looked at. */
const UNUSUAL = 2;
const STUCK_DAYS = 50;
/** A vehicle that covers less stands anyway, km a day. */
const MOVING_KM_PER_DAY = 5;

const ACCEPT: ReadingCheck = { verdict: 'accept', reasons: [], suggestion: null };

/**
 * Judges a new reading against what is accepted of its vehicle, and offers what it probably was.
 *
 * A suspect reading is kept and flagged, and not used until someone resolves it.
 *
 * @param history accepted readings, any order, km
 * @param othersMove whether other vehicles' readings move meanwhile: a whole feed that stands still is no stuck meter
 */
export function checkReading(history: readonly Reading[], reading: ShownReading, othersMove = true): ReadingCheck {
  const sorted = [...history].sort(byDay);
  return checkAgainst(sorted, ownRate(sorted)?.kmPerDay ?? null, reading, othersMove);
}

/**
 * The same for a history in order of day and a rate that is known already: one rate serves many readings.
 *
 * @param lentKmPerDay that of its duty group, for a vehicle that has none of its own; null: not known
 */
export function checkAgainst(
  sorted: readonly Reading[],
  kmPerDay: number | null,
  reading: ShownReading,
  othersMove = true,
  lentKmPerDay: number | null = null,
): ReadingCheck {
  const km = kmOf(reading);
  const before = sorted.findLast((known) => known.day <= reading.day) ?? null;
  const after = sorted.find((known) => known.day > reading.day) ?? null;
  const highest = sorted.reduce((most, known) => (known.day <= reading.day ? Math.max(most, known.km) : most), 0);
  const wrong = plainFaults(
    before && { day: before.day, km: highest },
    after,
    { day: reading.day, km },
    halfUnitKm(reading),
  );
  if (before && wrong.length === 0 && isStuck(sorted, reading, kmPerDay) && othersMove)
    return { verdict: 'suspect', reasons: ['stuck'], suggestion: null };
  if (!before) return wrong.length === 0 ? ACCEPT : { verdict: 'suspect', reasons: wrong, suggestion: null };
  const days = Math.max(1, reading.day - before.day);
  const earlier = sorted.filter(({ day }) => day <= reading.day);
  const usual = usualOf(earlier, kmPerDay) ?? lentUsual(lentKmPerDay);
  const step: Step = { reading, lastKm: before.km, days, usual, km: km - before.km };
  const unlike = wrong.length === 0 && usual !== null && step.km > UNUSUAL * usual.kmPerDay * days;
  if (wrong.length === 0 && !unlike) return ACCEPT;
  const inOtherUnit = unitSlip(step);
  if (wrong.length === 0 && !inOtherUnit && !standsOutAtAll(step)) return ACCEPT;
  const suggestion = inOtherUnit ?? likely(step, wrong);
  if (wrong.length === 0 && !suggestion && !isFarOut(step)) return ACCEPT;
  const plain: readonly CheckCode[] = wrong.length > 0 ? wrong : ['unusual'];
  return { verdict: 'suspect', reasons: suggestion ? [...plain, suggestion.why] : plain, suggestion };
}

/** From the last reading to this one. */
interface Step {
  readonly reading: ShownReading;
  readonly lastKm: Km;
  readonly days: number;
  readonly km: Km;
  /** Null: too little is known. */
  readonly usual: Usual | null;
}

/** @param nothingKm what the dash cannot tell */
function plainFaults(before: Reading | null, after: Reading | null, reading: Reading, nothingKm: number): CheckCode[] {
  const isBelow = before !== null && reading.km < before.km - nothingKm;
  if (isBelow || (after && reading.km > after.km + nothingKm)) return ['backwards'];
  if (!before) return [];
  const days = Math.max(1, reading.day - before.day);
  return (reading.km - before.km) / days > MAX_KM_PER_DAY ? ['too_fast'] : [];
}

/** Deviations from what is usual at which a step is asked about where a slip would explain it, and where none would. */
const ASKED_IF_EXPLAINED = 2.2;
const ASKED = 3.5;
/** And so many times as far as usual: twice is a holiday. */
const ASKED_TIMES = 2.6;
/** So far beyond the fastest it has gone. */
const BEYOND_FASTEST = 1.5;
/** A holiday is not asked about: only what is so far beyond the usual, km, and so fast, km a day. */
const HOLIDAY_KM = 1200;
const HOLIDAY_KM_PER_DAY = 350;

/** Whether a step may be unusual: most are not, and are spared the search for what they may have been. */
const standsOutAtAll = ({ usual, km, days }: Step): boolean =>
  usual !== null &&
  km / days > BEYOND_FASTEST * usual.fastest &&
  km > ASKED_TIMES * usual.kmPerDay * days &&
  standsOut(usual, km, days) > ASKED_IF_EXPLAINED;

/** Whether somebody should look again though no slip explains it. */
const isFarOut = ({ usual, km, days }: Step): boolean =>
  usual !== null &&
  standsOut(usual, km, days) > ASKED &&
  km / days > HOLIDAY_KM_PER_DAY &&
  km - usual.kmPerDay * days > HOLIDAY_KM;

/** The same figure for long, on a vehicle that moved before. */
function isStuck(sorted: readonly Reading[], reading: ShownReading, kmPerDay: number | null): boolean {
  const km = kmOf(reading);
  const first = sorted.find((known) => Math.abs(known.km - km) < halfUnitKm(reading));
  if (!first || reading.day - first.day < STUCK_DAYS) return false;
  const earlier = sorted.filter((known) => known.day <= first.day);
  const rate = ownRate(earlier)?.kmPerDay ?? kmPerDay ?? 0;
  return rate > MOVING_KM_PER_DAY;
}

/** A slip must bring the figure so near to what is usual, in deviations. */
const NEAR = 2.5;
/** Where little is known a figure may lie so far beyond the last, km a day. */
const UNKNOWN_REACH = 400;
/** Without a fault beside it only a common slip explains a step. */
const COMMON = 1;

/** The figure in the other unit, where that is what is expected; null: it is not. */
function unitSlip({ reading, lastKm, days, usual }: Step): Suggestion | null {
  const { offsetKm = 0 } = reading;
  const shown = kmOf(reading) - offsetKm;
  const expected = lastKm + (usual?.kmPerDay ?? 0) * days;
  const slip = [shown * KM_PER_MILE + offsetKm, shown / KM_PER_MILE + offsetKm].find(
    (other) => other >= lastKm - 0.5 && Math.abs(other / expected - 1) <= SLIP_TOLERANCE,
  );
  return slip === undefined ? null : { km: keptKm(slip), why: 'unit_slip' };
}

/** What the figure probably was in its own unit: it follows from the last reading and lies where the vehicle usually would be. */
function likely({ reading, lastKm, days, usual }: Step, wrong: readonly CheckCode[]): Suggestion | null {
  const km = kmOf(reading);
  const rolled = wrong.length > 0 ? rolledOver(reading, lastKm) : null;
  if (rolled !== null && farFrom(rolled, lastKm, days, usual) <= 2 * NEAR)
    return { km: keptKm(rolled), why: 'rollover' };
  const most = wrong.length > 0 ? Number.POSITIVE_INFINITY : COMMON;
  const [best] = digitSlips(reading)
    .map(({ km: other, rare }) => ({ km: other, rare, far: farFrom(other, lastKm, days, usual) }))
    .filter(({ far, rare, km: other }) => far <= NEAR && rare <= most && Math.abs(other - km) >= 0.5)
    .sort((a, b) => a.far ** 2 / 2 + a.rare - (b.far ** 2 / 2 + b.rare) || a.km - b.km);
  return best ? { km: keptKm(best.km), why: 'digit_slip' } : null;
}

/** Deviations of a figure from where the vehicle usually would be; what goes backwards is out of reach. */
function farFrom(km: Km, lastKm: Km, days: number, usual: Usual | null): number {
  const step = km - lastKm;
  if (step < -0.5) return Number.POSITIVE_INFINITY;
  if (!usual) return step <= UNKNOWN_REACH * days ? NEAR * (step / (UNKNOWN_REACH * days)) : Number.POSITIVE_INFINITY;
  const out = standsOut(usual, Math.max(step, 0.1), days);
  // A step of nothing is a vehicle that stood: no farther than the least that is usual.
  return out >= 0 ? out : Math.min(NEAR, -out);
}

/** What is known of a vehicle before its first reading. */
export interface Beginning {
  /** The day it entered service. */
  readonly day: number;
  /** Where it stood when a part was fitted that is still in it. */
  readonly fitted: Reading | null;
  /** What its duty group covers, km a day: for as long as it has no pace of its own. */
  readonly lentKmPerDay: number | null;
}

/** A first reading has nothing before it but the vehicle's own record. */
function checkFirst({ day: began, fitted }: Beginning, { day, km }: Reading, nothingKm: number): ReadingCheck {
  const reasons: CheckCode[] = [];
  if (day < began) reasons.push('before_service');
  if (fitted && day >= fitted.day && km < fitted.km - nothingKm) reasons.push('below_fitting');
  return reasons.length === 0 ? ACCEPT : { verdict: 'suspect', reasons, suggestion: null };
}

/**
 * Judges new readings of one vehicle in order of day; one that passes counts as known for the next.
 *
 * @param accepted sorted by day @param fresh sorted by day
 * @param beginning null: nothing is known of it
 * @returns the checks of those that are suspect, by index into `fresh`
 */
export function suspectReadings(
  accepted: readonly Reading[],
  fresh: readonly ShownReading[],
  othersMove = true,
  beginning: Beginning | null = null,
): ReadonlyMap<number, ReadingCheck> {
  const rate = ownRate(accepted)?.kmPerDay ?? null;
  const lent = beginning?.lentKmPerDay ?? null;
  const known = [...accepted];
  const suspects = new Map<number, ReadingCheck>();
  let highest = known.reduce((most, { km }) => Math.max(most, km), 0);
  fresh.forEach((reading, index) => {
    const next = { day: reading.day, km: kmOf(reading) };
    if (!followsPlainly(known.at(-1) ?? null, highest, paceOf(known, rate) ?? lent, next)) {
      const check =
        known.length === 0 && beginning
          ? checkFirst(beginning, next, halfUnitKm(reading))
          : checkAgainst(known, rate, reading, othersMove, lent);
      if (check.verdict === 'suspect') {
        suspects.set(index, check);
        return;
      }
    }
    highest = Math.max(highest, next.km);
    insertInOrder(known, next);
  });
  return suspects;
}

/**
 * Whether a reading lies beyond all that is known, in time and in distance, by no more than is usual: then there is
 * nothing else to look for. It spares most readings of a large file the search through their history.
 */
function followsPlainly(last: Reading | null, highest: number, pace: number | null, { day, km }: Reading): boolean {
  if (!last || day < last.day || km < highest + 0.5) return false;
  const days = Math.max(1, day - last.day);
  return (km - highest) / days <= MAX_KM_PER_DAY && (pace === null || km - last.km <= UNUSUAL * pace * days);
}

function insertInOrder(known: Reading[], reading: Reading): void {
  let at = known.length;
  while (at > 0 && (known[at - 1]?.day ?? 0) > reading.day) at--;
  known.splice(at, 0, reading);
}
