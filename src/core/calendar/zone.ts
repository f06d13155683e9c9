import type { PlainDate } from './plain-date';

/* Where a moment falls in a place's own day. Days and times of work are those of the depot. */

/** A moment by the clock on the wall there. */
interface WallClock {
  readonly day: PlainDate;
  /** Since midnight. */
  readonly minute: number;
}

const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(zone: string): Intl.DateTimeFormat {
  const known = formats.get(zone);
  if (known) return known;
  const made = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' });
  formats.set(zone, made);
  return made;
}

/** Whether it is a zone by the tz database, such as Europe/Lisbon. */
export function isZone(zone: string): boolean {
  try {
    return formatOf(zone) !== null;
  } catch {
    return false;
  }
}

/** @param zone by the tz database @throws RangeError for no such zone */
export function wallClock(instant: Date, zone: string): WallClock {
  const [day = '', time = ''] = formatOf(zone).format(instant).split(' ');
  return { day, minute: minuteOf(time) };
}

/** "08:30" as minutes since midnight; NaN for anything else. */
export function minuteOf(time: string): number {
  const match = /^(\d\d):(\d\d)$/.exec(time);
  const minute = match ? Number(match[1]) * 60 + Number(match[2]) : Number.NaN;
  return minute < 24 * 60 && Number(match?.[2]) < 60 ? minute : Number.NaN;
}

const two = (n: number): string => String(n).padStart(2, '0');

/** Minutes since midnight as "08:30"; from 24:00 on the next day's. */
export const timeOf = (minute: number): string => `${two(Math.floor(minute / 60) % 24)}:${two(minute % 60)}`;

/** The same where the end of a day is 24:00, as hours are written from and to. */
export const timeTo24 = (minute: number): string => `${two(Math.floor(minute / 60))}:${two(minute % 60)}`;
