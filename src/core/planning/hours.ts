import { type PlainDate, type Weekday, weekdayOf } from '../calendar/plain-date';

/** When work is done: which days of the week, and from when to when by the clock of the place. */
export interface WorkingHours {
  readonly workingDays: readonly Weekday[];
  /** Minutes since midnight. */
  readonly fromMin: number;
  readonly toMin: number;
}

/** What a place starts with until somebody says otherwise: Monday to Friday, 08:00 to 16:00. */
export const USUAL_HOURS: WorkingHours = { workingDays: [1, 2, 3, 4, 5], fromMin: 8 * 60, toMin: 16 * 60 };

export const isWorkingDay = ({ workingDays }: Pick<WorkingHours, 'workingDays'>, day: PlainDate): boolean =>
  workingDays.includes(weekdayOf(day));

/** Minutes of work that a day holds there; 0 where nobody works. */
export const minutesOpen = (hours: WorkingHours, day: PlainDate): number =>
  isWorkingDay(hours, day) ? Math.max(0, hours.toMin - hours.fromMin) : 0;

/** Minutes of work in an ordinary week. */
export const minutesAWeek = ({ workingDays, fromMin, toMin }: WorkingHours): number =>
  workingDays.length * Math.max(0, toMin - fromMin);
