'use client';

import { useMemo, useState } from 'react';
import { type Placing, troublesOf } from '@/core/planning/board';
import type { BoardWeek } from '@/core/planning/board-week';
import { barsOf, hoursShown, lanesOf, type Reading } from './board-shape';

/** A week as the board draws it: lanes of the chosen reading, bars, hours, and what cannot be as it is booked. */
export function useShape(week: BoardWeek, placing: Placing) {
  const { problem, today } = week;
  const [reading, setReading] = useState<Reading>('bays');
  const [dayShown, setDayShown] = useState(problem.days.includes(today) ? today : (problem.days[0] ?? ''));
  const lanes = useMemo(() => lanesOf(problem, reading), [problem, reading]);
  const bars = useMemo(() => barsOf(week, placing), [week, placing]);
  const hours = useMemo(() => hoursShown(lanes, bars), [lanes, bars]);
  const troubles = useMemo(
    () =>
      troublesOf(
        problem,
        bars.map(({ job, slot, fromMin, toMin }) => ({
          ...slot,
          job: job.id,
          name: `unit ${job.unitNumber}`,
          fromMin,
          toMin,
          isBegun: job.isBegun,
          isFinished: job.isFinished,
        })),
      ),
    [problem, bars],
  );
  return { reading, setReading, dayShown, setDayShown, lanes, bars, hours, troubles };
}
