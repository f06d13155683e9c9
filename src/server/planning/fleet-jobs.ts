import { sayDay } from '@/core/calendar/day-names';
import { addDays, daysBetween, type PlainDate, weekdayOf } from '@/core/calendar/plain-date';
import { lifeForPressure } from '@/core/due/due-status';
import { layoutOf } from '@/core/engine/layout';
import { quantityOf } from '@/core/engine/quantities';
import { type Absence, hoursAway, without } from '@/core/planning/absence';
import { inSteps, slotOfBooking } from '@/core/planning/booking';
import { visitCosts } from '@/core/planning/day-costs';
import type { PlanJob } from '@/core/planning/plan-problem';
import type { JobFacts } from '@/core/planning/plan-proposal';
import { optionInForce } from '@/core/policy/policies';
import { ASSUMED_LIFE } from '@/core/reliability/weibull';
import { minutesToCold, USUAL_COOLING_MIN, USUAL_OUTSIDE_C } from '@/core/work/cooling';
import { isTaskComponent, type TaskComponent } from '@/core/work/task';
import type { EngineFamily } from '@/db/queries/catalogue';
import { choicesFor } from '@/db/queries/policies';
import { bookingOf, type WorkOrderListRow } from '@/db/queries/work-orders';
import type { depots, vehicles } from '@/db/schema';
import { engineTimes } from '../work-orders/engine-times';
import { awayOf, type DueRow, type FleetData } from './fleet-data';

/* Open orders and vehicles that are due, as jobs to plan, with what each is. */

type Depot = typeof depots.$inferSelect;
type Vehicle = typeof vehicles.$inferSelect;

interface Ahead {
  readonly data: FleetData;
  readonly days: readonly PlainDate[];
  readonly today: PlainDate;
  readonly vehicles: ReadonlyMap<string, Vehicle>;
  readonly depots: ReadonlyMap<string, Depot>;
  readonly families: ReadonlyMap<string, EngineFamily>;
  /** Parts on the shelf that no job before has taken. */
  readonly stock: Map<string, number>;
  /** Bay time by family: it remembers what it computed, since a fleet has many of each. */
  readonly times: ReadonlyMap<string, ReturnType<typeof engineTimes>>;
}

/** What is ahead of a fleet, with all that its jobs look up. */
export function aheadOf(data: FleetData, days: readonly PlainDate[], today: PlainDate): Ahead {
  const byId = <T extends { readonly id: string }>(rows: readonly T[]): ReadonlyMap<string, T> =>
    new Map(rows.map((row) => [row.id, row]));
  return {
    data,
    days,
    today,
    vehicles: byId(data.vehicles),
    depots: byId(data.depots),
    families: byId(data.families),
    stock: new Map(
      [...data.due.values()]
        .flat()
        .flatMap(({ number, onHand }) => (number !== null && onHand !== null ? [[number, onHand] as const] : [])),
    ),
    times: new Map(data.families.map((family) => [family.id, engineTimes(family, data.ratios.get(family.id))])),
  };
}

interface FleetJob {
  readonly job: PlanJob;
  readonly facts: JobFacts;
}

const WANTED: ReadonlySet<string> = new Set(['past', 'soon', 'inspect']);
/** What nobody knows the lead time of is taken to come within, days. */
const USUAL_LEAD_DAYS = 7;
/** A life that nobody knows is taken to be at its limit: it is looked at soon. */
const UNKNOWN_LIFE = 1;

/** A vehicle with its depot and engine; null: one of them is gone. */
function placed({ depots: all, families }: Ahead, vehicle: Vehicle | undefined) {
  const depot = all.get(vehicle?.depotId ?? '');
  const family = families.get(vehicle?.engineFamilyId ?? '');
  return vehicle && depot && family ? { vehicle, depot, family } : null;
}

interface Visit {
  readonly vehicle: Vehicle;
  readonly depot: Depot;
  readonly family: EngineFamily;
  readonly components: readonly TaskComponent[];
  readonly minutes: number;
  readonly slots: Pick<PlanJob, 'pin' | 'was'>;
  readonly order: WorkOrderListRow | null;
}

