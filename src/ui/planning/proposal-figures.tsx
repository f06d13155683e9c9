import { type PlanFigures, waitsInAll } from '@/core/planning/proposal-view';
import { countText, hoursText, moneyText, NONE } from '@/text/format';

interface Column {
  readonly name: string;
  readonly figures: PlanFigures;
}

/** Plans side by side: what each comes to, and by how much the last differs from the first. */
export function ProposalFigures({ columns, currency }: { columns: readonly Column[]; currency: string }) {
  const money = (value: number): string => moneyText(Math.round(value), currency);
  const waits = waitsInAll(columns.map(({ figures }) => figures));
  const waitText = (days: number | null | undefined): string => (days == null ? NONE : `${days.toFixed(1)} days`);
  const rows: readonly (readonly [string, (f: PlanFigures, column: number) => string])[] = [
    ['Jobs planned', ({ planned }) => countText(planned)],
    ['Left out of these days', ({ leftOut }) => countText(leftOut)],
    ['Hours of work', ({ minutes }) => hoursText(minutes)],
    [
      `Wait until done, on average of the ${countText(waits.jobs)} in each`,
      (_, column) => waitText(waits.days[column]),
    ],
    ['Waiting costs', ({ waiting }) => money(waiting)],
    ['Life thrown away', ({ thrownAway }) => money(thrownAway)],
    ['Downtime', ({ downtime }) => money(downtime)],
    ['Together', ({ total }) => money(total)],
  ];
  return (
    <table className="figures">
      <thead>
        <tr>
          <th scope="col" />
          {columns.map(({ name }) => (
            <th key={name} scope="col">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, row]) => (
          <tr key={name} data-sum={name === 'Together' || undefined}>
            <th scope="row">{name}</th>
            {columns.map((column, i) => (
              <td key={column.name}>{row(column.figures, i)}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
