import { loadOf, type Placing } from '@/core/planning/board';
import { type BoardJob, type BoardWeek, kitOn } from '@/core/planning/board-week';
import { hoursText, moneyText } from '@/text/format';

interface Props {
  readonly week: BoardWeek;
  readonly placing: Placing;
  readonly waiting: readonly BoardJob[];
  /** Pressure still waiting before the first day and after each. */
  readonly left: readonly number[];
  readonly troubled: number;
}

/** A week in one sentence. */
export function BoardSummary({ week, placing, waiting, left, troubled }: Props) {
  const { problem, jobs, currency } = week;
  const loads = problem.days.flatMap((day) => problem.bays.map((bay) => loadOf(problem, placing, day, bay)));
  const [taken, open] = [
    loads.reduce((sum, load) => sum + load.taken, 0),
    loads.reduce((sum, load) => sum + load.open, 0),
  ];
  const short = jobs.filter((job) => {
    const slot = placing.get(job.id);
    return slot !== undefined && !job.isFinished && kitOn(job, slot.day) === 'short';
  });
  return (
    <p className="board-summary">
      <strong>{hoursText(taken)}</strong> of {hoursText(open)} of bays taken · <strong>{waiting.length}</strong>{' '}
      {waiting.length === 1 ? 'waits' : 'wait'}
      {short.length > 0 && (
        <>
          {' '}
          · <strong>{short.length}</strong> planned with parts short
        </>
      )}
      {troubled > 0 && (
        <span className="wrong-ink">
          {' '}
          · <strong>{troubled}</strong> cannot be as booked
        </span>
      )}{' '}
      · pressure <Change from={Math.round(left[0] ?? 0)} to={Math.round(left.at(-1) ?? 0)} currency={currency} />
    </p>
  );
}

/** "falls from €43 to €27 a week" */
function Change({ from, to, currency }: { from: number; to: number; currency: string }) {
  const at = (amount: number) => <strong>{moneyText(amount, currency)}</strong>;
  if (from === to) return <>stays at {at(from)} a week</>;
  return (
    <>
      {to < from ? 'falls' : 'rises'} from {at(from)} to {at(to)} a week
    </>
  );
}
