import { type PlainDate, type Weekday, weekdayOf } from './plain-date';

/** From Monday to Sunday. */
export const DAY_NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

export const dayName = (day: Weekday): string => DAY_NAMES[day - 1] ?? '';
export const nameOfDay = (day: PlainDate): string => dayName(weekdayOf(day));
