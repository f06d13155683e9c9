import { and, eq } from 'drizzle-orm';
import { distributorForm } from '@/contracts/forms/vehicles';
import { ok } from '@/core/shared/result';
import { foundDistributor, tracedFromText } from '@/core/wiring/found-distributor';
import { writeAudit } from '@/db/queries/audit';
import { loadFamilies } from '@/db/queries/catalogue';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { vehicles } from '@/db/schema';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** Keeps how the distributor of one vehicle really stands, from two leads traced by hand and the proof of it. */
export const recordDistributor = useCase({
  permission: 'record work',
  input: distributorForm.schema,
  async run(deps, actor, { vehicleId, version, traced, proof }): Promise<Outcome<{ message: string }>> {
    return deps.db.transaction(async (tx): Promise<Outcome<{ message: string }>> => {
      const [vehicle] = await loadVehicleKeys(tx, actor.fleetId, [vehicleId]);
      const [family] = vehicle ? await loadFamilies(tx, actor.fleetId, [vehicle.engineFamilyId]) : [];
      if (!vehicle || !family) return notFound('vehicle');
      const seen = foundDistributor(family.model, tracedFromText(traced));
      if (!seen.ok) return fail('invalid', seen.error, { traced: seen.error });
      const distributor = seen.value && { ...seen.value, proof, by: actor.name, on: deps.today() };
      const done = await tx
        .update(vehicles)
        .set({ distributor, version: version + 1 })
        .where(and(eq(vehicles.id, vehicle.id), eq(vehicles.version, version)))
        .returning({ id: vehicles.id });
      if (done.length === 0) return editedMeanwhile();
      await writeAudit(tx, actor, {
        action: 'record distributor',
        entity: 'vehicle',
        entityId: vehicle.id,
        changes: {
          from: { distributor: vehicle.distributor },
          to: { distributor },
          reason: `${traced}; ${proof}`,
        },
      });
      return ok({
        message: distributor
          ? `Kept: cylinder 1 is at tower ${distributor.towerOfCylinder1} in this vehicle. Drawing and leads follow it.`
          : 'It stands as its family does: nothing special is kept.',
      });
    });
  },
});
