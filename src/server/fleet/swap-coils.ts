import { swapCoilsForm } from '@/contracts/forms/vehicles';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { swapPlaces } from './swap-places';

/** Records that two coils have changed places today: each keeps its tag, its number and its age. */
export const swapCoils = useCase({
  permission: 'record work',
  input: swapCoilsForm.schema,
  async run(deps, actor, { vehicleId, first, second, reason }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [vehicle] = await loadVehicleKeys(tx, actor.fleetId, [vehicleId]);
      if (!vehicle) return notFound('vehicle');
      const swap = { vehicleId: vehicle.id, component: 'coil', cylinders: [first, second] } as const;
      const tags = await swapPlaces(tx, actor.fleetId, deps.today(), swap);
      if (!tags)
        return fail(
          'conflict',
          'A swap follows coils by their tags: both cylinders need a coil with a tag on record first.',
        );
      await writeAudit(tx, actor, {
        action: 'swap coils',
        entity: 'vehicle',
        entityId: vehicle.id,
        changes: { [tags[0]]: { from: first, to: second }, [tags[1]]: { from: second, to: first }, reason },
      });
      return ok(null);
    });
  },
});
