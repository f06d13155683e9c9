import { and, eq, isNull, or } from 'drizzle-orm';
import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';
import { partKey } from '@/core/catalogue/match';
import { layoutOf, siteId, sitesFromText } from '@/core/engine/layout';
import { COMPONENTS, placesOf, quantityOf } from '@/core/engine/quantities';
import { ok } from '@/core/shared/result';
import { readQuantity } from '@/core/units/read-quantity';
import { writeAudit } from '@/db/queries/audit';
import { loadFamilies } from '@/db/queries/catalogue';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { fittedComponents, parts } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { lifeKm } from '../odometer/judge';
import { useCase } from '../use-case';

export const changeInput = z.object({
  vehicleId: z.uuid(),
  component: z.enum(COMPONENTS.filter((component) => component !== 'plug')),
  /** Empty: all of them; else such as "1 3 5" or "bank 2". */
  sites: z.string().trim().max(60).default(''),
  on: z.string().trim().refine(isPlainDate, 'Give a day as 2026-11-02.'),
  odometer: z.string().trim().min(1, 'Give what the odometer showed.').max(60),
  certainty: z.enum(['exact', 'estimated']).default('exact'),
  partNumber: z.string().trim().max(60).default(''),
  /** What is written on the part itself; for one part only. */
  tag: z.string().trim().max(60).default(''),
});

/**
 * Records that coils, leads, boots or other parts of the ignition were changed, each place with its own clock. Plugs are
 * changed by work orders.
 */
export const recordChange = useCase({
  permission: 'record work',
  input: changeInput,
  async run(deps, actor, input): Promise<Outcome<{ readonly changed: number }>> {
    return deps.db.transaction(async (tx) => {
      const [vehicle] = await loadVehicleKeys(tx, actor.fleetId, [input.vehicleId]);
      const family = (await loadFamilies(tx, actor.fleetId)).find(({ id }) => id === vehicle?.engineFamilyId);
      if (!vehicle || !family) return notFound('vehicle');
      const layout = layoutOf(family.model);
      if (quantityOf(layout, input.component) === 0)
        return fail('invalid', 'This engine has none of these.', { component: 'This engine has none of these.' });
      const sites = sitesFromText(layout, input.sites || 'all');
      if (!sites)
        return fail('invalid', 'This engine has no such sites.', {
          sites: `Name sites such as ${siteId(layout.sites[0] ?? { cylinder: 1, position: 'A' })}, “bank 1” or all.`,
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
      const ended = and(
        eq(fittedComponents.vehicleId, vehicle.id),
        eq(fittedComponents.component, input.component),
        or(
          ...places.map((place) =>
            and(eq(fittedComponents.cylinder, place.cylinder), eq(fittedComponents.position, place.position)),
          ),
        ),
        isNull(fittedComponents.removedOn),
      );
      const later = (await tx.select().from(fittedComponents).where(ended).for('update')).some(
        (row) => row.installedOn > input.on,
      );
      if (later)
        return fail('conflict', 'A later change of these is on record already.', { on: 'Give a day after that one.' });
      await tx.update(fittedComponents).set({ removedOn: input.on, removedKm: installedKm }).where(ended);
      await tx.insert(fittedComponents).values(
        places.map(({ cylinder, position }) => ({
          fleetId: actor.fleetId,
          vehicleId: vehicle.id,
          component: input.component,
          cylinder,
          position,
          tag: input.tag || null,
          partId: part?.id ?? null,
          believedNumber: part ? null : input.partNumber || null,
          history: 'proven' as const,
          installedOn: input.on,
          installedOnCertainty: input.certainty,
          installedKm,
          installedKmCertainty: input.certainty,
          installedKmAsTyped: input.odometer,
        })),
      );
      const { vehicleId: _, ...changes } = input;
      await writeAudit(tx, actor, { action: 'record change', entity: 'vehicle', entityId: vehicle.id, changes });
      return ok({ changed: places.length });
    });
  },
});
