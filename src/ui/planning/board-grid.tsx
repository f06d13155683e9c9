'use client';

import type { Placing, Trouble } from '@/core/planning/board';
import type { BoardWeek } from '@/core/planning/board-week';
import { BoardDay, type InHand } from './board-day';
import { type Bar, type Lane, PX_A_MINUTE, type Reading } from './board-shape';
import { LoadStrip } from './load-strip';

interface Props {
  readonly week: BoardWeek;
  readonly placing: Placing;
  readonly lanes: readonly Lane[];
  readonly bars: readonly Bar[];
  readonly hours: { readonly fromMin: number; readonly toMin: number };
  readonly reading: Reading;
  readonly dayShown: string;
  readonly chosen: string | null;
  readonly troubles: readonly Trouble[];
  readonly canMove: boolean;
  readonly inHand: InHand | null;
  readonly onChoose: (job: string) => void;
}

/** Days across, time down; under them the other reading in short, and what cannot be as it is booked. */
export function BoardGrid({ week, dayShown, troubles, ...props }: Props) {
  const { problem, today, nowMin, currency, elsewhere, away } = week;
  const troubled = new Set(troubles.map(({ job }) => job));
  return (
    <>
      <div className="board-days">
        <div className="hours" aria-hidden="true">
          {hourMarks(props.hours).map((minute) => (
            <span key={minute} style={{ top: (minute - props.hours.fromMin) * PX_A_MINUTE }}>
              {minute / 60}
            </span>
          ))}
        </div>
        {problem.days.map((day) => (
          <BoardDay
            key={day}
            {...props}
            {...{ day, problem, nowMin, currency, elsewhere, away }}
            isToday={day === today}
            isShown={day === dayShown}
            troubled={troubled}
          />
        ))}
      </div>
      <LoadStrip problem={problem} placing={props.placing} reading={props.reading} />
      {troubles.length > 0 && (
        <section className="troubles" aria-label="Cannot be as booked">
          <h2>Cannot be as booked</h2>
          <ul>
            {troubles.map(({ job, message }) => (
              <li key={`${job} ${message}`}>{message}</li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

const hourMarks = ({ fromMin, toMin }: { fromMin: number; toMin: number }): readonly number[] =>
  Array.from({ length: (toMin - fromMin) / 60 + 1 }, (_, i) => fromMin + i * 60);
