import { dayNumber, fromDayNumber, type PlainDate } from '@/core/calendar/plain-date';
import { type Fitment, matcher, type QuestionKey } from '@/core/catalogue/match';
import { type Certainty, leastCertain, type SiteClock } from '@/core/due/due';
import { mayGrowFast } from '@/core/due/seizing-risk';
import { type Layout, layoutOf } from '@/core/engine/layout';
import { type SiteKey, siteId } from '@/core/engine/model';
import { allPlaces } from '@/core/engine/places';
import type { Component } from '@/core/engine/quantities';
import { type HourReading, hourMeter, hoursOn } from '@/core/odometer/engine-hours';
import { ownRateOfFew } from '@/core/odometer/use-rate';
import { dueShare, kmPerHour, seizingShare } from '@/core/policy/apply';
import { optionInForce, type PolicyChoice } from '@/core/policy/policies';
import { groupBy } from '@/core/shared/group-by';
import type { FleetId } from '@/core/shared/kinds';
import type { Head } from '@/core/torque/plan';
import { TASK_COMPONENTS } from '@/core/work/task';
import type { Tx } from '@/db/client';
import { lockFleet } from '@/db/locks';
import { type ComponentSheet, isPlugSheet, loadFamilies, loadSheets } from '@/db/queries/catalogue';
import {
  type DueInputsRow,
  loadCurrent,
  loadHourReadings,
  loadRecentReadings,
  loadVehicleKeys,
  type OdometerRow,
  type RecentReadings,
  saveDueInputs,
  type Which,
  writeOdometers,
} from '@/db/queries/due-inputs';
import { type Ceilings, choicesFor, loadCeilings, loadPolicyChoices } from '@/db/queries/policies';
import type { ComponentInputs } from '@/db/schema';
import { updateDueStatus } from './due-status';

type Vehicle = Awaited<ReturnType<typeof loadVehicleKeys>>[number];
type Fitted = Awaited<ReturnType<typeof loadCurrent>>[number];

/**
 * Brings the due status of some vehicles, or (null) of the whole fleet, into step with what is recorded.
 * Called in the same transaction as its cause.
 */
export async function refreshDue(tx: Tx, fleetId: FleetId, today: PlainDate, which: Which): Promise<void> {
  if (which?.length === 0) return;
  await lockFleet(tx, fleetId, which === null);
  const vehicles = await loadVehicleKeys(tx, fleetId, which);
  const readings = await loadRecentReadings(tx, fleetId, which);
  const fitted = groupBy(await loadCurrent(tx, fleetId, which), (row) => row.vehicleId);
  const hours = await loadHourReadings(tx, fleetId, which);
  const known = await loadKnown(tx, fleetId, today, which && vehicles.map((vehicle) => vehicle.engineFamilyId));
  const rows = vehicles.flatMap((vehicle): DueInputsRow[] => {
    const layout = known.layouts.get(vehicle.engineFamilyId);
    if (!layout) return [];
    const choices = choicesFor(known.choices, vehicle);
    const ofVehicle = { fitted: fitted.get(vehicle.id) ?? [], hours: hours.get(vehicle.id) ?? [] };
    return [
      {
        vehicleId: vehicle.id,
        fleetId: vehicle.fleetId,
        ...odometerOf(readings.get(vehicle.id) ?? NO_READINGS),
        hourMeter: hourMeter(ofVehicle.hours, kmPerHour(optionInForce('engine_hours', choices))),
        components: componentsOf(vehicle, layout, ofVehicle, choices, known),
      },
    ];
  });
  await saveDueInputs(tx, rows);
  await updateDueStatus(tx, fleetId, today, which);
}

/** The weekly cost of a vehicle anew: its misfire or a finding has changed, and nothing else of what is recorded. */
export async function refreshWeekCost(tx: Tx, fleetId: FleetId, today: PlainDate, vehicleId: string): Promise<void> {
  await lockFleet(tx, fleetId, false);
  await updateDueStatus(tx, fleetId, today, [vehicleId]);
}

/**
 * The same after new readings alone: what goes in, its limits and when it was fitted stand as they are, so that only the
 * odometer and the rate are worked out anew.
 */
export async function refreshOdometers(
  tx: Tx,
  fleetId: FleetId,
  today: PlainDate,
  which: readonly string[],
): Promise<void> {
  for (let at = 0; at < which.length; at += AT_ONCE) {
    const some = which.slice(at, at + AT_ONCE);
    const readings = await loadRecentReadings(tx, fleetId, some);
    const rows = some.map((vehicleId) => ({ vehicleId, ...odometerOf(readings.get(vehicleId) ?? NO_READINGS) }));
    await saveOdometers(tx, fleetId, today, rows);
  }
}

