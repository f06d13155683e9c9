'use client';

import type { ReactNode } from 'react';
import { nameOfDay } from '@/core/calendar/day-names';
import type { BoardWeek } from '@/core/planning/board-week';
import { Button } from '../primitives/button';
import type { InHand } from './board-day';
import { differenceText, type Reading } from './board-shape';
import type { Told } from './use-board';
import { placeText } from './waiting-list';

interface Props {
  readonly days: readonly string[];
  readonly reading: Reading;
  readonly onReading: (reading: Reading) => void;
  readonly dayShown: string;
  readonly onDay: (day: string) => void;
  /** Null: there is nothing to take back. Left out: nothing can be moved here. */
  readonly undo?: (() => Promise<void>) | null;
  /** What is said of the job in hand, or of what was done last. */
  readonly children: ReactNode;
}

/** Which reading is shown, undo, and on a phone which day. */
export function BoardTools({ days, reading, onReading, dayShown, onDay, undo, children }: Props) {
  return (
    <div className="board-tools" data-no-print>
      <fieldset>
        <legend className="sr-only">Reading</legend>
        {(['bays', 'people'] as const).map((each) => (
          <Button key={each} aria-pressed={reading === each} onClick={() => onReading(each)}>
            {each === 'bays' ? 'By bay' : 'By person'}
          </Button>
        ))}
      </fieldset>
      {undo !== undefined && (
        <Button disabled={!undo} onClick={() => void undo?.()}>
          Undo
        </Button>
      )}
      <fieldset className="day-choice">
        <legend className="sr-only">Day</legend>
        {days.map((day) => (
          <Button key={day} aria-pressed={day === dayShown} onClick={() => onDay(day)}>
            {nameOfDay(day)}
          </Button>
        ))}
      </fieldset>
      {children}
    </div>
  );
}

/** What the job in hand would do where it is held; else what was done last. */
export function BoardSaid({ inHand, told, week }: { inHand: InHand | null; told: Told | null; week: BoardWeek }) {
  return (
    <div className="board-said" aria-live="polite" data-no-print>
      {inHand && <HandText inHand={inHand} week={week} />}
      {!inHand && told && (
        <span role={told.isFault ? 'alert' : undefined} className={told.isFault ? 'wrong-ink' : undefined}>
          {told.words}
        </span>
      )}
    </div>
  );
}

function HandText({ inHand, week }: { inHand: InHand; week: BoardWeek }) {
  const { judgement, to, unitNumber } = inHand;
  const where = `${unitNumber} on ${placeText(week.problem, to)}`;
  if (judgement.breaks.length > 0)
    return (
      <span className="wrong-ink">
        {where}: cannot be, {judgement.breaks.join('; ')}
      </span>
    );
  return (
    <span>
      {where}: <strong>{differenceText(judgement.difference, week.currency)}</strong>
    </span>
  );
}
