import type { Learned } from '@/core/work/procedure/learned';
import { hoursText } from './format';

interface Estimated {
  readonly minutes: number;
  readonly computedMinutes: number | null;
}

/** "3 h 20 min estimated (2 h 50 to 4 h), from 14 visits of this engine, 9 with this access" */
export function minutesText({ minutes, computedMinutes }: Estimated, learned: Learned): string {
  const base = computedMinutes ?? minutes;
  const range = `${hoursText(Math.round(base * learned.low))} to ${hoursText(Math.round(base * learned.high))}`;
  const from =
    learned.jobs === 0
      ? 'by its steps; no visit of this engine has been clocked yet'
      : `by its steps and ${learned.jobs} clocked ${learned.jobs === 1 ? 'visit' : 'visits'} of this engine, ${learned.alike} with this access`;
  return `${hoursText(minutes)} estimated, usually ${range}, ${from}`;
}
