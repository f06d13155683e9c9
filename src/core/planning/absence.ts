import ICAL from 'ical.js';
import { addDays, daysBetween, type PlainDate } from '../calendar/plain-date';
import { wallClock } from '../calendar/zone';
import { err, ok, type Result } from '../shared/result';
import type { DayWindow } from './plan-problem';
import { daysOf, readRecurrence } from './recurrence';

/* When a depot, a bay, a person or a vehicle cannot be had: once, or again and again by a rule of RFC 5545. */

export interface Absence {
  readonly from: PlainDate;
  /** Its last day; of a rule: of the first time. */
  readonly to: PlainDate;
  /** Within each day, minutes since midnight; null: the whole day. */
  readonly hours: { readonly fromMin: number; readonly toMin: number } | null;
  /** RRULE, "FREQ=WEEKLY;BYDAY=MO,TU"; null: once. */
  readonly rule: string | null;
  /** Days on which the rule does not hold. */
  readonly except: readonly PlainDate[];
}

const WHOLE_DAY = { fromMin: 0, toMin: 24 * 60 };

/** Reads a rule as a person or a file gives it. @param from its first day @returns it as it is kept, or what is wrong */
export function readRule(text: string, from: PlainDate): Result<string, string> {
  const read = readRecurrence(text, from);
  return read.ok ? ok(read.value.text) : read;
}

/** Why a rule that is kept cannot be followed; null: it can, or there is none. */
export function absenceFault({ rule, from }: Pick<Absence, 'rule' | 'from'>): string | null {
  if (rule === null) return null;
  const read = readRule(rule, from);
  return read.ok ? null : read.error;
}

/** Days on which each time of an absence begins, from the first of some days to the last. */
function beginnings({ from, to, rule, except }: Absence, first: PlainDate, last: PlainDate): readonly PlainDate[] {
  const read = rule === null ? null : readRecurrence(rule, from);
  // A rule that was kept before such rules were refused holds once.
  if (!read?.ok) return [from];
  const days = daysOf(read.value, from, addDays(first, -daysBetween(from, to)), last);
  return days.filter((day) => !except.includes(day));
}

/** The hours of some days that absences take. @param days in order */
export function hoursAway(absences: readonly Absence[], days: readonly PlainDate[]): readonly DayWindow[] {
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined) return [];
  return absences.flatMap((absence) => {
    const length = daysBetween(absence.from, absence.to);
    const taken = new Set(
      beginnings(absence, first, last).flatMap((day) => Array.from({ length: length + 1 }, (_, i) => addDays(day, i))),
    );
    return days.filter((day) => taken.has(day)).map((day) => ({ day, ...(absence.hours ?? WHOLE_DAY) }));
  });
}

/** Why somebody or something is away on some days: what the absences of each day are called. @param days in order */
export function reasonsAway(
  absences: readonly (Absence & { readonly what: string })[],
  days: readonly PlainDate[],
): readonly { readonly day: PlainDate; readonly what: string }[] {
  return absences.flatMap((absence) => hoursAway([absence], days).map(({ day }) => ({ day, what: absence.what })));
}

/** What is left of some hours when others are taken out of them. */
export function without(hours: readonly DayWindow[], taken: readonly DayWindow[]): readonly DayWindow[] {
  return taken.reduce<readonly DayWindow[]>(
    (left, out) =>
      left.flatMap((span) => {
        if (span.day !== out.day || out.toMin <= span.fromMin || span.toMin <= out.fromMin) return [span];
        return [
          ...(span.fromMin < out.fromMin ? [{ ...span, toMin: out.fromMin }] : []),
          ...(out.toMin < span.toMin ? [{ ...span, fromMin: out.toMin }] : []),
        ];
      }),
    hours,
  );
}

/** An absence as a calendar has it. */
interface CalendarAbsence extends Absence {
  readonly what: string;
  readonly uid: string;
}

/**
 * The events of an iCalendar file (RFC 5545) as absences, by the clock of the place: a time with a zone of its own is told by it, a
 * time in UTC by the zone of the depot.
 *
 * @param zone of the depot, by the tz database
 * @returns the events, or what is wrong with the file
 */
export function absencesFromCalendar(text: string, zone: string): Result<readonly CalendarAbsence[], string> {
  try {
    const calendar = new ICAL.Component(ICAL.parse(text));
    const events = calendar.getAllSubcomponents('vevent').filter((event) => event.hasProperty('dtstart'));
    if (calendar.name !== 'vcalendar') return err('This is no calendar: it does not begin with BEGIN:VCALENDAR.');
    return ok(events.map((component) => toAbsence(new ICAL.Event(component), zone)));
  } catch {
    return err('This is no calendar that can be read. Export it as iCalendar (.ics) and try again.');
  }
}

function toAbsence(event: ICAL.Event, zone: string): CalendarAbsence {
  const { startDate, endDate } = event;
  const [start, end] = [localOf(startDate, zone), localOf(endDate ?? startDate, zone)];
  const rule = event.component.getFirstPropertyValue('rrule');
  const read = rule === null ? null : readRule(String(rule), start.day);
  const isWhole = startDate.isDate;
  // The end of whole days is the day after, and an end at midnight belongs to the day before.
  const last = isWhole || end.minute === 0 ? addDays(end.day, -1) : end.day;
  const to = last < start.day ? start.day : last;
  const hours =
    isWhole || to !== start.day ? null : { fromMin: start.minute, toMin: end.minute === 0 ? 24 * 60 : end.minute };
  return {
    what: String(event.summary ?? '').slice(0, 120),
    uid: String(event.uid ?? '').slice(0, 200),
    from: start.day,
    to,
    hours: hours && hours.fromMin < hours.toMin ? hours : null,
    rule: read?.ok ? read.value : null,
    except: event.component
      .getAllProperties('exdate')
      .flatMap((property) => property.getValues().map((value) => String(value).slice(0, 10))),
  };
}

function localOf(time: ICAL.Time, zone: string): { readonly day: PlainDate; readonly minute: number } {
  if (!time.isDate && time.zone === ICAL.Timezone.utcTimezone) return wallClock(time.toJSDate(), zone);
  return { day: time.toString().slice(0, 10), minute: time.hour * 60 + time.minute };
}
