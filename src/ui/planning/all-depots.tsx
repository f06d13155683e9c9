import { nameOfDay, sayDay } from '@/core/calendar/day-names';
import type { PlainDate } from '@/core/calendar/plain-date';
import { timeTo24 } from '@/core/calendar/zone';
import { loadOf } from '@/core/planning/board';
import { type BoardJob, type BoardWeek, placingOf } from '@/core/planning/board-week';
import { hoursText, moneyText } from '@/text/format';
import { whatText } from '@/text/planning-words';
import { TextLink } from '../primitives/links';
import { ListFrame } from '../primitives/plain-table';
import { inHours } from './board-shape';

interface Props {
  /** The same week of every depot. */
  readonly boards: readonly BoardWeek[];
  /** The address of a depot's board. */
  readonly to: (depot: string) => string;
}

/** The week of every depot, a lane each: what is booked on which day, how full its bays are, and what waits. */
export function AllDepots({ boards, to }: Props) {
  const days = [...new Set(boards.flatMap(({ problem }) => problem.days))].sort();
  return (
    <ListFrame>
      <table className="list all-depots" data-keep>
        <thead>
          <tr>
            <th scope="col">Depot</th>
            {days.map((day) => (
              <th key={day} scope="col" data-today={boards[0]?.today === day || undefined}>
                {sayDay(day)}
              </th>
            ))}
            <th scope="col">Waiting</th>
          </tr>
        </thead>
        <tbody>
          {boards.map((board) => (
            <tr key={board.depot.id}>
              <th scope="row">
                <TextLink href={to(board.depot.name)}>{board.depot.name}</TextLink>
                <span className="second">{baysText(board.problem.bays.length)}</span>
              </th>
              {days.map((day) => (
                <td key={day}>
                  <DepotDay board={board} day={day} />
                </td>
              ))}
              <td>
                <Waiting board={board} href={to(board.depot.name)} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </ListFrame>
  );
}

function baysText(count: number): string {
  if (count === 0) return 'no bay yet';
  return count === 1 ? '1 bay' : `${count} bays`;
}

/** What is booked at a depot on a day, by its start, and how much of the bays' time it takes. */
function DepotDay({ board: { problem, jobs, away }, day }: { board: BoardWeek; day: PlainDate }) {
  if (!problem.days.includes(day)) return <span className="soft small">closed on {nameOfDay(day)}</span>;
  const booked = jobs.filter(({ booking }) => booking?.day === day).sort((a, b) => startOf(a) - startOf(b));
  const placing = placingOf(jobs);
  const loads = problem.bays.map((bay) => loadOf(problem, placing, day, bay));
  const taken = loads.reduce((sum, load) => sum + load.taken, 0);
  const open = loads.reduce((sum, load) => sum + load.open, 0);
  return (
    <>
      {booked.map((job) => (
        <div key={job.id} className="depot-job" data-done={job.isFinished || undefined}>
          <span className="soft">{timeTo24(startOf(job))}</span>{' '}
          <TextLink href={`/work-orders/${job.workOrderId}`}>{job.unitNumber}</TextLink> {whatText(job)}
          {job.stop && <strong className="wrong-ink"> stopped</strong>}
        </div>
      ))}
      <div className="load" data-over={taken > open || undefined} data-away={open === 0 || undefined}>
        <div style={{ width: `${Math.min(1, taken / Math.max(open, taken, 1)) * 100}%` }} />
      </div>
      <span className="soft small">
        {open === 0 && taken === 0
          ? (away.find((absence) => absence.day === day)?.what ?? 'closed')
          : `${inHours(taken)} of ${inHours(open)} h`}
      </span>
    </>
  );
}

const startOf = ({ booking }: BoardJob): number => booking?.startMin ?? 0;

/** How many jobs wait at a depot, what another week of them costs, and the dearest of them. */
function Waiting({ board: { jobs, currency }, href }: { board: BoardWeek; href: string }) {
  const waiting = jobs.filter(({ booking, isFinished }) => !booking && !isFinished);
  const [first] = waiting.toSorted((a, b) => (b.weekCost ?? 0) - (a.weekCost ?? 0));
  if (!first) return <span className="soft">nothing</span>;
  const cost = waiting.reduce((sum, { weekCost }) => sum + (weekCost ?? 0), 0);
  return (
    <>
      <strong>{waiting.length}</strong> · {moneyText(Math.round(cost), currency)} a week
      <span className="second">
        first {first.unitNumber}, {hoursText(first.minutes)}
      </span>
      <TextLink href={href}>Plan {waiting.length === 1 ? 'it' : 'them'}</TextLink>
    </>
  );
}
