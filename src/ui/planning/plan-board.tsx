'use client';

import { DndContext, MeasuringStrategy } from '@dnd-kit/core';
import { useEffect, useState } from 'react';
import { type Placing, pressureLeft, type Trouble } from '@/core/planning/board';
import type { BoardJob, BoardWeek } from '@/core/planning/board-week';
import { isSameSlot, type PlanSlot } from '@/core/planning/plan-problem';
import type { FormAction } from '../primitives/action-form';
import { Barometer } from './barometer';
import { BoardGrid } from './board-grid';
import { BoardSummary } from './board-summary';
import { BoardSaid, BoardTools } from './board-tools';
import { ChosenJob } from './chosen-job';
import { useBoard } from './use-board';
import { useDrag } from './use-drag';
import { useShape } from './use-shape';
import { placeText, WaitingList } from './waiting-list';

/** The week of a depot: its bays and people as two readings of the same jobs, what waits, and what each move would do. */
export function PlanBoard({ week, canMove, goOn }: { week: BoardWeek; canMove: boolean; goOn: FormAction | null }) {
  const { problem, jobs, currency, today } = week;
  const [chosen, setChosen] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const { placing, move, undo, pin, told, tell } = useBoard(week, isBusy);
  const shape = useShape(week, placing);
  const drag = useDrag({ week, placing, ...shape });
  useUndoKey(undo);
  const { inHand } = drag;
  const after = inHand && inHand.judgement.breaks.length === 0 ? new Map(placing).set(inHand.job, inHand.to) : null;
  const left = pressureLeft(problem, jobs, placing);
  const waiting = jobs.filter(({ id, isFinished }) => !placing.has(id) && !isFinished);
  const go = (job: BoardJob, to: PlanSlot | null): void => {
    const where = to ? `to ${placeText(problem, to)}` : 'off the plan';
    void move(job.id, to, `unit ${job.unitNumber} ${where}`);
  };
  const letGo = (id: string | null): void => {
    const job = jobs.find((job) => job.id === id);
    if (job && drag.isOff && placing.has(job.id)) go(job, null);
    else if (job && inHand && isNew(placing, inHand.to, job.id) && inHand.judgement.breaks.length === 0)
      go(job, inHand.to);
    else if (job) tell({ isFault: false, words: staysText(job, inHand?.judgement.breaks ?? []) });
    setIsBusy(false);
    drag.letGo();
  };
  return (
    <DndContext
      id="board"
      sensors={drag.sensors}
      collisionDetection={drag.collisions}
      measuring={MEASURING}
      accessibility={SPOKEN}
      onDragStart={({ active }) => {
        setIsBusy(true);
        setChosen(String(active.id));
      }}
      onDragMove={drag.onDragMove}
      onDragOver={drag.onDragMove}
      onDragEnd={({ active }) => letGo(String(active.id))}
      onDragCancel={() => letGo(null)}
    >
      <BoardSummary {...{ week, placing, waiting, left }} troubled={shape.troubles.length} />
      <BoardTools
        days={problem.days}
        reading={shape.reading}
        onReading={shape.setReading}
        dayShown={shape.dayShown}
        onDay={shape.setDayShown}
        undo={canMove ? undo : undefined}
      >
        <BoardSaid {...{ inHand, told, week }} />
      </BoardTools>
      <div className="board-and-side">
        <div className="board">
          <Barometer
            left={after ? pressureLeft(problem, jobs, after) : left}
            before={after ? left : null}
            days={problem.days}
            currency={currency}
          />
          <BoardGrid
            {...{ week, chosen, canMove, inHand }}
            {...shape}
            placing={after ?? placing}
            onChoose={setChosen}
          />
        </div>
        <div className="board-side" data-no-print>
          <Chosen
            job={jobs.find(({ id }) => id === chosen)}
            {...{ problem, placing, today, currency, canMove, goOn, isBusy }}
            onClose={() => setChosen(null)}
            troubles={shape.troubles}
            onMove={go}
            onPin={({ workOrderId, isPinned, booking }) =>
              workOrderId && booking && void pin(workOrderId, !isPinned, booking.version)
            }
          />
          <WaitingList jobs={waiting} {...{ problem, currency, canMove, chosen }} onChoose={setChosen} onPlace={go} />
        </div>
      </div>
    </DndContext>
  );
}

type ChosenProps = Omit<Parameters<typeof ChosenJob>[0], 'job' | 'troubles'> & {
  readonly job: BoardJob | undefined;
  readonly troubles: readonly Trouble[];
};

function Chosen({ job, troubles, ...props }: ChosenProps) {
  if (!job) return null;
  return (
    <ChosenJob
      {...props}
      job={job}
      troubles={troubles.filter((trouble) => trouble.job === job.id).map(({ message }) => message)}
    />
  );
}

const MEASURING = { droppable: { strategy: MeasuringStrategy.WhileDragging } };
/** The live line of the board says more than which lane a job is over. */
const SPOKEN = {
  screenReaderInstructions: {
    draggable:
      'To move this job press the space bar, then the arrow keys: left and right from lane to lane, up and down in time. The space bar lets it go, Escape puts it back.',
  },
  announcements: {
    onDragStart: () => undefined,
    onDragOver: () => undefined,
    onDragEnd: () => undefined,
    onDragCancel: () => 'Put back.',
  },
};

const staysText = ({ unitNumber }: BoardJob, breaks: readonly string[]): string =>
  `unit ${unitNumber} stays where it was${breaks.length > 0 ? `: there it cannot be, ${breaks.join('; ')}` : ''}`;

function isNew(placing: Placing, to: PlanSlot, job: string): boolean {
  const now = placing.get(job);
  return !now || !isSameSlot(now, to);
}

function useUndoKey(undo: (() => Promise<void>) | null): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      const isTyping = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
      if (isTyping || !undo || event.key !== 'z' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      void undo();
    };
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  }, [undo]);
}
