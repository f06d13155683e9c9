import { and, desc, eq } from 'drizzle-orm';
import { isAnotherPart, sameNumbers } from '@/core/catalogue/same-part';
import { repeatFailures } from '@/core/components/history';
import { type Layout, layoutOf } from '@/core/engine/layout';
import { restingCylinders } from '@/core/engine/resting';
import { inRange } from '@/core/gap/check';
import { homeOf, type Story } from '@/core/misfire/case-entry';
import { VISIT_KM } from '@/core/misfire/likelihoods';
import { type MisfireCase, type RecentWork, type SuspectPart, TOUCHED_PARTS } from '@/core/misfire/misfire-case';
import { suspectOf } from '@/core/misfire/remedy-task';
import { USUAL_LIFE_KM } from '@/core/misfire/usual-life';
import { groupBy } from '@/core/shared/group-by';
import type { Km, VehicleId } from '@/core/shared/kinds';
import { isLive } from '@/core/work/order-state';
import { openingMinutes } from '@/core/work/procedure/generate';
import { replaceAt } from '@/core/work/procedure/visit';
import { isTaskComponent } from '@/core/work/task';
import type { Querier } from '@/db/client';
import { loadLotFailures } from '@/db/queries/misfire';
import { listWorkOrderRows, loadWorkOrder } from '@/db/queries/work-orders';
import { fittedComponents, taskPlaces, workOrders } from '@/db/schema';
import type { Actor } from '../access';
import { fitmentFor, gapSpecOf, loadNumbers, type VehicleFitment } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import { loadCosts } from '../due/costs';
import { viewDue } from '../due/list-due';
import { findingsOf, stopsOf } from '../findings/findings-of';
import { loadFloorState } from '../work-orders/order-state';
import { familyEngine } from '../work-orders/procedure-of';

/** What the record says of a vehicle that misfires, before anybody says anything of the misfire. */
export interface CaseFacts extends Omit<MisfireCase, keyof Story> {
  readonly currency: string;
}

type Stay = typeof fittedComponents.$inferSelect;

const RECENT_ORDERS = 5;

/** The record of a vehicle as a misfire sees it. @param away parts that sit elsewhere than when the case began */
export async function factsOf(
  deps: Deps,
  actor: Actor,
  fitment: VehicleFitment,
  away: Story['away'],
): Promise<CaseFacts> {
  const { db } = deps;
  const { vehicle, family } = fitment;
  const layout = layoutOf(family.model);
  // One after the other: where something is written they share its connection.
  const due = await viewDue(deps, actor, vehicle.id);
  const costs = await loadCosts(db, actor.fleetId);
  const stays = await db.select().from(fittedComponents).where(eq(fittedComponents.vehicleId, vehicle.id));
  const lots = await loadLotFailures(db, actor.fleetId, vehicle.id);
  const odometerKm = due.ok ? due.value.odometerKm : null;
  const limits = new Map(
    due.ok ? due.value.components.map(({ component, limitKm }) => [component as string, limitKm]) : [],
  );
  return {
    engine: engineOf(fitment, layout),
    ages: agesOf(stays, odometerKm, limits, away),
    recentWork: odometerKm === null ? [] : await recentWork(db, fitment, odometerKm),
    record: recordOf(stays, lots, away),
    weak: weakOf(fitment),
    stoppedByFinding: await isStoppedByFinding(deps, actor, vehicle.id),
    opening: openingOf(fitment, layout),
    minutes: {},
    prices: pricesOf(fitment),
    labourPerHour: costs.labourPerHour,
    downtimePerHour: costs.hourCost,
    currency: costs.currency,
  };
}

/** Whether what the removed parts of its open order say stops the work. */
export async function isStoppedByFinding(
  { db, today }: Deps,
  { fleetId }: Actor,
  vehicleId: VehicleId,
): Promise<boolean> {
  const [live] = (await listWorkOrderRows(db, fleetId, { vehicleId })).filter(isLive);
  const order = live && (await loadWorkOrder(db, fleetId, live.id));
  const state = order && (await loadFloorState(db, order, today()));
  return state ? stopsOf(await findingsOf(db, state)).length > 0 : false;
}

/** A case with what its record and its entries say. */
export const caseWith = ({ currency: _, ...facts }: CaseFacts, story: Story): MisfireCase => ({ ...facts, ...story });

function engineOf({ vehicle, family }: VehicleFitment, { model }: Layout): MisfireCase['engine'] {
  return {
    banks: model.banks.map(({ cylinders }) => cylinders),
    firingOrder: model.firingOrder,
    ignition: model.ignition,
    plugsPerCylinder: model.plugsPerCylinder,
    resting: restingCylinders(family.resting, vehicle.variant),
  };
}

/** The part of a misfire that a component is; null: none of those that are suspected by themselves. */
const partOf = (component: string): SuspectPart | null =>
  isTaskComponent(component as Stay['component']) ? suspectOf(component as 'plug') : null;

