import { and, eq, inArray, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { dueInputs, fittedComponents } from '@/db/schema';
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
      const rows = await tx
        .select()
        .from(fittedComponents)
        .where(
          and(
            eq(fittedComponents.vehicleId, vehicle.id),
            eq(fittedComponents.component, 'coil'),
            isNull(fittedComponents.removedOn),
            inArray(fittedComponents.cylinder, [input.first, input.second]),
          ),
        )
        .for('update');
      const [a, b] = [input.first, input.second].map((n) => rows.find((row) => row.cylinder === n));
      if (!a?.tag || !b?.tag)
        return fail(
          'conflict',
          'A swap follows coils by their tags: both cylinders need a coil with a tag on record first.',
        );
      const [status] = await tx.select().from(dueInputs).where(eq(dueInputs.vehicleId, vehicle.id));
      const [removedOn, removedKm] = [deps.today(), status?.odometerKm ?? Math.max(a.installedKm, b.installedKm)];
      await tx
        .update(fittedComponents)
        .set({ removedOn, removedKm })
        .where(inArray(fittedComponents.id, [a.id, b.id]));
      const moved = [
        { ...a, cylinder: b.cylinder, position: b.position },
        { ...b, cylinder: a.cylinder, position: a.position },
      ];
      await tx.insert(fittedComponents).values(
        moved.map(({ id: _, createdAt: __, ...row }) => ({
          ...row,
          installedOn: removedOn,
          installedOnCertainty: 'exact' as const,
          installedKm: removedKm,
          installedKmCertainty: 'estimated' as const,
          removedOn: null,
          removedKm: null,
        })),
      );
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
