'use client';

import { useDraggable } from '@dnd-kit/core';
import { sayDay } from '@/core/calendar/day-names';
import type { PlainDate } from '@/core/calendar/plain-date';
import { timeTo24 } from '@/core/calendar/zone';
import { type KitState, kitOn } from '@/core/planning/board-week';
import { stopText } from '@/core/work/stop';
import { hoursText } from '@/text/format';
import { whatText } from '@/text/planning-words';
import { type Bar, PX_A_MINUTE } from './board-shape';

export const KIT_WORDS: Readonly<Record<KitState, string>> = {
  complete: 'parts here',
  coming: 'parts by delivery',
  short: 'parts short',
};

/** Full: all parts are here; half: they come by a delivery until then; open: they do not. */
function KitMark({ state }: { state: KitState }) {
  return (
    <svg
      className="kit"
      data-state={state}
      width="11"
      height="11"
      viewBox="0 0 11 11"
      role="img"
      aria-label={KIT_WORDS[state]}
    >
      <circle cx="5.5" cy="5.5" r="4.5" />
      {state === 'coming' && <path d="M1 5.5a4.5 4.5 0 0 0 9 0z" />}
    </svg>
  );
}

interface Props {
  readonly bar: Bar;
  readonly fromMin: number;
  /** The other side: the person in a bay's lane, the bay in a person's. */
  readonly other: string;
  readonly isChosen: boolean;
  readonly isTroubled: boolean;
  readonly canMove: boolean;
  readonly onChoose: () => void;
}

/** A job as long as its work: its left edge as thick and as hot as its pressure. */
export function JobBar({ bar, fromMin, other, isChosen, isTroubled, canMove, onChoose }: Props) {
  const { job, slot } = bar;
  const isFixed = !canMove || job.isPinned || job.isBegun || job.isFinished;
  const { setNodeRef, listeners, attributes, isDragging } = useDraggable({ id: job.id, disabled: isFixed });
  const kit = kitOn(job, slot.day);
  const words = [
    `unit ${job.unitNumber} ${job.name}`,
    `${sayDay(slot.day as PlainDate)} ${timeTo24(bar.fromMin)} to ${timeTo24(bar.toMin)}`,
    other,
    whatText(job),
    KIT_WORDS[kit],
    ...(job.isPinned ? ['pinned'] : []),
    ...(job.isFinished ? ['done'] : []),
    ...(job.isBegun && !job.isFinished ? ['work has begun'] : []),
    ...(job.stop ? [stopText(job.stop)] : []),
    ...(isTroubled ? ['cannot be as booked'] : []),
  ].join(', ');
  return (
    <button
      type="button"
      ref={setNodeRef}
      aria-describedby={attributes['aria-describedby']}
      {...listeners}
      aria-roledescription={isFixed ? undefined : 'job that can be moved'}
      aria-label={words}
      aria-pressed={isChosen}
      title={words}
      className="job-bar"
      data-heat={bar.heat}
      data-dragging={isDragging || undefined}
      data-fixed={isFixed || undefined}
      data-done={job.isFinished || undefined}
      data-troubled={isTroubled || undefined}
      style={{
        top: (bar.fromMin - fromMin) * PX_A_MINUTE,
        height: Math.max(18, (bar.toMin - bar.fromMin) * PX_A_MINUTE),
      }}
      onClick={onChoose}
    >
      <span className="job-head">
        <strong>{job.unitNumber}</strong>
        <span>
          {job.isPinned && (
            <svg width="9" height="9" viewBox="0 0 9 9" aria-hidden="true" className="pin">
              <path d="M4.5 0 9 4.5 4.5 9 0 4.5z" />
            </svg>
          )}
          {job.isFinished ? '✓' : <KitMark state={kit} />}
        </span>
      </span>
      <span className="job-name">{job.name}</span>
      {job.stop && <strong className="job-more wrong-ink">stopped</strong>}
      <span className="job-more">{whatText(job)}</span>
      <span className="job-more">{other}</span>
      <span className="job-more">{timeTo24(bar.fromMin)}</span>
      <span className="job-more">{hoursText(bar.toMin - bar.fromMin)}</span>
    </button>
  );
}
