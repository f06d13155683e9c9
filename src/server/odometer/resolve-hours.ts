import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadSuspectHours } from '@/db/queries/odometer';
import { engineHourReadings } from '@/db/schema';
import { refreshDue } from '../due/refresh-due';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

const resolveHoursInput = z.object({
  vehicleId: z.uuid(),
  readOn: z.iso.date(),
  hours: z.coerce.number(),
  how: z.enum(['accepted', 'rejected']),
});

/** Accepts or rejects a suspect reading of an hour meter; it stays with who resolved it. */
export const resolveHours = useCase({
  permission: 'resolve odometer readings',
  input: resolveHoursInput,
  async run(deps, actor, { vehicleId, readOn, hours, how }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const resolved = await tx
        .update(engineHourReadings)
        .set({ state: how, resolvedBy: actor.personId, resolvedAt: deps.now() })
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
      const [row] = resolved;
      if (!row) return notFound('suspect reading');
      await refreshDue(tx, actor.fleetId, deps.today(), [vehicleId]);
      await writeAudit(tx, actor, {
        action: how,
        entity: 'engine-hours',
        entityId: vehicleId,
        changes: { on: readOn, asTyped: row.asTyped },
      });
      return ok(null);
    });
  },
});

/** Readings of hour meters that wait to be resolved. */
export const listSuspectHours = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    return ok(await loadSuspectHours(deps.db, actor.fleetId));
  },
});
