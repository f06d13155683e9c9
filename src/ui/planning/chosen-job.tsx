'use client';

import { X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { sayDay } from '@/core/calendar/day-names';
import { minuteOf, timeTo24 } from '@/core/calendar/zone';
import { judgeMove, type Placing } from '@/core/planning/board';
import { type BoardJob, kitOn } from '@/core/planning/board-week';
import { isSameSlot, named, type PlanProblem, type PlanSlot } from '@/core/planning/plan-problem';
import { hoursText, moneyText } from '@/text/format';
import { whatText } from '@/text/planning-words';
import type { FormAction } from '../primitives/action-form';
import { Button } from '../primitives/button';
import { TextLink } from '../primitives/links';
import { LiveSelect, LiveText } from '../primitives/live-fields';
import { Tip } from '../primitives/tip';
import { StoppedBanner } from '../work-orders/stopped-banner';
import { differenceText } from './board-shape';
import { KIT_WORDS } from './job-bar';
import { placeText } from './waiting-list';

interface Props {
  readonly job: BoardJob;
  readonly problem: PlanProblem;
  readonly placing: Placing;
  readonly today: string;
  readonly currency: string;
  readonly canMove: boolean;
  readonly goOn: FormAction | null;
  /** Some job is being moved: nothing moves under it. */
  readonly isBusy: boolean;
  readonly troubles: readonly string[];
  readonly onMove: (job: BoardJob, to: PlanSlot | null) => void;
  readonly onPin: (job: BoardJob) => void;
  readonly onClose: () => void;
}

/** One job of the board: where it stands and why, the money behind it, and how to move it without dragging. */
export function ChosenJob(props: Props) {
  const { job, problem, placing, currency, canMove, goOn, isBusy, troubles, onMove, onPin, onClose } = props;
  const slot = placing.get(job.id) ?? null;
  const canGo = canMove && !job.isBegun && !job.isFinished && !job.isPinned;
  const proposed = canGo && slot === null ? (job.place?.slot ?? null) : null;
  const panel = useRef<HTMLElement>(null);
  // On a tablet the panel stands below the board.
  // biome-ignore lint/correctness/useExhaustiveDependencies: another job is shown in the same panel
  useEffect(() => {
    if (!isBusy) panel.current?.scrollIntoView({ block: 'nearest' });
  }, [job.id]);
  useEscape(isBusy ? null : onClose);
  return (
    <section className="chosen-job" ref={panel} aria-label={`Unit ${job.unitNumber}`}>
      <div className="chosen-head">
        <h2>
          {job.unitNumber} {job.name}
        </h2>
        <Tip words="Close (Escape)">
          <Button aria-label="Close" onClick={onClose}>
            <X size={16} />
          </Button>
        </Tip>
      </div>
      <p>
        {slot ? placeText(problem, slot) : 'Not on the plan'} · {hoursText(job.minutes)}
        {job.estimate > job.minutes && (
          <span className="wrong-ink">
            {' '}
            · booked for {hoursText(job.minutes)}, now estimated {hoursText(job.estimate)}
          </span>
        )}
      </p>
      {job.stop && job.workOrderId && <StoppedBanner stops={[job.stop]} workOrderId={job.workOrderId} goOn={goOn} />}
      {job.why && slot && <p>{job.why}</p>}
      <ul>
        <li>
          {whatText(job)}
          {job.number === null ? ', due without a work order' : ''}
        </li>
        <li>
          {KIT_WORDS[kitOn(job, slot?.day ?? null)]}
          {job.short.map(({ number, from }) => (
            <span key={number}>
              {' '}
              · <span className="mono">{number}</span> from {sayDay(from)}
            </span>
          ))}
        </li>
        {job.coolFromMin !== null && <li>cold enough from {timeTo24(job.coolFromMin)}</li>}
        {job.likely && !job.isFinished && (
          <li>
            four of five like it take {hoursText(job.likely.fromMin)} to {hoursText(job.likely.toMin)}
          </li>
        )}
        {troubles.map((words) => (
          <li key={words} className="wrong-ink">
            {words}
          </li>
        ))}
      </ul>
      {job.costs && <CostTable job={job} problem={problem} slot={slot} currency={currency} />}
      {canGo && <MoveForm key={`${job.id} ${slot?.day} ${slot?.startMin} ${slot?.bay}`} {...props} slot={slot} />}
      <div className="chosen-actions">
        {proposed && (
          <Button main onClick={() => onMove(job, proposed)}>
            Plan on {placeText(problem, proposed)}
          </Button>
        )}
        {canMove && job.booking && !job.isBegun && !job.isFinished && (
          <Button onClick={() => onPin(job)}>{job.isPinned ? 'Take the pin off' : 'Pin it here'}</Button>
        )}
        {canGo && slot && <Button onClick={() => onMove(job, null)}>Take off the plan</Button>}
        {job.workOrderId ? (
          <TextLink href={`/work-orders/${job.workOrderId}`}>Work order {job.number}</TextLink>
        ) : (
          <TextLink href={`/vehicles/${job.vehicleId}`}>Vehicle {job.unitNumber}</TextLink>
        )}
      </div>
    </section>
  );
}

/** Escape closes the panel. @param close null: Escape is for the job that is being moved, and only puts it back */
function useEscape(close: (() => void) | null) {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented) close?.();
    };
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  }, [close]);
}

