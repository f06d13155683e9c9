import type { MonthAhead } from '@/core/planning/look-ahead';
import { hoursText, moneyText, monthText, NONE, percentText } from '@/text/format';
import { PlainTable } from '../primitives/plain-table';

interface Props {
  readonly months: readonly string[];
  readonly depots: readonly {
    readonly name: string;
    readonly months: readonly MonthAhead[];
    readonly cost: number;
    readonly options: readonly { readonly what: 'bay_day' | 'person'; readonly cost: number; readonly left: number }[];
  }[];
  readonly currency: string;
}

/** Below this chance nobody needs to look. */
const LIKELY = 0.1;

/** Hours of each depot by month: what falls due of what there is, and where they run out. */
export function HoursAhead({ months, depots }: Props) {
  return (
    <PlainTable heads={['Depot', ...months.map(monthText)]}>
      {depots.map((depot) => (
        <tr key={depot.name}>
          <td>{depot.name}</td>
          {depot.months.map((month, i) => (
            <td key={months[i]}>
              <Cell month={month} />
            </td>
          ))}
        </tr>
      ))}
    </PlainTable>
  );
}

function Cell({ month }: { month: MonthAhead }) {
  const { mean, p10, p90, hours, chance, left, binds, carried } = month;
  const isShort = chance >= LIKELY && left >= 30;
  return (
    <>
      <div className={isShort ? 'strong' : undefined}>
        {mean + carried < 1 ? NONE : `${hoursText(mean + carried)} of ${hoursText(hours)}`}
      </div>
      <div className="soft small">
        {p90 - p10 >= 1 && `likely ${hoursText(p10)} to ${hoursText(p90)}`}
        {carried >= 30 && `, and ${hoursText(carried)} carried over`}
      </div>
      {isShort && (
        <div className="wrong-ink small">
          {binds} run out: {percentText(chance)}, {hoursText(left)} left over
        </div>
      )}
    </>
  );
}

const WHAT_WORDS = { bay_day: 'One bay day a week more', person: 'One person more' } as const;

/** What waiting for hours costs at each depot, and with something more. */
export function HoursMore({ depots, currency }: Props) {
  const money = (value: number): string => moneyText(Math.round(value), currency);
  if (depots.every(({ cost }) => cost < 0.5))
    return <p className="soft">No depot runs out of hours in these months: more of them would change nothing.</p>;
  return (
    <PlainTable heads={['Depot', 'As it is', WHAT_WORDS.bay_day, WHAT_WORDS.person]} numeric={[2, 3, 4]}>
      {depots.map(({ name, cost, options }) => (
        <tr key={name}>
          <td>{name}</td>
          <td>{money(cost)}</td>
          {options.map(({ what, cost: after }) => (
            <td key={what}>
              {money(after)}
              {cost - after >= 0.5 && <span className="soft small"> saves {money(cost - after)}</span>}
            </td>
          ))}
        </tr>
      ))}
    </PlainTable>
  );
}
