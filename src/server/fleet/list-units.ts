import { eq } from 'drizzle-orm';
import { ok } from '@/core/shared/result';
import { vehicles } from '@/db/schema';
import { useCase } from '../use-case';

/** Every vehicle by its number and name, for choosing one. */
export const listUnits = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const rows = await deps.db
      .select({ id: vehicles.id, unitNumber: vehicles.unitNumber, name: vehicles.name })
      .from(vehicles)
      .where(eq(vehicles.fleetId, actor.fleetId));
    return ok(rows.sort((a, b) => a.unitNumber.localeCompare(b.unitNumber, 'en', { numeric: true })));
  },
});
