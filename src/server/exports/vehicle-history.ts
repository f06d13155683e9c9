import { and, asc, eq } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { z } from 'zod';
import { placeId } from '@/core/engine/places';
import type { FleetId, VehicleId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Querier } from '@/db/client';
import { fittedComponents, parts, people, taskPlaces, vehicles, workOrders } from '@/db/schema';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { toCsv } from './csv';

const HEADER = [
  'unit_number',
  'component',
  'site',
  'tag',
  'part_number',
  'read_off',
  'history',
  'lot',
  'installed_on',
  'installed_on_certainty',
  'installed_km',
  'installed_km_certainty',
  'gap_fitted_mm',
  'torque_nm',
  'torque_method',
  'compound',
  'compound_batch',
  'fitted_by_order',
  'fitted_by',
  'removed_on',
  'removed_km',
  'removal_reason',
  'removed_by_order',
  'gap_removed_mm',
  'seen',
  'breakaway',
  'breakaway_nm',
  'remark',
  'good_for_km',
  'good_for_said_on',
];

/**
 * All that is recorded of the parts of a vehicle, those in it and those that were: for whoever keeps it next. One row a part
 * and site, oldest first; an empty cell is unknown and never zero.
 */
export const exportVehicleHistory = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, vehicleId): Promise<Outcome<string>> {
    if (!z.uuid().safeParse(vehicleId).success) return notFound('vehicle');
    const [vehicle] = await deps.db
      .select({ unitNumber: vehicles.unitNumber })
      .from(vehicles)
      .where(and(eq(vehicles.fleetId, actor.fleetId), eq(vehicles.id, vehicleId)));
    if (!vehicle) return notFound('vehicle');
    const rows = await loadHistory(deps.db, actor.fleetId, vehicleId);
    return ok(
      toCsv(
        HEADER,
        rows.map((row) => cellsOf(vehicle.unitNumber, row)),
      ),
    );
  },
});

/** Each part with the orders that fitted it and took it out, and what was noted at its site then. */
function loadHistory(q: Querier, fleetId: FleetId, vehicleId: VehicleId) {
  const [fittedBy, removedBy] = [alias(workOrders, 'fitted_by'), alias(workOrders, 'removed_by')];
  const [inSite, outSite] = [alias(taskPlaces, 'in_site'), alias(taskPlaces, 'out_site')];
  const atSite = (site: typeof inSite | typeof outSite, order: 'workOrderId' | 'removedByWorkOrderId') =>
    and(
      eq(site.component, fittedComponents.component),
      eq(site.workOrderId, fittedComponents[order]),
      eq(site.cylinder, fittedComponents.cylinder),
      eq(site.position, fittedComponents.position),
    );
  return q
    .select({
      part: fittedComponents,
      number: parts.number,
      fitted: fittedBy.number,
      removed: removedBy.number,
      inSite,
      outSite,
      who: people.name,
    })
    .from(fittedComponents)
    .leftJoin(parts, eq(parts.id, fittedComponents.partId))
    .leftJoin(fittedBy, eq(fittedBy.id, fittedComponents.workOrderId))
    .leftJoin(removedBy, eq(removedBy.id, fittedComponents.removedByWorkOrderId))
    .leftJoin(inSite, atSite(inSite, 'workOrderId'))
    .leftJoin(outSite, atSite(outSite, 'removedByWorkOrderId'))
    .leftJoin(people, eq(people.id, inSite.doneBy))
    .where(and(eq(fittedComponents.fleetId, fleetId), eq(fittedComponents.vehicleId, vehicleId)))
    .orderBy(
      asc(fittedComponents.installedOn),
      asc(fittedComponents.component),
      asc(fittedComponents.cylinder),
      asc(fittedComponents.position),
    );
}

type HistoryRow = Awaited<ReturnType<typeof loadHistory>>[number];

const cellsOf = (
  unitNumber: string,
  { part, number, fitted, removed, inSite: into, outSite: out, who }: HistoryRow,
) => [
  unitNumber,
  part.component,
  placeId(part),
  part.tag,
  number,
  part.observedNumber,
  part.history,
  part.lot,
  part.installedOn,
  part.installedOnCertainty,
  part.installedKm,
  part.installedKmCertainty,
  part.gapMm,
  into?.installedTorqueNm ?? null,
  into?.torqueMethod ?? null,
  part.compound,
  part.compoundBatch,
  fitted,
  who,
  part.removedOn,
  part.removedKm,
  part.removalReason,
  removed,
  out?.removedGapMm ?? null,
  out?.conditions?.join('; ') ?? null,
  out?.breakawayFeel ?? null,
  out?.breakawayTorqueNm ?? null,
  out?.remark ?? null,
  part.goodForKm,
  part.checkedOn,
];
