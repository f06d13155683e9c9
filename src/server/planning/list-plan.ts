import { z } from 'zod';
import { addDays } from '@/core/calendar/plain-date';
import type { FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Querier } from '@/db/client';
import { bookingOf, listBooked, loadTaskKinds } from '@/db/queries/work-orders';
import { partsText } from '@/text/task-words';
import { fail } from '../failure';
import { useCase } from '../use-case';

const USUAL_DAYS = 28;
const MAX_DAYS = 366;

const planQuery = z.object({
  /** Left out: today. */
  from: z.iso.date('Give a day as 2026-12-24.').optional(),
  /** The last day; left out: four weeks on. */
  to: z.iso.date('Give a day as 2026-12-24.').optional(),
  /** By name; left out: all. */
  depot: z.string().max(120).optional(),
});

/** What is booked on some days. */
export const listPlan = useCase({
  permission: 'read the fleet',
  input: planQuery,
  async run(deps, actor, { from = deps.today(), to = addDays(from, USUAL_DAYS - 1), depot }) {
    if (to < from || addDays(from, MAX_DAYS) < to)
      return fail('invalid', `Ask for 1 to ${MAX_DAYS} days.`, { to: 'Choose another last day.' });
    const rows = await plannedJobs(deps.db, actor.fleetId, from, addDays(to, 1));
    return ok(depot === undefined ? rows : rows.filter((row) => row.depot === depot));
  },
});

/** Booked jobs with what is done, by their start; cancelled ones left out. @param to the day after the last */
export async function plannedJobs(q: Querier, fleetId: FleetId, from: string, to: string) {
  const booked = await listBooked(q, fleetId, from, to);
  const tasks = await loadTaskKinds(
    q,
    booked.map(({ id }) => id),
  );
  return booked.flatMap((row) => {
    const booking = bookingOf(row);
    if (!booking || row.state === 'cancelled') return [];
    const what = (tasks.get(row.id) ?? [])
      .map(({ action, component }) => `${action} ${partsText(component, 2)}`)
      .join(', ');
    return [{ ...row, ...booking, orderState: row.state, isPinned: row.pinned === true, what }];
  });
}
export type PlannedJob = Awaited<ReturnType<typeof plannedJobs>>[number];