function jobOf(ahead: Ahead, visit: Visit): FleetJob {
  const { data, days, today, stock } = ahead;
  const { vehicle, depot, family, components, minutes, slots, order } = visit;
  const all = data.due.get(vehicle.id) ?? [];
  const rows = all.filter(({ component }) => components.some((chosen) => chosen === component));
  const cool = coolMinutes(data, vehicle, family, components);
  const coolFromMin = cool === 0 ? null : Math.min(24 * 60, inSteps(depot.opensMin + cool));
  const short = shortParts(rows, { family, depot, today, stock });
  const kitFrom =
    short
      .map(({ from }) => from)
      .sort()
      .at(-1) ?? null;
  const money = {
    components: rows.map((row) => waiting(row, family, data.costs.wearCostPerPercent)),
    troublePerWeek: troubleOf(all),
    minutes,
    coolMinutes: cool,
    hourCost: vehicle.hourCost ?? data.costs.hourCost,
    leavesIn: vehicle.retiresOn && Math.max(0, daysBetween(today, vehicle.retiresOn)),
  };
  const costs = visitCosts(money, days, today);
  const id = order ? `order ${order.id}` : `vehicle ${vehicle.id}`;
  return {
    job: {
      id,
      name: `unit ${vehicle.unitNumber}`,
      depot: depot.name,
      minutes,
      ...needsOf(data, depot, family),
      ...(vehicle.retiresOn ? { note: `it leaves the fleet on ${sayDay(vehicle.retiresOn)}` } : {}),
      allowed: allowedOf([...awayOf(data, `vehicle ${vehicle.id}`), ...goneBy(vehicle)], days),
      kitFrom,
      kitFromMin: kitFrom !== null && depot.deliveryDays.length > 0 ? (depot.deliveryFromMin ?? 0) : 0,
      coolFromMin,
      costByDay: costs.byDay.map(({ total }) => total),
      costUnplanned: costs.unplanned.total,
      ...slots,
    },
    facts: {
      id,
      vehicleId: vehicle.id,
      unitNumber: vehicle.unitNumber,
      name: vehicle.name,
      depot: depot.name,
      workOrderId: order?.id ?? null,
      number: order?.number ?? null,
      components,
      minutes,
      weekCost: all[0]?.vehiclePressure ?? null,
      costs,
      coolFromMin,
      short,
      likely: ahead.times.get(family.id)?.likely(components, minutes) ?? { fromMin: minutes, toMin: minutes },
      booked: slots.was && { ...slots.was, isPinned: slots.pin !== null },
    },
  };
}

/** A depot that says of no bay that it takes hybrids is taken to let them into any. */
function needsOf({ bays }: FleetData, { id }: Depot, { hybrid }: EngineFamily) {
  const has = bays.some(({ depotId, can }) => depotId === id && can.includes('hybrid'));
  return { needsSkills: hybrid ? ['hybrid'] : [], needsBay: hybrid && has ? ['hybrid'] : [] };
}

/** An open order; null: it is begun without a booking, or lies before these days, and is none of this plan. */
export function jobOfOrder(
  ahead: Ahead,
  order: WorkOrderListRow,
  components: readonly TaskComponent[],
): FleetJob | null {
  const at = placed(ahead, ahead.vehicles.get(order.vehicleId));
  const booking = bookingOf(order);
  const was = booking && slotOfBooking(booking);
  const isAhead = was !== null && ahead.days.includes(was.day);
  const isBegun = order.state !== 'proposed' && order.state !== 'planned';
  if (!at || (isBegun && !isAhead)) return null;
  const stays = isAhead && (isBegun || order.pinned === true);
  const minutes = stays ? (booking?.minutes ?? order.minutes) : order.minutes;
  return jobOf(ahead, {
    ...at,
    components,
    minutes: stays ? minutes : inSteps(minutes),
    slots: { pin: stays ? was : null, was },
    order,
  });
}

