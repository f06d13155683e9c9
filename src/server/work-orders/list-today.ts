import { ok } from '@/core/shared/result';
import { listWorkOrderRows } from '@/db/queries/work-orders';
import { useCase } from '../use-case';

/** Open work orders booked for today or before, in order of their time; those of the one who asks come first. */
export const listToday = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const today = deps.today();
    const rows = await listWorkOrderRows(deps.db, actor.fleetId, { open: true });
    const begun = rows.flatMap((row) =>
      row.startsAt && row.startsAt.slice(0, 10) <= today ? [{ row, at: row.startsAt }] : [],
    );
    const isOthers = (personId: string | null): number => Number(personId !== actor.personId);
    return ok(
      begun
        .sort((a, b) => isOthers(a.row.personId) - isOthers(b.row.personId) || a.at.localeCompare(b.at))
        .map(({ row }) => row),
    );
  },
});
