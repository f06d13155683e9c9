'use client';

import { DndContext } from '@dnd-kit/core';
import { useState } from 'react';
import type { Placing } from '@/core/planning/board';
import { pressureLeft } from '@/core/planning/board';
import { type BoardWeek, placingOf } from '@/core/planning/board-week';
import { Barometer } from './barometer';
import { BoardGrid } from './board-grid';
import { BoardTools } from './board-tools';
import { useShape } from './use-shape';

interface Props {
  readonly week: BoardWeek;
  /** Where the same jobs are agreed to be. */
  readonly agreed: Placing;
  /** Why each is where it is. */
  readonly whys: Readonly<Record<string, string>>;
}

/** A week of a plan that is not agreed yet, to look at. Dashed: the week as it was agreed. */
export function ProposalBoard({ week, agreed, whys }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  const placing = placingOf(week.jobs);
  const shape = useShape(week, placing);
  const { problem, jobs, currency } = week;
  return (
    <DndContext id="proposal">
      <BoardTools
        days={problem.days}
        reading={shape.reading}
        onReading={shape.setReading}
        dayShown={shape.dayShown}
        onDay={shape.setDayShown}
      >
        <p className="board-said" aria-live="polite">
          {chosen === null ? 'Press a job to read why it stands there.' : whys[chosen]}
        </p>
      </BoardTools>
      <div className="board">
        <Barometer
          left={pressureLeft(problem, jobs, placing)}
          before={pressureLeft(problem, jobs, agreed)}
          days={problem.days}
          currency={currency}
        />
        <BoardGrid
          {...{ week, chosen, placing }}
          {...shape}
          troubles={[]}
          canMove={false}
          inHand={null}
          onChoose={(job) => setChosen(job === chosen ? null : job)}
        />
      </div>
    </DndContext>
  );
}
