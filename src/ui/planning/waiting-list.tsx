'use client';

import { useDraggable, useDroppable } from '@dnd-kit/core';
import { sayDay } from '@/core/calendar/day-names';
import { timeTo24 } from '@/core/calendar/zone';
import type { BoardJob } from '@/core/planning/board-week';
import { named, type PlanProblem, type PlanSlot } from '@/core/planning/plan-problem';
import { moneyText } from '@/text/format';
import { whatText } from '@/text/planning-words';
import { WeekCost } from '../primitives/week-cost';

/** Over it a job is taken off the plan. */
export const OFF_PLAN = 'off the plan';
const SHOWN = 12;

interface Props {
  readonly jobs: readonly BoardJob[];
  readonly problem: PlanProblem;
  readonly currency: string;
  readonly canMove: boolean;
  readonly chosen: string | null;
  readonly onChoose: (job: string) => void;
  readonly onPlace: (job: BoardJob, to: PlanSlot) => void;
}

/** What waits, by what another week costs, with where it could be done, or why it cannot. */
export function WaitingList({ jobs, ...props }: Props) {
  const { setNodeRef, isOver } = useDroppable({ id: OFF_PLAN });
  const ranked = [...jobs].sort((a, b) => weekOf(b) - weekOf(a));
  return (
    <section className="waiting-list" ref={setNodeRef} data-over={isOver || undefined} aria-label="Waiting">
      <h2>
        Waiting <span className="soft small">what another week costs</span>
      </h2>
      {ranked.length === 0 && <p className="soft">Nothing waits: all that is due is on the plan.</p>}
      <ul>
        {ranked.slice(0, SHOWN).map((job) => (
          <WaitingJob key={job.id} job={job} {...props} />
        ))}
      </ul>
      {ranked.length > SHOWN && (
        <details>
          <summary>{ranked.length - SHOWN} more</summary>
          <ul>
            {ranked.slice(SHOWN).map((job) => (
              <WaitingJob key={job.id} job={job} {...props} />
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

const weekOf = ({ weekCost }: BoardJob): number => weekCost ?? 0;

function WaitingJob({
  job,
  problem,
  currency,
  canMove,
  chosen,
  onChoose,
  onPlace,
}: Omit<Props, 'jobs'> & { job: BoardJob }) {
  const { setNodeRef, listeners, attributes, isDragging } = useDraggable({ id: job.id, disabled: !canMove });
  const { place } = job;
  return (
    <li data-dragging={isDragging || undefined} data-chosen={chosen === job.id || undefined}>
      <button
        type="button"
        ref={setNodeRef}
        aria-describedby={attributes['aria-describedby']}
        {...listeners}
        aria-roledescription={canMove ? 'job that can be moved' : undefined}
        aria-pressed={chosen === job.id}
        onClick={() => onChoose(job.id)}
      >
        <span>
          <strong>{job.unitNumber}</strong> {job.name}
          <span className="soft small"> · {whatText(job)}</span>
        </span>
        <strong>
          <WeekCost unit={job.unitNumber} amount={job.weekCost} currency={currency} />
        </strong>
      </button>
      {place?.slot && canMove && (
        <button
          type="button"
          className="link small"
          onClick={() => onPlace(job, place.slot)}
          title={`It saves ${moneyText(Math.round(place.saves), currency)} against leaving it.`}
        >
          Plan on {placeText(problem, place.slot)}
        </button>
      )}
      {place && !place.slot && <span className="soft small">{place.message}</span>}
    </li>
  );
}

/** "Mon 16 Nov 11:30, Bay 1, A. Corrie" */
export function placeText({ bays, people }: PlanProblem, { day, startMin, bay, person }: PlanSlot): string {
  const where = [bays.find(({ id }) => id === bay), people.find(({ id }) => id === person)];
  return [
    `${sayDay(day)} ${timeTo24(startMin)}`,
    ...where.flatMap((resource) => (resource ? [named(resource)] : [])),
  ].join(', ');
}
