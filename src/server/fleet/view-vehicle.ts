import { and, eq, gt } from 'drizzle-orm';
import { z } from 'zod';
import { layoutOf } from '@/core/engine/layout';
import { match } from '@/core/fitment/match';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadFamilies, loadSpecs } from '@/db/queries/catalogue';
import { loadReadings } from '@/db/queries/odometer';
import { loadVehicleKeys } from '@/db/queries/status';
import { listWorkOrderRows, loadFittedPlugs } from '@/db/queries/work-orders';
import { depots, vehicles } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { viewDue } from '../due/list-due';
import { refreshStatus } from '../due/refresh-status';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';

/** A vehicle with its engine, what is fitted, its odometer history, spec and work orders. */
export async function viewVehicle(deps: Deps, actor: Actor, vehicleId: string) {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const [vehicle] = await loadVehicleKeys(deps.db, actor.fleetId, [vehicleId]);
  if (!vehicle) return notFound('vehicle');
  const [families, specs, readings, fitted, orders, due, [depot]] = await Promise.all([
    loadFamilies(deps.db, actor.fleetId),
    loadSpecs(deps.db, actor.fleetId),
    loadReadings(deps.db, actor.fleetId, vehicleId),
    loadFittedPlugs(deps.db, vehicleId),
    listWorkOrderRows(deps.db, actor.fleetId, { vehicleId }),
    viewDue(deps, actor, vehicleId),
    deps.db.select().from(depots).where(eq(depots.id, vehicle.depotId)),
  ]);
  const family = families.find((f) => f.id === vehicle.engineFamilyId);
  if (!family || !due.ok) return notFound('vehicle');
  const fitment = match(
    vehicle,
    specs.filter((spec) => spec.component === 'plug'),
    family.variants,
  );
  return ok({
    vehicle,
    depot: depot?.name ?? '',
    family,
    layout: layoutOf(family.model),
    fitment,
    readings,
    fitted,
    orders,
    due: due.value,
    today: deps.today(),
  });
}

export type VehicleView = Extract<Awaited<ReturnType<typeof viewVehicle>>, { ok: true }>['value'];

export const listInput = z.object({
  limit: z.coerce.number().int().min(1).max(1000).default(100),
  cursor: z.uuid().optional(),
});

/** Vehicles of the fleet by id, a page at a time. */
export async function listVehicles(deps: Deps, actor: Actor, input: z.output<typeof listInput>) {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const families = new Map((await loadFamilies(deps.db, actor.fleetId)).map((family) => [family.id, family.code]));
  const rows = await deps.db
    .select({ v: vehicles, depot: depots.name })
    .from(vehicles)
    .innerJoin(depots, eq(depots.id, vehicles.depotId))
    .where(and(eq(vehicles.fleetId, actor.fleetId), input.cursor ? gt(vehicles.id, input.cursor) : undefined))
    .orderBy(vehicles.id)
    .limit(input.limit + 1);
  const items = rows.slice(0, input.limit).map(({ v, depot }) => ({
    id: v.id,
    unit_number: v.unitNumber,
    name: v.name,
    depot,
    duty_group: v.dutyGroup,
    make: v.make,
    model: v.model,
    model_year: v.modelYear,
    vin: v.vin,
    engine_family: families.get(v.engineFamilyId) ?? null,
    variant: v.variant,
    in_service_on: v.inServiceOn,
    odometer_unit: v.odometerUnit,
    severe_duty: v.severeDuty,
    version: v.version,
  }));
  return ok({ items, next_cursor: rows.length > input.limit ? (items.at(-1)?.id ?? null) : null });
}

export const answerInput = z.object({
  vehicleId: z.uuid(),
  version: z.number().int(),
  variant: z.string().max(120).optional(),
  modelYear: z.number().int().min(1950).max(2100).optional(),
});

/** Settles a fitment question on a vehicle; who said so stands in the audit trail. */
export async function answerFitment(
  deps: Deps,
  actor: Actor,
  input: z.output<typeof answerInput>,
): Promise<Outcome<null>> {
  const refused = refusal(actor, 'answer fitment questions');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const [vehicle] = await loadVehicleKeys(tx, actor.fleetId, [input.vehicleId]);
    const family = vehicle && (await loadFamilies(tx, actor.fleetId)).find((f) => f.id === vehicle.engineFamilyId);
    if (!vehicle || !family) return notFound('vehicle');
    if (input.variant !== undefined && !family.variants.includes(input.variant))
      return fail('invalid', `${family.code} has no variant “${input.variant}”.`, {
        variant: 'Choose one of the list.',
      });
    const next = { variant: input.variant ?? vehicle.variant, modelYear: input.modelYear ?? vehicle.modelYear };
    const done = await tx
      .update(vehicles)
      .set({ ...next, version: vehicle.version + 1 })
      .where(and(eq(vehicles.id, vehicle.id), eq(vehicles.version, input.version)))
      .returning({ id: vehicles.id });
    if (done.length === 0) return editedMeanwhile();
    await refreshStatus(tx, actor.fleetId, [vehicle.id]);
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'answer',
      entity: 'vehicle',
      entityId: vehicle.id,
      changes: { from: { variant: vehicle.variant, modelYear: vehicle.modelYear }, to: next },
    });
    return ok(null);
  });
}
