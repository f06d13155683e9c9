import ICAL from 'ical.js';
import { addDays, dayNumber, fromDayNumber, type PlainDate } from '../calendar/plain-date';
import { err, ok, type Result } from '../shared/result';

/*
 * Calendar rules by day: whether a rule of RFC 5545 falls on a day is worked out for that day alone. A library that looks for the
 * next time searches for ever where the parts of a rule never meet; here nothing is searched.
 */

const FREQUENCIES = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'] as const;
type Frequency = (typeof FREQUENCIES)[number];

/** A weekday, with which one of its month or year it is: the first, or counted from the end. */
interface RuleWeekday {
  readonly weekday: number;
  /** 0: every one. */
  readonly nth: number;
}

interface Recurrence {
  readonly frequency: Frequency;
  readonly interval: number;
  readonly count: number | null;
  readonly until: PlainDate | null;
  /** 0: Sunday. */
  readonly weekStart: number;
  readonly months: readonly number[];
  readonly monthDays: readonly number[];
  readonly yearDays: readonly number[];
  readonly weekdays: readonly RuleWeekday[];
  readonly positions: readonly number[];
  /** As it is kept. */
  readonly text: string;
}

const WEEKDAYS: readonly string[] = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA'];
const MAX_RULE = 300;
const MAX_INTERVAL = 366;
/** A rule has to come again within so many years. */
const YEARS = 8;

/** Parts that do not go with a frequency, or that no absence needs. */
const NOT_WITH: Readonly<Record<string, readonly Frequency[]>> = {
  BYSECOND: FREQUENCIES,
  BYMINUTE: FREQUENCIES,
  BYHOUR: FREQUENCIES,
  BYWEEKNO: FREQUENCIES,
  BYYEARDAY: ['DAILY', 'WEEKLY', 'MONTHLY'],
  BYMONTHDAY: ['WEEKLY'],
  BYSETPOS: ['DAILY'],
};
/** How often a weekday comes in a period, at most. */
const MOST_OFTEN: Readonly<Record<Frequency, number>> = { DAILY: 0, WEEKLY: 0, MONTHLY: 5, YEARLY: 53 };

/**
 * A rule as a person or a file gives it, with or without "RRULE:".
 *
 * @param from its first day
 * @returns the rule, or in words what is wrong: it never comes, or it has a part that cannot be followed
 */
export function readRecurrence(text: string, from: PlainDate): Result<Recurrence, string> {
  const plain = text
    .trim()
    .replace(/^RRULE:/i, '')
    .toUpperCase();
  const wrong = `“${text.slice(0, 40)}” is no rule that can be followed. Write it like FREQ=WEEKLY;BYDAY=MO,TU.`;
  const parsed = plain.length > MAX_RULE ? null : parse(plain);
  if (!parsed) return err(wrong);
  const fault = partFault(plain, parsed);
  if (fault) return err(fault);
  const end = addDays(from, YEARS * 366);
  return daysOf(parsed, from, from, end, 1).length > 0
    ? ok(parsed)
    : err(`This rule never comes within ${YEARS} years of ${from}: its days, months and interval do not meet.`);
}

function parse(plain: string): Recurrence | null {
  try {
    const rule = ICAL.Recur.fromString(plain);
    const frequency = FREQUENCIES.find((known) => known === rule.freq);
    if (!frequency) return null;
    const parts = rule.parts as Readonly<Record<string, readonly (string | number)[] | undefined>>;
    const numbers = (part: string): readonly number[] => (parts[part] ?? []).map(Number);
    return {
      frequency,
      interval: rule.interval,
      count: rule.count ?? null,
      until: rule.until ? rule.until.toString().slice(0, 10) : null,
      // The library counts from Sunday as 1.
      weekStart: (rule.wkst ?? 2) - 1,
      months: numbers('BYMONTH'),
      monthDays: numbers('BYMONTHDAY'),
      yearDays: numbers('BYYEARDAY'),
      weekdays: (parts.BYDAY ?? []).map(String).map((day) => ({
        weekday: WEEKDAYS.indexOf(day.slice(-2)),
        nth: Number.parseInt(day, 10) || 0,
      })),
      positions: numbers('BYSETPOS'),
      text: rule.toString(),
    };
  } catch {
    return null;
  }
}

function partFault(plain: string, { frequency, interval, weekdays }: Recurrence): string | null {
  if (!(interval >= 1 && interval <= MAX_INTERVAL))
    return `INTERVAL is from 1 to ${MAX_INTERVAL}; this one has ${interval}.`;
  const part = Object.keys(NOT_WITH).find((name) => plain.includes(`${name}=`) && NOT_WITH[name]?.includes(frequency));
  if (part) return `${part} cannot be followed in a ${frequency} rule. The times of a day stand beside the rule.`;
  const far = weekdays.find(({ nth }) => Math.abs(nth) > MOST_OFTEN[frequency]);
  return far ? `BYDAY=${far.nth}${WEEKDAYS[far.weekday]}: a ${frequency} rule has no such day.` : null;
}

/**
 * The days of a rule, from the first of some days to the last.
 *
 * @param start the day on which the rule begins
 * @param most no more than so many, the earliest
 */
