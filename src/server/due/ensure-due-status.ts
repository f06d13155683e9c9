import type { PlainDate } from '@/core/calendar/plain-date';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier } from '@/db/client';
import { lockFleet, lockOne } from '@/db/locks';
import { sumUpCounts } from '@/db/queries/due';
import { loadDueRun, takeStaleGroups } from '@/db/queries/due-inputs';
import { dueRuns } from '@/db/schema';
import { refreshStaleGroups, updateDueStatus } from './due-status';
import { refreshDue } from './refresh-due';

/**
 * Sees to it that the due status is that of today, and that those who borrow from their group follow it: the first who
 * asks does it, those who ask meanwhile wait for that and do not do it again.
 */
export async function ensureDueStatus(db: Querier, fleetId: FleetId, today: PlainDate): Promise<void> {
  const before = await loadDueRun(db, fleetId);
  if (before.on === today && !before.stale) return;
  await db.transaction(async (tx) => {
    await lockOne(tx, 'dueRun', fleetId);
    const { on } = await loadDueRun(tx, fleetId);
    if (on === today) return refreshStaleGroups(tx, fleetId, today);
    await lockFleet(tx, fleetId, true);
    await takeStaleGroups(tx, fleetId);
    // Where it never ran, what decides may be missing as well: after an upgrade, or of a fleet that has just been filled.
    if (on === null) await refreshDue(tx, fleetId, today, null);
    else await updateDueStatus(tx, fleetId, today, null);
    await sumUpCounts(tx, fleetId);
    await tx
      .insert(dueRuns)
      .values({ fleetId, ranOn: today })
      .onConflictDoUpdate({ target: dueRuns.fleetId, set: { ranOn: today } });
  });
}