/** A vehicle of which something is due; null: nothing is, or nobody knows what goes in, or it waits for another fault. */
export function jobOfVehicle(ahead: Ahead, vehicle: Vehicle): FleetJob | null {
  const { data } = ahead;
  const at = placed(ahead, vehicle);
  const components = (data.due.get(vehicle.id) ?? [])
    .filter(({ state, fitment }) => WANTED.has(state) && fitment === 'match')
    .map(({ component }) => component)
    .filter(isTaskComponent);
  const engine = ahead.times.get(vehicle.engineFamilyId);
  if (!at || !engine || components.length === 0) return null;
  // New plugs wait for another fault: they would be read by it.
  if (data.faults.has(vehicle.id) && components.includes('plug')) return null;
  return jobOf(ahead, {
    ...at,
    components,
    minutes: inSteps(engine.minutesOf(components)),
    slots: { pin: null, was: null },
    order: null,
  });
}

const quantityIn = (family: EngineFamily, { component }: DueRow): number =>
  quantityOf(layoutOf(family.model), component);

function waiting(row: DueRow, family: EngineFamily, wearCostPerPercent: number) {
  const isKnown = row.lifeUsed !== null;
  const lifeUsed = row.lifeUsed ?? UNKNOWN_LIFE;
  return {
    what: row.component,
    pressure: {
      ...lifeForPressure({
        lifeUsed,
        lifeIn7: isKnown ? Math.max(lifeUsed, row.lifeIn7 ?? lifeUsed) : lifeUsed,
        share: isKnown ? row.share : 1,
        certainty: row.certainty,
      }),
      failureCost: row.failureCost,
      wearCostPerPercent,
      model: ASSUMED_LIFE,
    },
    partsCost: (row.price ?? 0) * quantityIn(family, row),
  };
}

/** What the weekly cost of a vehicle holds besides its components: a misfire, findings. */
function troubleOf(rows: readonly DueRow[]): number {
  const ofComponents = rows.reduce((sum, { pressure }) => sum + (pressure ?? 0), 0);
  return Math.max(0, (rows[0]?.vehiclePressure ?? ofComponents) - ofComponents);
}

interface Shelf {
  readonly family: EngineFamily;
  readonly depot: Depot;
  readonly today: PlainDate;
  readonly stock: Map<string, number>;
}

/** Takes its parts off the shelf; those of which too few are left, with the day on which the rest can be there. */
function shortParts(rows: readonly DueRow[], { family, depot, today, stock }: Shelf) {
  return rows.flatMap((row) => {
    const left = row.number === null ? undefined : stock.get(row.number);
    if (row.number === null || left === undefined) return [];
    const needed = quantityIn(family, row);
    stock.set(row.number, Math.max(0, left - needed));
    if (left >= needed) return [];
    const comes = depot.deliveryDays.length > 0 ? depot.deliveryDays : depot.workingDays;
    let from = addDays(today, row.leadDays ?? USUAL_LEAD_DAYS);
    for (let i = 0; i < 7 && !comes.includes(weekdayOf(from)); i += 1) from = addDays(from, 1);
    return [{ number: row.number, from }];
  });
}

/** Minutes from the opening of its depot until its plugs may come out; 0: it is cool, or none come out. */
function coolMinutes(
  data: FleetData,
  vehicle: Vehicle,
  family: EngineFamily,
  components: readonly TaskComponent[],
): number {
  if (vehicle.sleepsAtBay || !components.includes('plug')) return 0;
  const option = optionInForce('engine_temperature', choicesFor(data.choices, vehicle));
  return option === 'cold' ? minutesToCold(USUAL_OUTSIDE_C, family.coolingMinutes ?? USUAL_COOLING_MIN) : 0;
}

/** After the day on which it leaves the fleet nobody has it any more. */
const goneBy = ({ retiresOn }: Vehicle): readonly Absence[] =>
  retiresOn ? [{ from: retiresOn, to: addDays(retiresOn, MANY_DAYS), hours: null, rule: null, except: [] }] : [];
/** Longer than anybody plans ahead. */
const MANY_DAYS = 1000;

function allowedOf(away: readonly Absence[], days: readonly PlainDate[]): PlanJob['allowed'] {
  if (away.length === 0) return null;
  return without(
    days.map((day) => ({ day, fromMin: 0, toMin: 24 * 60 })),
    hoursAway(away, days),
  );
}
