import type { PlainDate } from '@/core/calendar/plain-date';
import { barOf, type Placing } from '@/core/planning/board';
import type { BoardJob, BoardWeek } from '@/core/planning/board-week';
import { minutesTaken } from '@/core/planning/plan-check';
import type { DayWindow, PlanProblem, PlanSlot } from '@/core/planning/plan-problem';
import { named } from '@/core/planning/plan-problem';
import { moneyText } from '@/text/format';
import { withHeat } from '../pressure/chart-vehicle';

/* What the board draws: lanes of days, and bars in them. */

/** The two readings of the same jobs: a lane for each bay, or for each person. */
export type Reading = 'bays' | 'people';

/** Of a minute on the board. */
export const PX_A_MINUTE = 0.8;
/** Jobs are let go at quarters of an hour, or where something ends. */
const STEP_MIN = 15;
const SNAP_MIN = 12;

export interface Lane {
  readonly id: string;
  readonly name: string;
  readonly windows: readonly DayWindow[];
}

export const lanesOf = (problem: PlanProblem, reading: Reading): readonly Lane[] =>
  reading === 'bays'
    ? problem.bays.map((bay) => ({ id: bay.id, name: named(bay), windows: bay.open }))
    : problem.people.map((person) => ({ id: person.id, name: named(person), windows: person.shift }));

export const laneOf = (slot: PlanSlot, reading: Reading): string => (reading === 'bays' ? slot.bay : slot.person);

/** A job where it lies, from when to when it really is or will be. */
export interface Bar {
  readonly job: BoardJob;
  readonly slot: PlanSlot;
  readonly fromMin: number;
  readonly toMin: number;
  /** Place on the ramp from cold to hot, 0 to 5. */
  readonly heat: number;
}

/** By job, the highest pressure first. */
function heats(jobs: readonly BoardJob[]): ReadonlyMap<string, number> {
  const ranked = [...jobs].sort((a, b) => (b.weekly[0] ?? 0) - (a.weekly[0] ?? 0));
  return new Map(withHeat(ranked.map(({ id }) => ({ id }))).map(({ id, heat }) => [id, heat]));
}

export function barsOf({ problem, jobs, today, nowMin }: BoardWeek, placing: Placing): readonly Bar[] {
  const heat = heats(jobs);
  return jobs.flatMap((job) => {
    const slot = placing.get(job.id);
    if (!slot) return [];
    const now = slot.day === today && !job.isFinished ? nowMin : null;
    const span = barOf({ startMin: slot.startMin, minutes: minutesTaken(problem, job, slot) }, job.progress, now);
    return [{ job, slot, ...span, heat: heat.get(job.id) ?? 0 }];
  });
}

/** Whole hours that the board shows. */
export function hoursShown(lanes: readonly Lane[], bars: readonly Bar[]): { fromMin: number; toMin: number } {
  const all = [...lanes.flatMap(({ windows }) => windows), ...bars];
  if (all.length === 0) return { fromMin: 8 * 60, toMin: 16 * 60 };
  return {
    fromMin: Math.floor(Math.min(...all.map(({ fromMin }) => fromMin)) / 60) * 60,
    toMin: Math.ceil(Math.max(...all.map(({ toMin }) => toMin)) / 60) * 60,
  };
}

/** Where a job that is let go at a minute begins: where something ends that is near, else at the next quarter. */
export function snapped(rawMin: number, job: Pick<BoardJob, 'id' | 'coolFromMin'>, ends: readonly number[]): number {
  const near = [...ends, ...(job.coolFromMin === null ? [] : [job.coolFromMin])]
    .filter((end) => Math.abs(end - rawMin) <= SNAP_MIN)
    .sort((a, b) => Math.abs(a - rawMin) - Math.abs(b - rawMin))[0];
  return near ?? Math.max(0, Math.round(rawMin / STEP_MIN) * STEP_MIN);
}

/** Where something ends, or the lane begins, on a day. */
export const endsIn = (
  lane: Lane,
  day: PlainDate,
  bars: readonly Bar[],
  reading: Reading,
  but: string,
): readonly number[] => [
  ...lane.windows.filter((window) => window.day === day).map(({ fromMin }) => fromMin),
  ...bars
    .filter(({ job, slot }) => job.id !== but && slot.day === day && laneOf(slot, reading) === lane.id)
    .map(({ toMin }) => toMin),
];

/** "7.5" */
export const inHours = (minutes: number): string => String(Number((minutes / 60).toFixed(1)));

/** "+€21", "−€3", or that it makes no difference. */
export function differenceText(difference: number, currency: string): string {
  if (Math.abs(difference) < 0.5) return 'costs the same';
  return `${difference > 0 ? '+' : '−'}${moneyText(Math.round(Math.abs(difference)), currency)}`;
}
