import { type PlainDate, type Weekday, weekdayOf } from './plain-date';

/** From Monday to Sunday. */
export const DAY_NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

export const dayName = (day: Weekday): string => DAY_NAMES[day - 1] ?? '';
export const MONTH_NAMES = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** "Fri 5 Mar" */
export const sayDay = (day: PlainDate): string =>
  `${nameOfDay(day)} ${Number(day.slice(8))} ${MONTH_NAMES[Number(day.slice(5, 7)) - 1]}`;

export const nameOfDay = (day: PlainDate): string => dayName(weekdayOf(day));
