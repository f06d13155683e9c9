import type ICAL from 'ical.js';
import { addDays, type PlainDate } from '../calendar/plain-date';

/*
 * Whether a calendar rule can be followed in a bounded number of steps. A rule whose parts never meet sends whoever looks for its
 * next time into an endless search, so it is refused before anybody looks.
 */

/** A rule has to come again within so many years. */
const YEARS = 8;
const DAYS = YEARS * 366;
const MAX_INTERVAL = 366;
const WEEKDAYS: readonly string[] = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA'];
/** Finer than a day: an absence has hours of its own. */
const FINER = ['BYSECOND', 'BYMINUTE', 'BYHOUR'] as const;
/** How often a weekday comes in a period, at most. */
const MOST_OFTEN: Readonly<Record<string, number>> = { MONTHLY: 5, YEARLY: 53 };

type Parts = Readonly<Record<string, readonly (string | number)[] | undefined>>;

/** A day as a rule sees it. */
interface RuleDay {
  readonly month: number;
  readonly dayOfMonth: number;
  readonly monthLength: number;
  readonly dayOfYear: number;
  readonly yearLength: number;
  readonly weekday: string;
  /** Periods since the first day. */
  readonly period: number;
}

/**
 * Why a rule cannot be followed, in words; null: it can.
 *
 * @param from its first day
 */
export function ruleFault(rule: ICAL.Recur, from: PlainDate): string | null {
  const parts = rule.parts as Parts;
  const { freq, interval } = rule;
  if (!(interval >= 1 && interval <= MAX_INTERVAL))
    return `INTERVAL is from 1 to ${MAX_INTERVAL}; this one has ${interval}.`;
  const finer = FINER.find((part) => parts[part] !== undefined);
  if (finer) return `${finer} is finer than a day: give the times beside the rule.`;
  for (const day of (parts.BYDAY ?? []).map(String)) {
    const ordinal = Math.abs(Number.parseInt(day, 10) || 0);
    const most = MOST_OFTEN[freq] ?? 0;
    if (ordinal > most)
      return `BYDAY=${day}: ${most === 0 ? `a ${freq} rule has no such day` : 'there is never so many'}.`;
  }
  return meets(rule, parts, from)
    ? null
    : `This rule never comes within ${YEARS} years of ${from}: its days, months and interval do not meet.`;
}

/** Whether any day of the next years meets all parts of a rule, in a period that it counts. */
function meets({ freq, interval }: ICAL.Recur, parts: Parts, from: PlainDate): boolean {
  const positions = (parts.BYSETPOS ?? []).map(Number);
  const needed = positions.length === 0 ? 1 : Math.min(...positions.map(Math.abs));
  let [period, inPeriod] = [-1, 0];
  for (let i = 0; i < DAYS; i += 1) {
    const day = dayAt(addDays(from, i), from, freq);
    if (day.period % interval !== 0 || !isMet(parts, day)) continue;
    [period, inPeriod] = day.period === period ? [period, inPeriod + 1] : [day.period, 1];
    if (inPeriod >= needed) return true;
  }
  return false;
}

function isMet(parts: Parts, day: RuleDay): boolean {
  const allows = (part: string, test: (value: string) => boolean): boolean =>
    parts[part] === undefined || parts[part].map(String).some(test);
  const counted =
    (at: number, length: number) =>
    (value: string): boolean =>
      Number(value) === at || Number(value) === at - length - 1;
  return (
    allows('BYMONTH', (value) => Number(value) === day.month) &&
    allows('BYMONTHDAY', counted(day.dayOfMonth, day.monthLength)) &&
    allows('BYYEARDAY', counted(day.dayOfYear, day.yearLength)) &&
    allows('BYDAY', (value) => value.endsWith(day.weekday))
  );
}

const DAY_MS = 86_400_000;
const daysIn = (year: number, month: number): number => new Date(Date.UTC(year, month, 0)).getUTCDate();

function dayAt(day: PlainDate, from: PlainDate, freq: string): RuleDay {
  const at = new Date(`${day}T00:00:00Z`);
  const first = new Date(`${from}T00:00:00Z`);
  const [year, month] = [at.getUTCFullYear(), at.getUTCMonth() + 1];
  const newYear = Date.UTC(year, 0, 1);
  // Weeks begin on Monday, as RFC 5545 has it unless a rule says otherwise.
  const sinceMonday = (first.getUTCDay() + 6) % 7;
  const days = Math.round((at.getTime() - first.getTime()) / DAY_MS);
  const months = (year - first.getUTCFullYear()) * 12 + month - 1 - first.getUTCMonth();
  const periods: Readonly<Record<string, number>> = {
    DAILY: days,
    WEEKLY: Math.floor((days + sinceMonday) / 7),
    MONTHLY: months,
    YEARLY: year - first.getUTCFullYear(),
  };
  return {
    month,
    dayOfMonth: at.getUTCDate(),
    monthLength: daysIn(year, month),
    dayOfYear: Math.round((at.getTime() - newYear) / DAY_MS) + 1,
    yearLength: Math.round((Date.UTC(year + 1, 0, 1) - newYear) / DAY_MS),
    weekday: WEEKDAYS[at.getUTCDay()] ?? '',
    period: periods[freq] ?? 0,
  };
}