function agesOf(
  stays: readonly Stay[],
  odometerKm: Km | null,
  limits: ReadonlyMap<string, number | null>,
  away: Story['away'],
): MisfireCase['ages'] {
  if (odometerKm === null) return [];
  return stays.flatMap(({ component, cylinder, installedKm, removedOn }) => {
    const part = partOf(component);
    if (removedOn !== null || part === null || cylinder === 0) return [];
    const limit = limits.get(component) ?? USUAL_LIFE_KM[part];
    return [
      {
        component: part,
        cylinder: homeOf(away, part, cylinder),
        lifeUsed: Math.max(0, odometerKm - installedKm) / limit,
      },
    ];
  });
}

function recordOf(
  stays: readonly Stay[],
  lots: Awaited<ReturnType<typeof loadLotFailures>>,
  away: Story['away'],
): MisfireCase['record'] {
  const failures = repeatFailures(stays.filter(({ component }) => component === 'coil' || component === 'rail'));
  return [
    ...failures.map(({ cylinder, lost }) => ({ component: 'coil' as const, cylinder, failedHere: lost, lotFailed: 0 })),
    ...lots.flatMap(({ component, cylinder, failed }) => {
      const part = partOf(component);
      return part
        ? [{ component: part, cylinder: homeOf(away, part, cylinder), failedHere: 0, lotFailed: failed }]
        : [];
    }),
  ];
}

/** A boot or tab that is known to break. */
const weakOf = ({ family }: VehicleFitment): MisfireCase['weak'] =>
  (family.weakPoints ?? []).some(({ kind }) => kind === 'brittle') ? ['boot', 'lead', 'connector'] : [];

/** What it takes to get at each cylinder by the way of this engine. */
function openingOf({ vehicle, family }: VehicleFitment, layout: Layout): MisfireCase['opening'] {
  const engine = { ...familyEngine(family), options: vehicle.options, fuel: vehicle.fuel };
  return [...groupBy(layout.sites, ({ cylinder }) => String(cylinder)).values()].flatMap((sites) => {
    const [first] = sites;
    return first ? [{ cylinder: first.cylinder, minutes: openingMinutes(engine, [replaceAt('plug', sites)]) }] : [];
  });
}

function pricesOf(vehicleFitment: VehicleFitment): MisfireCase['prices'] {
  const price = (...components: readonly ('coil' | 'rail' | 'boot' | 'lead' | 'plug')[]): number | undefined => {
    for (const component of components) {
      const { fitment } = fitmentFor(vehicleFitment, component);
      if (fitment.kind === 'match' && fitment.spec.part.price !== null) return fitment.spec.part.price;
    }
    return undefined;
  };
  const known = { coil: price('coil', 'rail'), plug: price('plug'), lead: price('boot', 'lead') };
  return Object.fromEntries(Object.entries(known).filter(([, amount]) => amount !== undefined));
}

/** What closed visits touched lately, place by place. */
async function recentWork(q: Querier, fitment: VehicleFitment, odometerKm: Km): Promise<readonly RecentWork[]> {
  const { vehicle } = fitment;
  const orders = await q
    .select({ id: workOrders.id, closedKm: workOrders.closedKm })
    .from(workOrders)
    .where(and(eq(workOrders.vehicleId, vehicle.id), eq(workOrders.state, 'closed')))
    .orderBy(desc(workOrders.closedOn), desc(workOrders.number))
    .limit(RECENT_ORDERS);
  const recent = orders.filter(({ closedKm }) => closedKm !== null && odometerKm - closedKm <= VISIT_KM);
  if (recent.length === 0) return [];
  const isWrong = await wrongPlugs(q, fitment);
  const work: RecentWork[] = [];
  for (const { id, closedKm } of recent) {
    const places = await q
      .select({
        component: taskPlaces.component,
        cylinder: taskPlaces.cylinder,
        doneAt: taskPlaces.doneAt,
        newNumber: taskPlaces.newNumber,
        newGapMm: taskPlaces.newGapMm,
      })
      .from(taskPlaces)
      .where(eq(taskPlaces.workOrderId, id));
    const done = places.filter(({ doneAt, cylinder }) => doneAt !== null && cylinder > 0);
    if (done.length === 0) continue;
    const parts = done.flatMap(({ component }) => TOUCHED_PARTS.find((part) => part === partOf(component)) ?? []);
    work.push({
      kmAgo: Math.max(0, odometerKm - (closedKm ?? 0)),
      // Whatever was done in a well, its connector or lead came off and was pressed on again.
      touched: [...new Set([...parts, 'connector' as const])],
      cylinders: [...new Set(done.map(({ cylinder }) => cylinder))],
      setInDoubt: done.some((place) => place.component === 'plug' && isWrong(place)),
    });
  }
  return work;
}

type NewPlug = Pick<typeof taskPlaces.$inferSelect, 'newNumber' | 'newGapMm'>;

/** Tells whether a plug that went in has a gap outside the range of the sheet in force, or another number. */
async function wrongPlugs(q: Querier, { vehicle, fitment }: VehicleFitment): Promise<(plug: NewPlug) => boolean> {
  if (fitment.kind !== 'match') return () => false;
  const { spec } = fitment;
  const [gap, numbers] = [gapSpecOf(spec), sameNumbers(spec.part.number, await loadNumbers(q, vehicle.fleetId))];
  return ({ newNumber, newGapMm }) =>
    (newGapMm !== null && !inRange(gap, newGapMm)) || isAnotherPart(newNumber, numbers) === true;
}
