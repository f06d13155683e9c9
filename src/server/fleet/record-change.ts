import { and, eq } from 'drizzle-orm';
import { recordChangeForm } from '@/contracts/forms/vehicles';
import { partKey } from '@/core/catalogue/match';
import { insertStays } from '@/core/components/history';
import { leastCertain } from '@/core/due/due';
import { layoutOf, sitesFromText } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { placesOf } from '@/core/engine/places';
import { quantityOf } from '@/core/engine/quantities';
import { certaintyOf, lifeKm } from '@/core/odometer/intake';
import { ok } from '@/core/shared/result';
import { readQuantity } from '@/core/units/read-quantity';
import { lockFitted, type NewStay, newStay, saveHistory } from '@/db/commands/component-history';
import { writeAudit } from '@/db/queries/audit';
import { loadFamilies } from '@/db/queries/catalogue';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { parts } from '@/db/schema';
import { refreshDue } from '../due/refresh-due';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/**
 * Records that coils, leads, boots or other parts of the ignition were changed, each place with its own clock. Plugs are
 * changed by work orders.
 */
export const recordChange = useCase({
  permission: 'record work',
  input: recordChangeForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ readonly changed: number }>> {
    return deps.db.transaction(async (tx) => {
      const [vehicle] = await loadVehicleKeys(tx, actor.fleetId, [input.vehicleId]);
      const [family] = vehicle ? await loadFamilies(tx, actor.fleetId, [vehicle.engineFamilyId]) : [];
      if (!vehicle || !family) return notFound('vehicle');
      const layout = layoutOf(family.model);
      if (quantityOf(layout, input.component) === 0)
        return fail('invalid', 'This engine has none of these.', { component: 'This engine has none of these.' });
      const sites = sitesFromText(layout, input.sites || 'all');
      if (!sites)
        return fail('invalid', 'This engine has no such cylinders.', {
          sites: `Name cylinders such as ${siteId(layout.sites[0] ?? { cylinder: 1, position: 'A' })}, “bank 1” or all.`,
        });
      const places = placesOf(layout, input.component, sites);
      if (input.tag && places.length > 1)
        return fail('invalid', 'A tag belongs to one part.', { tag: 'Name the one cylinder it belongs to.' });
      if (input.on > deps.today() || input.on < vehicle.inServiceOn)
        return fail('invalid', 'The day is not one on which it could be done.', {
          on: `Give a day from ${vehicle.inServiceOn} to ${deps.today()}.`,
        });
      const read = readQuantity({ kind: 'distance', text: input.odometer, personUnit: vehicle.odometerUnit });
      if (read.verdict !== 'ok') return fail('invalid', read.message, { odometer: read.message });
      const [part] = input.partNumber
        ? await tx
            .select({ id: parts.id })
            .from(parts)
            .where(and(eq(parts.fleetId, actor.fleetId), eq(parts.numberKey, partKey(input.partNumber))))
        : [];
      const installedKm = lifeKm(read.valueSi, input.on, vehicle);
      const here = new Set(places.map(siteId));
      const now = await lockFitted(tx, actor.fleetId, vehicle.id, input.component);
      const before: readonly NewStay[] = now.filter((row) => here.has(siteId(row)));
      if (before.some((row) => row.installedOn > input.on))
        return fail('conflict', 'A later change of these is on record already.', { on: 'Give a day after that one.' });
      const fresh = places.map(({ cylinder, position }) =>
        newStay({
          fleetId: actor.fleetId,
          vehicleId: vehicle.id,
          component: input.component,
          cylinder,
          position,
          tag: input.tag || null,
          partId: part?.id ?? null,
          believedNumber: part ? null : input.partNumber || null,
          installedOn: input.on,
          installedOnCertainty: input.certainty,
          installedKm,
          installedKmCertainty: leastCertain(input.certainty, certaintyOf(read)),
          installedKmAsTyped: input.odometer,
        }),
      );
      await saveHistory(tx, insertStays(before, fresh, input.removalReason));
      await refreshDue(tx, actor.fleetId, deps.today(), [vehicle.id]);
      const { vehicleId: _, ...changes } = input;
      await writeAudit(tx, actor, { action: 'record change', entity: 'vehicle', entityId: vehicle.id, changes });
      return ok({ changed: places.length });
    });
  },
});
