import { dayName } from '../calendar/day-names';
import { type PlainDate, WEEKDAYS, type Weekday, weekdayOf } from '../calendar/plain-date';
import { timeTo24 } from '../calendar/zone';
import { type Absence, hoursAway, without } from './absence';
import type { WorkingHours } from './hours';
import type { DayWindow } from './plan-problem';

/** From and to on each day of the week, minutes since midnight; a day that is not named is free. */
export type WeekHours = Readonly<Partial<Record<Weekday, { readonly fromMin: number; readonly toMin: number }>>>;

/** The same from working days that are all alike. */
export const weekOf = ({ workingDays, fromMin, toMin }: WorkingHours): WeekHours =>
  Object.fromEntries(workingDays.map((day) => [day, { fromMin, toMin }]));

/** The hours on some days by the week, less what is taken out of them. */
export function present(
  week: WeekHours,
  absences: readonly Absence[],
  days: readonly PlainDate[],
): readonly DayWindow[] {
  const hours = days.flatMap((day): readonly DayWindow[] => {
    const hoursOfDay = week[weekdayOf(day)];
    return hoursOfDay && hoursOfDay.fromMin < hoursOfDay.toMin ? [{ day, ...hoursOfDay }] : [];
  });
  return without(hours, hoursAway(absences, days));
}

/** "Mon Tue Wed 08:00-16:00, Fri 08:00-12:00" */
export function weekText(week: WeekHours): string {
  const groups: { days: string[]; hours: string }[] = [];
  for (const day of WEEKDAYS) {
    const hoursOfDay = week[day];
    if (!hoursOfDay) continue;
    const hours = `${timeTo24(hoursOfDay.fromMin)}-${timeTo24(hoursOfDay.toMin)}`;
    const known = groups.find((group) => group.hours === hours);
    if (known) known.days.push(dayName(day));
    else groups.push({ days: [dayName(day)], hours });
  }
  return groups.map(({ days, hours }) => `${days.join(' ')} ${hours}`).join(', ');
}

const HOURS = /^([01]?\d|2[0-4]):([0-5]\d)\s*[-–]\s*([01]?\d|2[0-4]):([0-5]\d)$/;

/** Reads what `weekText` writes. @returns null: it cannot be read */
export function weekFromText(text: string): WeekHours | null {
  const week: Partial<Record<Weekday, { fromMin: number; toMin: number }>> = {};
  for (const part of text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)) {
    const cut = part.search(/\d/);
    const hours = HOURS.exec(part.slice(cut));
    const days = part
      .slice(0, Math.max(0, cut))
      .trim()
      .toLowerCase()
      .split(/[\s/]+/)
      .filter(Boolean);
    if (!hours || days.length === 0) return null;
    const [fromMin, toMin] = [Number(hours[1]) * 60 + Number(hours[2]), Number(hours[3]) * 60 + Number(hours[4])];
    if (fromMin >= toMin || toMin > 24 * 60) return null;
    for (const name of days) {
      const day = WEEKDAYS.find((weekday) => dayName(weekday).toLowerCase() === name.slice(0, 3));
      if (!day || week[day]) return null;
      week[day] = { fromMin, toMin };
    }
  }
  return week;
}
