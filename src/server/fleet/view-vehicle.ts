import { and, eq, gt } from 'drizzle-orm';
import { z } from 'zod';
import { vehiclesQuery } from '@/contracts/http/resources';
import type { PlainDate } from '@/core/calendar/plain-date';
import { inOrderOfForce } from '@/core/catalogue/match';
import { scopeText } from '@/core/catalogue/scope';
import { byTag, repeatFailures } from '@/core/components/history';
import { type Companion, companions, type OtherComponent } from '@/core/due/other-components';
import { type Layout, layoutOf } from '@/core/engine/layout';
import { quantityOf } from '@/core/engine/quantities';
import { optionInForce, POLICY_IDS, policyInForce } from '@/core/policy/policies';
import { ok } from '@/core/shared/result';
import { openingMinutes } from '@/core/work/procedure/generate';
import { auditOf } from '@/db/queries/audit';
import { loadFamilies, type SpecSheet } from '@/db/queries/catalogue';
import { loadCases } from '@/db/queries/misfire';
import { loadHourRows, loadReadings } from '@/db/queries/odometer';
import { choicesFor, loadPolicyChoices } from '@/db/queries/policies';
import { listWorkOrderRows, loadCoils, loadFitted } from '@/db/queries/work-orders';
import { depots, vehicles } from '@/db/schema';
import { currentOf, fitmentOf, loadGraph } from '../catalogue/fitment-of';
import { loadCosts } from '../due/costs';
import { listDeferrals } from '../due/defer';
import { type DueView, viewDue } from '../due/list-due';
import { notFound } from '../failure';
import { withDriving } from '../misfire/may-it-drive';
import { sheetChoices } from '../policies/sheet-choices';
import { threadsFor } from '../policies/threads';
import { useCase } from '../use-case';
import { familyEngine } from '../work-orders/procedure-of';

const MAX_MISFIRES = 12;

/** A vehicle with its engine, what is fitted, its odometer history, spec and work orders. */
export const viewVehicle = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, vehicleId) {
    const vehicleFitment = await fitmentOf(deps.db, actor.fleetId, deps.today(), vehicleId);
    if (!vehicleFitment) return notFound('vehicle');
    const { vehicle, family, specs, fitment, blockers } = vehicleFitment;
    const [
      readings,
      hours,
      fitted,
      orders,
      due,
      [depot],
      history,
      choices,
      coilRows,
      { graph, byKey },
      deferred,
      costs,
      misfires,
    ] = await Promise.all([
      loadReadings(deps.db, actor.fleetId, vehicleId),
      loadHourRows(deps.db, actor.fleetId, [vehicleId]),
      loadFitted(deps.db, vehicleId),
      listWorkOrderRows(deps.db, actor.fleetId, { vehicleId }),
      viewDue(deps, actor, vehicleId),
      deps.db.select().from(depots).where(eq(depots.id, vehicle.depotId)),
      auditOf(deps.db, actor.fleetId, 'vehicle', vehicleId),
      loadPolicyChoices(deps.db, actor.fleetId),
      loadCoils(deps.db, vehicleId),
      loadGraph(deps.db, actor.fleetId),
      listDeferrals(deps, actor, vehicleId),
      loadCosts(deps.db, actor.fleetId),
      loadCases(deps.db, actor.fleetId, { vehicleId }, MAX_MISFIRES).then((rows) => withDriving(deps, actor, rows)),
    ]);
    if (!due.ok) return notFound('vehicle');
    const layout = layoutOf(family.model);
    const sheetSays = fitment.kind === 'match' ? sheetChoices(fitment.spec) : [];
    const concerning = [...choicesFor(choices, vehicle), ...sheetSays];
    return ok({
      vehicle,
      depot: depot?.name ?? '',
      family,
      layout,
      fitment,
      rivals: fitment.kind === 'match' ? rivalSheets(fitment.spec, specs) : [],
      blockers,
      threads: fitment.kind === 'match' ? threadsFor(fitment.spec, family, choicesFor(choices, vehicle)) : null,
      answers: history.filter((entry) => entry.action === 'answer'),
      policies: POLICY_IDS.map((id) => policyInForce(id, concerning)),
      hoursOption: optionInForce('engine_hours', concerning),
      readings,
      hours,
      fitted: fitted.filter((entry) => entry.fitted.component === 'plug'),
      coils: coilsOf(coilRows),
      current: fitment.kind === 'match' ? currentOf(graph, byKey, fitment.spec.part) : null,
      orders,
      due: due.value,
      deferrals: deferred.ok ? deferred.value : [],
      currency: costs.currency,
      misfires,
      companions: companionsOf(due.value, layout, openingMinutes(familyEngine(family)), deps.today()),
      today: deps.today(),
    });
  },
});

export type VehicleView = Extract<Awaited<ReturnType<typeof viewVehicle>>, { ok: true }>['value'];

/** Other components that have an interval, held against the day of the plugs. */
function companionsOf(
  { components, odometerKm, odometerOn, useRate, forecast }: DueView,
  layout: Layout,
  savedMinutes: number,
  today: PlainDate,
): readonly Companion[] {
  if (odometerKm === null || odometerOn === null) return [];
  const others = components.flatMap((item): OtherComponent[] => {
    const { component, partNumber, limitKm, limitMonths, fittedOn, fittedKm, certainty } = item;
    if (component === 'plug' || partNumber === null || fittedOn === null || fittedKm === null) return [];
    if (limitKm === null && limitMonths === null) return [];
    return [
      {
        component,
        partNumber,
        quantity: quantityOf(layout, component),
        limits: { distanceKm: limitKm, months: limitMonths },
        installed: { on: fittedOn, km: fittedKm },
        certainty: certainty ?? 'assumed',
      },
    ];
  });
  const plugs = components.find(({ component }) => component === 'plug');
  const vehicle = { today, odometer: { on: odometerOn, km: odometerKm }, rate: useRate, forecast };
  return companions(plugs?.due ?? null, others, vehicle, savedMinutes);
}

/** Other sources for the same vehicles, by rank: they stand beside the one in force. */
const rivalSheets = (spec: SpecSheet, specs: readonly SpecSheet[]): readonly SpecSheet[] =>
  inOrderOfForce(specs.filter((other) => other.id !== spec.id && scopeText(other) === scopeText(spec)));

/** Coils now, by cylinder, and the history of each by its tag. */
function coilsOf(rows: Awaited<ReturnType<typeof loadCoils>>) {
  const stays = rows.map(({ fitted }) => fitted);
  const now = rows.filter(({ fitted }) => fitted.removedOn === null);
  return {
    now: now.sort((a, b) => a.fitted.cylinder - b.fitted.cylinder),
    gone: rows.filter(({ fitted }) => fitted.removedOn !== null && fitted.removalReason !== 'swap').reverse(),
    coils: byTag(stays),
    repeatFailures: repeatFailures(stays),
  };
}

/** Vehicles of the fleet by id, a page at a time. */
export const listVehicles = useCase({
  permission: 'read the fleet',
  input: vehiclesQuery,
  async run(deps, actor, input) {
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
  },
});
