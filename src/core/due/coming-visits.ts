import { addDays } from '../calendar/plain-date';
import type { TaskComponent } from '../work/task';
import type { DueDates } from './due';
import type { ComingWork } from './horizon';
import { WINDOW_DAYS } from './vehicle-due';

interface ComingComponent {
  readonly component: TaskComponent;
  readonly due: DueDates;
}

/**
 * The visits that a vehicle's components come to: what falls due within the window of the first is done with it, so that getting
 * there is counted once. Each has the dates of its first component, and bay time for all of them.
 *
 * @param minutesOf bay time of a visit that replaces these components, minutes
 */
export function comingVisits(
  minutesOf: (components: readonly TaskComponent[]) => number,
  components: readonly ComingComponent[],
): readonly ComingWork[] {
  const visits: ComingComponent[][] = [];
  for (const next of [...components].sort((a, b) => a.due.p50.localeCompare(b.due.p50))) {
    const last = visits.at(-1);
    const [first] = last ?? [];
    if (last && first && next.due.p50 <= addDays(first.due.p50, WINDOW_DAYS)) last.push(next);
    else visits.push([next]);
  }
  return visits.flatMap((visit) => {
    const [first] = visit;
    return first ? [{ due: first.due, minutes: minutesOf(visit.map(({ component }) => component)) }] : [];
  });
}
