import type { Km } from '../shared/kinds';
import { keptKm } from '../units/round';
import { KM_PER_MILE } from '../units/unit';
import { byDay, MAX_KM_PER_DAY, ownRate, type Reading } from './use-rate';

/** No road vehicle has gone further, km: what is over it is misread or of another unit. */
export const MAX_ODOMETER_KM = 3_300_000;

export const CHECK_CODES = ['backwards', 'too_fast', 'unit_slip', 'digit_slip', 'stuck', 'rollover'] as const;
export type CheckCode = (typeof CHECK_CODES)[number];

interface Suggestion {
  readonly km: Km;
  readonly why: Exclude<CheckCode, 'backwards' | 'too_fast' | 'stuck'>;
}

export interface ReadingCheck {
  readonly verdict: 'accept' | 'suspect';
  /** What is wrong first, then the likely cause. */
  readonly reasons: readonly CheckCode[];
  readonly suggestion: Suggestion | null;
}

/** A reading with the digits as they stood on the dash. */
interface ShownReading {
  readonly day: number;
  /** As shown, in `unit`. */
  readonly value: number;
  readonly unit: 'km' | 'mi';
}

/** Two figures are one unit apart when their ratio is this near to the factor. */
const SLIP_TOLERANCE = 0.02;
/** Faster than this many times its own rate, and a unit slip is looked for. */
const UNUSUAL = 2;
const STUCK_DAYS = 30;
/** A vehicle that covers less stands anyway, km a day. */
const MOVING_KM_PER_DAY = 5;
/** A meter is near its end, or at its beginning, within this share of what it can show. */
const ROLLOVER_SHARE = 0.1;

const ACCEPT: ReadingCheck = { verdict: 'accept', reasons: [], suggestion: null };
const factor = (unit: 'km' | 'mi'): number => (unit === 'mi' ? KM_PER_MILE : 1);
const toKm = ({ value, unit }: Pick<ShownReading, 'value' | 'unit'>): number => value * factor(unit);

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

/** The same for a history in order of day and a rate that is known already: one rate serves many readings. */
export function checkAgainst(
  sorted: readonly Reading[],
  kmPerDay: number | null,
  reading: ShownReading,
  othersMove = true,
): ReadingCheck {
  const km = toKm(reading);
  const before = sorted.findLast((known) => known.day <= reading.day) ?? null;
  const after = sorted.find((known) => known.day > reading.day) ?? null;
  const highest = sorted.reduce((most, known) => (known.day <= reading.day ? Math.max(most, known.km) : most), 0);
  const wrong = plainFaults(before && { day: before.day, km: highest }, after, { day: reading.day, km });
  if (before && wrong.length === 0 && isStuck(sorted, reading.day, km, kmPerDay) && othersMove)
    return { verdict: 'suspect', reasons: ['stuck'], suggestion: null };
  if (!before) return wrong.length === 0 ? ACCEPT : { verdict: 'suspect', reasons: wrong, suggestion: null };
  const days = Math.max(1, reading.day - before.day);
  const unusual = kmPerDay !== null && km - before.km > UNUSUAL * Math.max(kmPerDay, 1) * days;
  if (wrong.length === 0 && !unusual) return ACCEPT;
  const expected = before.km + (kmPerDay ?? 0) * days;
  const reach = Math.max(300, 3 * (kmPerDay ?? 100) * days);
  const suggestion = likely({ ...reading }, before.km, expected, reach, wrong);
  const cause = suggestion && (wrong.length > 0 || suggestion.why === 'unit_slip') ? [suggestion.why] : [];
  const reasons = [...wrong, ...cause];
  return reasons.length === 0
    ? ACCEPT
    : { verdict: 'suspect', reasons, suggestion: cause.length > 0 ? suggestion : null };
}

function plainFaults(before: Reading | null, after: Reading | null, reading: Reading): CheckCode[] {
  if ((before && reading.km < before.km) || (after && reading.km > after.km)) return ['backwards'];
  if (!before) return [];
  const days = Math.max(1, reading.day - before.day);
  return (reading.km - before.km) / days > MAX_KM_PER_DAY ? ['too_fast'] : [];
}

