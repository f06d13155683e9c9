'use client';

import {
  type Collision,
  type CollisionDetection,
  closestCenter,
  type DragMoveEvent,
  type DragOverEvent,
  type KeyboardCoordinateGetter,
  KeyboardSensor,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useState } from 'react';
import { judgeMove, type Placing, slotOf } from '@/core/planning/board';
import type { BoardWeek } from '@/core/planning/board-week';
import { minutesTaken } from '@/core/planning/plan-check';
import type { InHand } from './board-day';
import { type Bar, endsIn, type Lane, PX_A_MINUTE, type Reading, snapped } from './board-shape';
import { OFF_PLAN } from './waiting-list';

/** By keyboard a job moves in steps of so much time. */
const STEP_PX = 15 * PX_A_MINUTE;
/** From beside the board a job is taken to its first lane. */
const EDGE_PX = 8;

/** Left and right go from lane to lane, up and down in time. */
const byKeys: KeyboardCoordinateGetter = (event, { currentCoordinates, context }) => {
  const { x, y } = currentCoordinates;
  const vertical = { ArrowUp: -STEP_PX, ArrowDown: STEP_PX }[event.code];
  if (vertical !== undefined) {
    event.preventDefault();
    return { x, y: y + vertical };
  }
  const way = { ArrowLeft: -1, ArrowRight: 1 }[event.code];
  if (way === undefined) return undefined;
  event.preventDefault();
  const lanes = [...context.droppableRects]
    .filter(([id, rect]) => id !== OFF_PLAN && rect.width > 0)
    .map(([, rect]) => rect)
    .sort((a, b) => a.left - b.left);
  const middle = x + (context.collisionRect?.width ?? 0) / 2;
  const next =
    way > 0
      ? lanes.find((rect) => rect.left + rect.width / 2 > middle + EDGE_PX)
      : lanes.findLast((rect) => rect.left + rect.width / 2 < middle - EDGE_PX);
  if (!next) return undefined;
  // Wide jobs and narrow lanes have their middles one above the other.
  const top = Math.min(Math.max(y, next.top), next.bottom - STEP_PX);
  return { x: next.left + next.width / 2 - (context.collisionRect?.width ?? 0) / 2, y: top };
};

/** Over the list of what waits where the pointer is; else the nearest lane. */
const nearest: CollisionDetection = (args): Collision[] => {
  const over = pointerWithin(args).find(({ id }) => id === OFF_PLAN);
  if (over) return [over];
  return closestCenter({ ...args, droppableContainers: args.droppableContainers.filter(({ id }) => id !== OFF_PLAN) });
};

const KEYS = { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] };

interface Board {
  readonly week: BoardWeek;
  readonly placing: Placing;
  readonly lanes: readonly Lane[];
  readonly bars: readonly Bar[];
  readonly hours: { readonly fromMin: number };
  readonly reading: Reading;
}

/** Where the job in hand would lie; null: over nothing. */
function landingOf({ active, over }: DragMoveEvent | DragOverEvent, board: Board): InHand | null {
  const { week, placing, lanes, bars, hours, reading } = board;
  const id = String(active.id);
  const [day = '', laneId = ''] = String(over?.id ?? '').split('|');
  const job = week.jobs.find((job) => job.id === id);
  const lane = lanes.find((lane) => lane.id === laneId);
  const held = active.rect.current.translated;
  if (!job || !over || !held || !lane) return null;
  const raw = hours.fromMin + (held.top - over.rect.top) / PX_A_MINUTE;
  const startMin = snapped(raw, job, endsIn(lane, day, bars, reading, id));
  const landing = reading === 'bays' ? { day, startMin, bay: lane.id } : { day, startMin, person: lane.id };
  const to = slotOf(week.problem, placing, id, landing, week.today);
  if (!to) return null;
  const judgement = judgeMove(week.problem, placing, { job: id, to }, week.today);
  return { job: id, unitNumber: job.unitNumber, minutes: minutesTaken(week.problem, job, to), to, judgement };
}

/** What a job in hand would do where it is held, while it is dragged by pointer, finger or keys. */
export function useDrag({ week, placing, lanes, bars, hours, reading }: Board) {
  const [inHand, setInHand] = useState<InHand | null>(null);
  const [isOff, setIsOff] = useState(false);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 200, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: byKeys, keyboardCodes: KEYS }),
  );
  const onDragMove = (event: DragMoveEvent | DragOverEvent): void => {
    setIsOff(event.over?.id === OFF_PLAN);
    const next = landingOf(event, { week, placing, lanes, bars, hours, reading });
    // Within one step nothing is drawn anew.
    setInHand((before) => (JSON.stringify(before) === JSON.stringify(next) ? before : next));
  };
  const letGo = (): void => {
    setInHand(null);
    setIsOff(false);
  };
  return { sensors, collisions: nearest, inHand, isOff, onDragMove, letGo };
}