/** What each day would cost, and from what. */
function CostTable({
  job,
  problem,
  slot,
  currency,
}: {
  job: BoardJob;
  problem: PlanProblem;
  slot: PlanSlot | null;
  currency: string;
}) {
  const { costs } = job;
  if (!costs) return null;
  const cells = (cost: { waiting: number; thrownAway: number; downtime: number; total: number }) =>
    [cost.waiting, cost.thrownAway, cost.downtime, cost.total].map((value) =>
      moneyText(Number(value.toFixed(2)), currency),
    );
  const rows = [
    ...problem.days.map((day, i) => ({ name: sayDay(day), of: costs.byDay[i], isHere: slot?.day === day })),
    { name: 'left out', of: costs.unplanned, isHere: slot === null },
  ];
  return (
    <table className="cost-table">
      <caption>
        What each day costs. Left out: four weeks more, and the downtime all the same.{' '}
        <TextLink href={`/vehicles/${job.vehicleId}#pressure`}>What waiting costs comes from</TextLink>
      </caption>
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">Waiting</th>
          <th scope="col">Life left</th>
          <th scope="col">Downtime</th>
          <th scope="col">Total</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, of, isHere }) => (
          <tr key={name} data-here={isHere || undefined}>
            <th scope="row">{name}</th>
            {of && cells(of).map((text, i) => <td key={HEADS[i]}>{text}</td>)}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
const HEADS = ['waiting', 'life', 'downtime', 'total'];

/** The same as dragging, for whoever types, taps or listens: what it costs and breaks is said before it is moved. */
function MoveForm({ job, problem, placing, today, currency, slot, onMove }: Props & { slot: PlanSlot | null }) {
  const first = slot ?? job.place?.slot ?? null;
  const [day, setDay] = useState(first?.day ?? problem.days.find((day) => day >= today) ?? '');
  const [start, setStart] = useState(timeTo24(first?.startMin ?? 8 * 60));
  const [bay, setBay] = useState(first?.bay ?? problem.bays[0]?.id ?? '');
  const [person, setPerson] = useState(first?.person ?? problem.people[0]?.id ?? '');
  const startMin = minuteOf(start);
  const to = { day, bay, person, startMin };
  const isSame = slot !== null && isSameSlot(slot, to);
  const judged = Number.isNaN(startMin)
    ? { difference: 0, breaks: ['give the start as 08:30'] }
    : judgeMove(problem, placing, { job: job.id, to }, today);
  return (
    <details className="move-form">
      <summary>{slot ? 'Move it' : 'Plan it'} by typing</summary>
      <div>
        <LiveSelect
          label="Day"
          value={day}
          onChange={setDay}
          choices={problem.days.map((day) => ({ value: day, label: sayDay(day) }))}
        />
        <LiveText label="Start" value={start} onChange={setStart} inputMode="text" />
        <LiveSelect
          label="Bay"
          value={bay}
          onChange={setBay}
          choices={problem.bays.map((bay) => ({ value: bay.id, label: named(bay) }))}
        />
        <LiveSelect
          label="Person"
          value={person}
          onChange={setPerson}
          choices={problem.people.map((person) => ({ value: person.id, label: named(person) }))}
        />
      </div>
      {!isSame && (
        <p aria-live="polite" className={judged.breaks.length > 0 ? 'wrong-ink' : undefined}>
          {judged.breaks.length > 0
            ? `Cannot be: ${judged.breaks.join('; ')}.`
            : differenceText(judged.difference, currency)}
        </p>
      )}
      <Button disabled={isSame || judged.breaks.length > 0} onClick={() => onMove(job, to)}>
        {slot ? 'Move' : 'Plan'}
      </Button>
    </details>
  );
}
