/** A calendar day in the depot's zone, `YYYY-MM-DD`. No clock and no zone is ever read here. */
export type PlainDate = string;

const DAY_MS = 86_400_000;
const SHAPE = /^(\d{4})-(\d{2})-(\d{2})$/;

/** Whether the text is a real day, so that 2026-02-30 is not. */
export function isPlainDate(text: string): boolean {
  const match = SHAPE.exec(text);
  return match !== null && fromParts(Number(match[1]), Number(match[2]), Number(match[3])) === text;
}

/** @returns the day, or null when no such day exists (or outside years 1900 to 2199) */
export function fromParts(year: number, month: number, day: number): PlainDate | null {
  if (year < 1900 || year > 2199) return null;
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day ? date.toISOString().slice(0, 10) : null;
}

/** Days since 1970-01-01. @throws RangeError unless a real day */
export function dayNumber(date: PlainDate): number {
  const time = Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)) - 1, Number(date.slice(8, 10)));
  if (Number.isNaN(time)) throw new RangeError(`not a day: ${date}`);
  return time / DAY_MS;
}

export const fromDayNumber = (day: number): PlainDate => new Date(day * DAY_MS).toISOString().slice(0, 10);

export const daysBetween = (from: PlainDate, to: PlainDate): number => dayNumber(to) - dayNumber(from);

export const addDays = (date: PlainDate, days: number): PlainDate => fromDayNumber(dayNumber(date) + days);

/** Same day of a later month, the last day where that month is shorter. */
export function addMonths(date: PlainDate, months: number): PlainDate {
  const index = Number(date.slice(0, 4)) * 12 + Number(date.slice(5, 7)) - 1 + months;
  const [year, month] = [Math.floor(index / 12), (index % 12) + 1];
  const last = new Date(Date.UTC(year, month, 0)).getUTCDate();
  return new Date(Date.UTC(year, month - 1, Math.min(Number(date.slice(8, 10)), last))).toISOString().slice(0, 10);
}

/** The Monday of the week that holds the day. */
export const mondayOf = (date: PlainDate): PlainDate => addDays(date, -((((dayNumber(date) + 3) % 7) + 7) % 7));
