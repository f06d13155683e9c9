import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadSuspectHours } from '@/db/queries/odometer';
import { engineHourReadings } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { refreshStatus } from '../due/refresh-due';
import { notFound, type Outcome } from '../failure';

export const settleHoursInput = z.object({
  vehicleId: z.uuid(),
  readOn: z.iso.date(),
  hours: z.coerce.number(),
  how: z.enum(['accepted', 'rejected']),
});

/** Accepts or rejects a suspect reading of an hour meter; it stays with who settled it. */
export async function settleHours(
  deps: Deps,
  actor: Actor,
  { vehicleId, readOn, hours, how }: z.output<typeof settleHoursInput>,
): Promise<Outcome<null>> {
  const refused = refusal(actor, 'settle odometer readings');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const settled = await tx
      .update(engineHourReadings)
      .set({ state: how, settledBy: actor.personId, settledAt: deps.now() })
      .where(
        and(
          eq(engineHourReadings.fleetId, actor.fleetId),
          eq(engineHourReadings.vehicleId, vehicleId),
          eq(engineHourReadings.readOn, readOn),
          eq(engineHourReadings.hours, hours),
          eq(engineHourReadings.state, 'suspect'),
        ),
      )
      .returning({ asTyped: engineHourReadings.asTyped });
    const [row] = settled;
    if (!row) return notFound('suspect reading');
    await refreshStatus(tx, actor.fleetId, deps.today(), [vehicleId]);
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: how,
      entity: 'engine-hours',
      entityId: vehicleId,
      changes: { on: readOn, asTyped: row.asTyped },
    });
    return ok(null);
  });
}

/** Readings of hour meters that wait to be settled. */
export async function listSuspectHours(deps: Deps, actor: Actor) {
  const refused = refusal(actor, 'read the fleet');
  return refused ?? ok(await loadSuspectHours(deps.db, actor.fleetId));
}