/** The same figure for long, on a vehicle that moved before. */
function isStuck(sorted: readonly Reading[], day: number, km: Km, kmPerDay: number | null): boolean {
  const first = sorted.find((known) => Math.abs(known.km - km) < 0.5);
  if (!first || day - first.day < STUCK_DAYS) return false;
  const earlier = sorted.filter((known) => known.day <= first.day);
  const rate = ownRate(earlier)?.kmPerDay ?? kmPerDay ?? 0;
  return rate > MOVING_KM_PER_DAY;
}

/** What the figure probably was: it must follow from the last reading and lie where the vehicle could be. */
function likely(
  reading: ShownReading,
  lastKm: Km,
  expected: number,
  reach: number,
  wrong: readonly CheckCode[],
): Suggestion | null {
  const km = toKm(reading);
  const follows = (candidate: number): boolean => candidate >= lastKm - 0.5 && candidate <= expected + reach;
  const slip = [km * KM_PER_MILE, km / KM_PER_MILE].find(
    (other) => other >= lastKm - 0.5 && Math.abs(other / expected - 1) <= SLIP_TOLERANCE,
  );
  if (slip !== undefined) return { km: keptKm(slip), why: 'unit_slip' };
  if (wrong.length === 0) return null;
  const rolled = rolledOver(reading, lastKm);
  if (rolled !== null && follows(rolled)) return { km: keptKm(rolled), why: 'rollover' };
  const digits = digitSlips(reading)
    .filter(follows)
    .sort((a, b) => Math.abs(a - expected) - Math.abs(b - expected))[0];
  return digits === undefined ? null : { km: keptKm(digits), why: 'digit_slip' };
}

/** Past all nines the meter begins anew. Null: the last reading was not near the end. */
function rolledOver({ value, unit }: ShownReading, lastKm: Km): number | null {
  const last = lastKm / factor(unit);
  const capacity = 10 ** Math.max(5, String(Math.floor(last)).length);
  const near = last >= capacity * (1 - ROLLOVER_SHARE) && value <= capacity * ROLLOVER_SHARE;
  return near ? (value + capacity) * factor(unit) : null;
}

/** Every figure that one slip away from the shown one: a digit dropped or doubled, two swapped, one misread. km */
function digitSlips({ value, unit }: ShownReading): readonly number[] {
  const text = String(Math.round(value));
  const found = new Set<string>();
  for (let i = 0; i <= text.length; i++) {
    for (let digit = 0; digit <= 9; digit++) {
      found.add(text.slice(0, i) + digit + text.slice(i));
      if (i < text.length) found.add(text.slice(0, i) + digit + text.slice(i + 1));
    }
    found.add(text.slice(0, i) + text.slice(i + 1));
    if (i + 1 < text.length) found.add(text.slice(0, i) + text[i + 1] + text[i] + text.slice(i + 2));
  }
  found.delete(text);
  return [...found].filter((digits) => digits !== '').map((digits) => Number(digits) * factor(unit));
}

/**
 * Judges new readings of one vehicle in order of day; one that passes counts as known for the next.
 *
 * @param accepted sorted by day @param fresh sorted by day
 * @returns the checks of those that are suspect, by index into `fresh`
 */
export function suspectReadings(
  accepted: readonly Reading[],
  fresh: readonly ShownReading[],
  othersMove = true,
): ReadonlyMap<number, ReadingCheck> {
  const rate = ownRate(accepted)?.kmPerDay ?? null;
  const known = [...accepted];
  const suspects = new Map<number, ReadingCheck>();
  let highest = known.reduce((most, { km }) => Math.max(most, km), 0);
  fresh.forEach((reading, index) => {
    const next = { day: reading.day, km: toKm(reading) };
    if (!followsPlainly(known.at(-1) ?? null, highest, rate, next)) {
      const check = checkAgainst(known, rate, reading, othersMove);
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
function followsPlainly(last: Reading | null, highest: number, rate: number | null, { day, km }: Reading): boolean {
  if (!last || day < last.day || km < highest + 0.5) return false;
  const days = Math.max(1, day - last.day);
  return (
    (km - highest) / days <= MAX_KM_PER_DAY && (rate === null || km - last.km <= UNUSUAL * Math.max(rate, 1) * days)
  );
}

function insertInOrder(known: Reading[], reading: Reading): void {
  let at = known.length;
  while (at > 0 && (known[at - 1]?.day ?? 0) > reading.day) at--;
  known.splice(at, 0, reading);
}