/** Takes over where odometers stand, where that has been worked out, and computes the due status of their vehicles. */
export async function saveOdometers(
  tx: Tx,
  fleetId: FleetId,
  today: PlainDate,
  rows: readonly OdometerRow[],
): Promise<void> {
  if (rows.length > 0) await lockFleet(tx, fleetId, false);
  for (let at = 0; at < rows.length; at += AT_ONCE) {
    const some = rows.slice(at, at + AT_ONCE);
    await writeOdometers(tx, some);
    await updateDueStatus(
      tx,
      fleetId,
      today,
      some.map(({ vehicleId }) => vehicleId),
    );
  }
}

/** So many vehicles' readings are in memory at a time. */
const AT_ONCE = 2000;

const NO_READINGS: RecentReadings = { readings: [], suspects: 0 };

/** Where an odometer stands by its accepted readings, in order of day: those within the window, or all of them. */
export function odometerOf({ readings, suspects: suspectReadings }: RecentReadings): Omit<OdometerRow, 'vehicleId'> {
  const last = readings.at(-1);
  const rate = ownRateOfFew(readings);
  return {
    odometerOn: last ? fromDayNumber(last.day) : null,
    odometerKm: last?.km ?? null,
    suspectReadings,
    rateKmPerDay: rate?.kmPerDay ?? null,
    rateWeeklySpread: rate?.weeklySpread ?? null,
    rateDrift: rate?.drift ?? null,
    rateObservedDays: rate?.observedDays ?? null,
    rateReadings: rate?.used ?? 0,
  };
}

/** What holds for the whole fleet: the catalogue and the policies. */
interface Known {
  readonly layouts: ReadonlyMap<string, Layout>;
  readonly heads: ReadonlyMap<string, Head>;
  readonly fitmentOf: ReadonlyMap<Component, (vehicle: Vehicle) => Fitment<ComponentSheet>>;
  /** What the maker of the part says of a vehicle, whatever sheet is in force. */
  readonly makersOf: ReadonlyMap<Component, (vehicle: Vehicle) => Fitment<ComponentSheet>>;
  readonly choices: Awaited<ReturnType<typeof loadPolicyChoices>>;
  readonly ceilings: Ceilings;
}

/** @param of engine families; null: all */
async function loadKnown(tx: Tx, fleetId: FleetId, today: PlainDate, ids: readonly string[] | null): Promise<Known> {
  const familyIds = ids ? [...new Set(ids)] : undefined;
  const families = await loadFamilies(tx, fleetId, familyIds);
  const variants = new Map(families.map((family) => [family.id, family.variants]));
  const sheets = groupBy(await loadSheets(tx, fleetId, today, familyIds && { familyIds }), (sheet) => sheet.component);
  return {
    layouts: new Map(families.map((family) => [family.id, layoutOf(family.model)])),
    heads: new Map(families.map((family) => [family.id, family.headMaterial])),
    fitmentOf: new Map(
      TASK_COMPONENTS.map((component) => [
        component,
        matcher<ComponentSheet>(
          (sheets.get(component) ?? []).filter((sheet) => component !== 'plug' || isPlugSheet(sheet)),
          variants,
        ),
      ]),
    ),
    makersOf: new Map(
      [...sheets].map(([component, ofComponent]) => [
        component,
        matcher<ComponentSheet>(
          ofComponent.filter(({ sourceKind }) => sourceKind === 'part_maker'),
          variants,
        ),
      ]),
    ),
    choices: await loadPolicyChoices(tx, fleetId),
    ceilings: await loadCeilings(tx, fleetId),
  };
}

/** The plugs, and every other component that the engine has and a sheet speaks of. */
function componentsOf(
  vehicle: Vehicle,
  layout: Layout,
  { fitted, hours }: { readonly fitted: readonly Fitted[]; readonly hours: readonly HourReading[] },
  choices: readonly PolicyChoice[],
  { fitmentOf, makersOf, ceilings, heads }: Known,
): readonly ComponentInputs[] {
  const byComponent = groupBy(fitted, (row) => row.component);
  return [...fitmentOf].flatMap(([component, fitmentFor]): ComponentInputs[] => {
    const places = allPlaces(layout, component);
    if (places.length === 0) return [];
    const fitment = fitmentFor(vehicle);
    if (component !== 'plug' && fitment.kind === 'no-spec') return [];
    const sheet = fitment.kind === 'match' ? fitment.spec : null;
    const clocks = distinctClocks(vehicle, places, byComponent.get(component) ?? [], hours);
    return [
      {
        component,
        fitment: fitment.kind,
        fitmentWhy: whyNoMatch(fitment),
        specSheetId: sheet?.id ?? null,
        ...limitsOf(vehicle, sheet, makersOf.get(component)?.(vehicle), ceilings),
        // Early change is of plugs: their wear is what it hedges.
        limitShare: component === 'plug' ? plugShare(choices, clocks, heads.get(vehicle.engineFamilyId), sheet) : 1,
        clocks,
      },
    ];
  });
}

