import { loadOf, type Placing } from '@/core/planning/board';
import { named, type PlanProblem } from '@/core/planning/plan-problem';
import { inHours, type Reading } from './board-shape';

/** The other reading in short: how much of each person, or bay, the days take. */
export function LoadStrip({ problem, placing, reading }: { problem: PlanProblem; placing: Placing; reading: Reading }) {
  const all = reading === 'bays' ? problem.people : problem.bays;
  return (
    <table className="load-strip">
      <caption>{reading === 'bays' ? 'Hours of each person' : 'Hours of each bay'}</caption>
      <tbody>
        {all.map((resource) => (
          <tr key={resource.id}>
            <th scope="row">{named(resource)}</th>
            {problem.days.map((day) => {
              const { taken, open } = loadOf(problem, placing, day, resource);
              const words = open === 0 && taken === 0 ? 'away' : `${inHours(taken)} of ${inHours(open)} h`;
              return (
                <td key={day} title={words}>
                  <div className="load" data-away={open === 0 || undefined} data-over={taken > open || undefined}>
                    <div style={{ width: `${Math.min(1, taken / Math.max(open, taken, 1)) * 100}%` }} />
                  </div>
                  <span>{words}</span>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
