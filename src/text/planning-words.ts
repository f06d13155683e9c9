import { timeOf } from '@/core/calendar/zone';
import type { Absence } from '@/core/planning/absence';
import type { BoardJob } from '@/core/planning/board-week';
import { dateText } from './format';
import { partsText } from './task-words';

export { DAY_NAMES as DAY_WORDS } from '@/core/calendar/day-names';

const RULE_DAYS: Readonly<Record<string, string>> = {
  MO: 'Mon',
  TU: 'Tue',
  WE: 'Wed',
  TH: 'Thu',
  FR: 'Fri',
  SA: 'Sat',
  SU: 'Sun',
};
const EVERY: Readonly<Record<string, readonly [one: string, many: string]>> = {
  DAILY: ['day', 'days'],
  WEEKLY: ['week', 'weeks'],
  MONTHLY: ['month', 'months'],
  YEARLY: ['year', 'years'],
};

/** A rule in words where it is a common one, else as it stands: "every week on Mon Tue". */
function ruleWords(rule: string): string {
  const parts = new Map(rule.split(';').map((part) => part.split('=') as [string, string]));
  const every = EVERY[parts.get('FREQ') ?? ''];
  const known = ['FREQ', 'INTERVAL', 'BYDAY', 'UNTIL', 'COUNT', 'WKST'];
  if (!every || [...parts.keys()].some((key) => !known.includes(key))) return rule;
  const interval = Number(parts.get('INTERVAL') ?? 1);
  const days =
    parts
      .get('BYDAY')
      ?.split(',')
      .map((day) => RULE_DAYS[day] ?? day) ?? [];
  const until = parts.get('UNTIL');
  return [
    interval === 1 ? `every ${every[0]}` : `every ${interval} ${every[1]}`,
    days.length > 0 && `on ${days.join(' ')}`,
    until && `until ${dateText(`${until.slice(0, 4)}-${until.slice(4, 6)}-${until.slice(6, 8)}`)}`,
    parts.has('COUNT') && `${parts.get('COUNT')} times`,
  ]
    .filter(Boolean)
    .join(' ');
}

/** "16 Nov 2026 to 20 Nov 2026", "every week on Mon Tue from 2 Feb 2026, 08:00 to 12:00" */
export function absenceWords({ from, to, hours, rule, except }: Absence): string {
  const span = from === to ? dateText(from) : `${dateText(from)} to ${dateText(to)}`;
  const times = hours ? `, ${timeOf(hours.fromMin)} to ${timeOf(hours.toMin)}` : '';
  const but = except.length > 0 ? `, not on ${except.map(dateText).join(', ')}` : '';
  return rule === null ? span + times : `${ruleWords(rule)} from ${span}${times}${but}`;
}

/** What a job of the board is on: "spark plugs, coil". */
export const whatText = ({ components }: Pick<BoardJob, 'components'>): string =>
  components.length === 0 ? 'work' : components.map((component) => partsText(component, 2)).join(', ');