/** Of the full interval: earlier by the option, or where they were never out and may grow fast. */
function plugShare(
  choices: readonly PolicyChoice[],
  clocks: readonly SiteClock[],
  head: Head | undefined,
  sheet: ComponentSheet | null,
): number {
  const fittedKm = Math.min(...clocks.map(({ installed }) => installed.km));
  const fast = head !== undefined && mayGrowFast({ fittedKm, head, shell: sheet?.part.shell ?? null });
  const share = dueShare(optionInForce('interval', choices));
  return fast ? Math.min(share, seizingShare(optionInForce('seizing_risk', choices))) : share;
}

type LimitInputs = Pick<ComponentInputs, 'limitKm' | 'limitBy' | 'limitMonths'>;

/** The least of the sheet's interval for its duty, that of the part's own maker, and the shop's ceiling for its electrode. */
function limitsOf(
  vehicle: Pick<Vehicle, 'severeDuty'>,
  sheet: ComponentSheet | null,
  maker: Fitment<ComponentSheet> | undefined,
  ceilings: Ceilings,
): LimitInputs {
  const interval = intervalOf(vehicle, sheet);
  const stated = sheet && maker?.kind === 'match' && maker.spec.partId === sheet.partId ? maker.spec : null;
  const theirs = intervalOf(vehicle, stated);
  const limits: LimitInputs = {
    limitKm: least(interval.km, theirs.km),
    limitMonths: least(interval.months, theirs.months),
    limitBy: isLess(theirs.km, interval.km) || isLess(theirs.months, interval.months) ? 'maker' : 'sheet',
  };
  const ceiling = sheet?.part.electrode ? ceilings.get(sheet.part.electrode) : undefined;
  return ceiling !== undefined && isLess(ceiling, limits.limitKm)
    ? { ...limits, limitKm: ceiling, limitBy: 'shop' }
    : limits;
}

const intervalOf = ({ severeDuty }: Pick<Vehicle, 'severeDuty'>, sheet: ComponentSheet | null) => ({
  km: (severeDuty ? (sheet?.intervalSevereKm ?? sheet?.intervalKm) : sheet?.intervalKm) ?? null,
  months: sheet?.intervalMonths ?? null,
});

const isLess = (a: number | null, b: number | null): boolean => a !== null && (b === null || a < b);
const least = (a: number | null, b: number | null): number | null => (isLess(b, a) ? b : a);

/** In words, what keeps a vehicle from a firm match; null for a match. */
export function whyNoMatch(fitment: Fitment<ComponentSheet>): string | null {
  switch (fitment.kind) {
    case 'match':
      return null;
    case 'no-spec':
      return fitment.reason === 'only-memory'
        ? 'The only sheet is from memory: do not fit by it.'
        : 'No spec sheet for this engine: do not fit.';
    case 'needs-answer':
      return QUESTIONS[fitment.key];
  }
}

export const QUESTIONS: Readonly<Record<QuestionKey, string>> = {
  'engine-family': 'Which engine family is it?',
  variant: 'Which variant of the engine is it?',
  'model-year': 'Which model year is it?',
  'built-on': 'When was it built?',
  serial: 'Which serial number does its VIN end in?',
  fuel: 'Which fuel does it run on?',
  induction: 'Is the engine boosted?',
  market: 'For which market was it built?',
  sheet: 'Two sheets of equal rank cover it: which holds?',
};

/** A place with no record is taken as fitted when the vehicle was new, and marked so. */
function distinctClocks(
  vehicle: Vehicle,
  places: readonly SiteKey[],
  fitted: readonly Fitted[],
  hours: readonly HourReading[],
): SiteClock[] {
  const bySite = new Map(fitted.map((row) => [siteId(row), row]));
  const clocks = new Map<string, SiteClock>();
  for (const { cylinder, position } of places) {
    const row = bySite.get(siteId({ cylinder, position }));
    const good = row ? goodOf(row) : null;
    const certainty = row ? clockCertainty(row) : 'assumed';
    const installed = row
      ? {
          on: row.installedOn,
          km: row.installedKm,
          hours: hoursOn(hours, dayNumber(row.installedOn)),
          ...(good ? { good } : {}),
        }
      : { on: vehicle.inServiceOn, km: 0, hours: 0 };
    const key = JSON.stringify([installed.on, installed.km, certainty, good]);
    if (!clocks.has(key)) clocks.set(key, { cylinder, position, installed, certainty });
  }
  return [...clocks.values()];
}

/** What an inspection said of a part that stayed in; null: nothing. */
const goodOf = ({ checkedOn, checkedKm, goodForKm }: Fitted) =>
  checkedOn !== null && checkedKm !== null && goodForKm !== null
    ? { on: checkedOn, km: checkedKm, forKm: goodForKm }
    : null;

/** Whoever has looked at it has estimated what it has left; before that it is as sure as its fitting. */
const clockCertainty = (row: Fitted): Certainty =>
  goodOf(row) ? 'estimated' : leastCertain(row.installedOnCertainty, row.installedKmCertainty);
