import type { Day } from '../shared/kinds';

/** No clock and no zone is ever read here. */
export type PlainDate = Day;

const SHAPE = /^(\d{4})-(\d{2})-(\d{2})$/;

/** Whether the text is a real day, so that 2026-02-30 is not. */
export function isPlainDate(text: string): boolean {
  const match = SHAPE.exec(text);
  return match !== null && fromParts(Number(match[1]), Number(match[2]), Number(match[3])) === text;
}

/** @returns the day, or null when no such day exists (or outside years 1900 to 2199) */
export function fromParts(year: number, month: number, day: number): PlainDate | null {
  if (year < 1900 || year > 2199 || month < 1 || month > 12 || day < 1 || day > lastDay(year, month)) return null;
  return text(year, month, day);
}

const two = (n: number): string => (n < 10 ? `0${n}` : String(n));
const text = (year: number, month: number, day: number): PlainDate =>
  `${String(year).padStart(4, '0')}-${two(month)}-${two(day)}`;

/*
 * Days are counted in whole numbers instead of through Date: a due list of a large fleet converts some hundred thousand.
 * Source: the civil calendar algorithms of H. Hinnant, chrono-compatible low-level date algorithms; proleptic Gregorian.
 */
const ERA_DAYS = 146_097;
const EPOCH_SHIFT = 719_468;

function countDays(year: number, month: number, day: number): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  return (
    era * ERA_DAYS + yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear - EPOCH_SHIFT
  );
}

const lastDay = (year: number, month: number): number =>
  month === 12 ? 31 : countDays(year, month + 1, 1) - countDays(year, month, 1);

function number(date: string, from: number, to: number): number {
  let value = 0;
  for (let i = from; i < to; i++) value = value * 10 + date.charCodeAt(i) - 48;
  return value;
}

const yearOf = (date: PlainDate): number => number(date, 0, 4);
const monthOf = (date: PlainDate): number => number(date, 5, 7);
const dayOf = (date: PlainDate): number => number(date, 8, 10);

/** Days since 1970-01-01. @throws RangeError unless written as a day */
export function dayNumber(date: PlainDate): number {
  const days = countDays(yearOf(date), monthOf(date), dayOf(date));
  if (Number.isNaN(days)) throw new RangeError(`not a day: ${date}`);
  return days;
}

export function fromDayNumber(day: number): PlainDate {
  const shifted = day + EPOCH_SHIFT;
  const era = Math.floor(shifted / ERA_DAYS);
  const dayOfEra = shifted - era * ERA_DAYS;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36_524) - Math.floor(dayOfEra / 146_096)) / 365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const shiftedMonth = Math.floor((5 * dayOfYear + 2) / 153);
  const month = shiftedMonth < 10 ? shiftedMonth + 3 : shiftedMonth - 9;
  return text(
    yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    dayOfYear - Math.floor((153 * shiftedMonth + 2) / 5) + 1,
  );
}

export const daysBetween = (from: PlainDate, to: PlainDate): number => dayNumber(to) - dayNumber(from);

export const addDays = (date: PlainDate, days: number): PlainDate => fromDayNumber(dayNumber(date) + days);

/** Same day of a later month, the last day where that month is shorter. */
export function addMonths(date: PlainDate, months: number): PlainDate {
  const index = yearOf(date) * 12 + monthOf(date) - 1 + months;
  const [year, month] = [Math.floor(index / 12), (((index % 12) + 12) % 12) + 1];
  return text(year, month, Math.min(dayOf(date), lastDay(year, month)));
}

/** By ISO 8601: 1 Monday to 7 Sunday. */
export const WEEKDAYS = [1, 2, 3, 4, 5, 6, 7] as const;
export type Weekday = (typeof WEEKDAYS)[number];

export const weekdayOf = (date: PlainDate): Weekday => (((((dayNumber(date) + 3) % 7) + 7) % 7) + 1) as Weekday;

/** The Monday of the week that holds the day. */
export const mondayOf = (date: PlainDate): PlainDate => addDays(date, 1 - weekdayOf(date));