export function daysOf(
  rule: Recurrence,
  start: PlainDate,
  first: PlainDate,
  last: PlainDate,
  most = Number.POSITIVE_INFINITY,
): readonly PlainDate[] {
  const end = rule.until !== null && rule.until < last ? rule.until : last;
  const origin = dayNumber(start);
  // What is counted is counted from its begin.
  const from = rule.count === null ? Math.max(origin, dayNumber(first)) : origin;
  const days: PlainDate[] = [];
  let counted = 0;
  for (let day = from; day <= dayNumber(end) && days.length < most; day += 1) {
    if (rule.count !== null && counted >= rule.count) break;
    if (!isOn(rule, origin, day)) continue;
    counted += 1;
    const plain = fromDayNumber(day);
    if (plain >= first) days.push(plain);
  }
  return days;
}

const DAY_MS = 86_400_000;

function isOn(rule: Recurrence, origin: number, day: number): boolean {
  if (periodOf(rule, origin, day) % rule.interval !== 0 || !isMet(rule, origin, day)) return false;
  if (rule.positions.length === 0) return true;
  const [begin, end] = boundsOf(rule, day);
  const all = Array.from({ length: end - begin }, (_, i) => begin + i).filter((at) => isMet(rule, origin, at));
  const at = all.indexOf(day);
  return rule.positions.some((position) => position - 1 === at || position + all.length === at);
}

/** Periods since the one in which the rule begins. */
function periodOf({ frequency, weekStart }: Recurrence, origin: number, day: number): number {
  const [at, first] = [new Date(day * DAY_MS), new Date(origin * DAY_MS)];
  switch (frequency) {
    case 'DAILY':
      return day - origin;
    case 'WEEKLY':
      return weekOf(day, weekStart) - weekOf(origin, weekStart);
    case 'MONTHLY':
      return (at.getUTCFullYear() - first.getUTCFullYear()) * 12 + at.getUTCMonth() - first.getUTCMonth();
    case 'YEARLY':
      return at.getUTCFullYear() - first.getUTCFullYear();
  }
}

/** 1970-01-01 was a Thursday. */
const weekOf = (day: number, weekStart: number): number => Math.floor((day + 4 - weekStart) / 7);

/** First day of the period of a day, and of the one after. */
function boundsOf({ frequency, weekStart }: Recurrence, day: number): readonly [number, number] {
  const at = new Date(day * DAY_MS);
  const [year, month] = [at.getUTCFullYear(), at.getUTCMonth()];
  const utc = (y: number, m: number): number => Math.round(Date.UTC(y, m, 1) / DAY_MS);
  if (frequency === 'YEARLY') return [utc(year, 0), utc(year + 1, 0)];
  if (frequency === 'MONTHLY') return [utc(year, month), utc(year, month + 1)];
  const begin = weekOf(day, weekStart) * 7 - 4 + weekStart;
  return frequency === 'WEEKLY' ? [begin, begin + 7] : [day, day + 1];
}

/** Whether a day meets all parts of a rule; where it names no day, that of its begin. */
function isMet(rule: Recurrence, origin: number, day: number): boolean {
  const { frequency, months, monthDays, yearDays, weekdays } = rule;
  const [at, first] = [new Date(day * DAY_MS), new Date(origin * DAY_MS)];
  const [year, month, date] = [at.getUTCFullYear(), at.getUTCMonth(), at.getUTCDate()];
  const utc = (y: number, m: number): number => Math.round(Date.UTC(y, m, 1) / DAY_MS);
  const monthLength = utc(year, month + 1) - utc(year, month);
  const [dayOfYear, yearLength] = [day - utc(year, 0) + 1, utc(year + 1, 0) - utc(year, 0)];
  if (months.length > 0 && !months.includes(month + 1)) return false;
  if (monthDays.length > 0 && !counted(monthDays, date, monthLength)) return false;
  if (yearDays.length > 0 && !counted(yearDays, dayOfYear, yearLength)) return false;
  const inYear = frequency === 'YEARLY' && months.length === 0;
  const [nth, length] = inYear ? [dayOfYear, yearLength] : [date, monthLength];
  if (weekdays.length > 0) return weekdays.some((weekday) => isWeekday(weekday, at.getUTCDay(), nth, length));
  if (monthDays.length > 0 || yearDays.length > 0) return true;
  switch (frequency) {
    case 'DAILY':
      return true;
    case 'WEEKLY':
      return at.getUTCDay() === first.getUTCDay();
    case 'MONTHLY':
      return date === first.getUTCDate();
    case 'YEARLY':
      return date === first.getUTCDate() && (months.length > 0 || month === first.getUTCMonth());
  }
}

/** From the begin, or with a minus from the end. */
const counted = (list: readonly number[], at: number, length: number): boolean =>
  list.includes(at) || list.includes(at - length - 1);

const isWeekday = ({ weekday, nth }: RuleWeekday, at: number, day: number, length: number): boolean =>
  weekday === at && (nth === 0 || nth === Math.ceil(day / 7) || nth === -Math.ceil((length - day + 1) / 7));
