import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { insertStays, swapped } from '@/core/components/history';
import { ok } from '@/core/shared/result';
import { lockFitted, type NewStay, newStay, saveHistory } from '@/db/commands/component-history';
import { writeAudit } from '@/db/queries/audit';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { dueInputs } from '@/db/schema';
import { refreshDue } from '../due/refresh-due';
import { fail, notFound, type Outcome } from '../failure';
import { reasonText } from '../reason';
import { useCase } from '../use-case';

const cylinder = z.coerce.number('Choose a cylinder.').int().min(1, 'Choose a cylinder.').max(16);

export const swapInput = z
  .object({
    vehicleId: z.uuid(),
    first: cylinder,
    second: cylinder,
    reason: reasonText(200),
  })
  .refine((input) => input.first !== input.second, { path: ['second'], message: 'Choose another cylinder.' });

/** Records that two coils have changed places today: each keeps its tag, its number and its age. */
export const swapCoils = useCase({
  permission: 'record work',
  input: swapInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [vehicle] = await loadVehicleKeys(tx, actor.fleetId, [input.vehicleId]);
      if (!vehicle) return notFound('vehicle');
      const coils = await lockFitted(tx, actor.fleetId, vehicle.id, 'coil');
      const [a, b] = [input.first, input.second].map((n) => coils.find((row) => row.cylinder === n));
      const [status] = await tx.select().from(dueInputs).where(eq(dueInputs.vehicleId, vehicle.id));
      const km = status?.odometerKm ?? Math.max(a?.installedKm ?? 0, b?.installedKm ?? 0);
      const moved = a && b ? swapped(a, b, deps.today(), km) : null;
      if (!a?.tag || !b?.tag || !moved)
        return fail(
          'conflict',
          'A swap follows coils by their tags: both cylinders need a coil with a tag on record first.',
        );
      const fresh = moved.map(({ id: _, createdAt: __, ...row }) =>
        newStay({ ...row, installedOnCertainty: 'exact', installedKmCertainty: 'estimated' }),
      );
      await saveHistory(tx, insertStays<NewStay>([a, b], fresh, 'swap'));
      await refreshDue(tx, actor.fleetId, deps.today(), [vehicle.id]);
      await writeAudit(tx, actor, {
        action: 'swap coils',
        entity: 'vehicle',
        entityId: vehicle.id,
        changes: {
          [a.tag]: { from: a.cylinder, to: b.cylinder },
          [b.tag]: { from: b.cylinder, to: a.cylinder },
          reason: input.reason,
        },
      });
      return ok(null);
    });
  },
});
