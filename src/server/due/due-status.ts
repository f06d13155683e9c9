import type { PlainDate } from '@/core/calendar/plain-date';
import { leastCertain, type SiteClock } from '@/core/due/due';
import { computeDueStatus, type DueStatus, type Recorded } from '@/core/due/due-status';
import { ASSUMED_FORECAST, type Forecast } from '@/core/due/forecast';
import { bindsFirst } from '@/core/due/vehicle-due';
import { weekCost } from '@/core/due/week-cost';
import { ASSUMED_DRIFT, ASSUMED_WEEKLY } from '@/core/odometer/spread';
import { type GroupRate, groupRate, type UseRate, WINDOW_DAYS } from '@/core/odometer/use-rate';
import { ASSUMED_LIFE } from '@/core/reliability/weibull';
import { groupBy } from '@/core/shared/group-by';
import type { FleetId } from '@/core/shared/kinds';
import type { Tx } from '@/db/client';
import {
  type DueStatusRow,
  loadGroupRates,
  loadRecorded,
  lockBorrowers,
  markStaleGroups,
  type RecordedRow,
  saveDueStatus,
  takeStaleGroups,
  type Which,
} from '@/db/queries/due-inputs';
import type { ComponentInputs } from '@/db/schema';

/** What the row of a vehicle says of one of its components, in the words of the core. */
export const recordedOf = (row: RecordedRow, inputs: ComponentInputs): Recorded => ({
  matched: inputs.fitment === 'match',
  odometer: row.odometerOn === null || row.odometerKm === null ? null : { on: row.odometerOn, km: row.odometerKm },
  ownRate: ownRateOf(row),
  limits: { distanceKm: inputs.limitKm, months: inputs.limitMonths, share: inputs.limitShare },
  clocks: clocksOf(row, inputs),
  meter: row.hourMeter,
  deferral: row.deferrals.find(({ component }) => component === inputs.component) ?? null,
  reminderOn: inputs.component === 'plug' ? row.reminderOn : null,
  forecast: forecastOf(row),
});

/** No part is dated better than the reading that the day goes by. */
const clocksOf = (row: RecordedRow, { clocks }: Pick<ComponentInputs, 'clocks'>): readonly SiteClock[] =>
  clocks.map((clock) => ({ ...clock, certainty: leastCertain(clock.certainty, row.odometerCertainty) }));

export const forecastOf = ({ drift, scale }: RecordedRow): Forecast =>
  drift === null || scale === null ? ASSUMED_FORECAST : { drift, scale };

export const moneyOf = ({ failureCost, wearCostPerPercent }: RecordedRow) => ({ failureCost, wearCostPerPercent });

export function ownRateOf(row: RecordedRow): UseRate | null {
  if (row.rateKmPerDay === null) return null;
  return {
    kmPerDay: row.rateKmPerDay,
    used: row.rateReadings,
    borrowed: false,
    weeklySpread: row.rateWeeklySpread ?? ASSUMED_WEEKLY,
    drift: row.rateDrift ?? ASSUMED_DRIFT,
    observedDays: row.rateObservedDays ?? WINDOW_DAYS,
    groupSpread: 0,
  };
}

/** Whether its rate is borrowed from its duty group. */
export const borrowsGroupRate = (row: RecordedRow): boolean => row.rateKmPerDay === null;

/**
 * Computes the due status of some vehicles, or (null) of the whole fleet, for a day. Those who borrow their duty group's
 * rate are left to `ensureDueStatus`, which resolves them before anyone looks.
 */
export async function updateDueStatus(tx: Tx, fleetId: FleetId, today: PlainDate, which: Which): Promise<void> {
  const recorded = await loadRecorded(tx, fleetId, which);
  const rates = which === null ? ratesOf(recorded) : new Map<string, GroupRate | null>();
  const rows = recorded.flatMap((row) => toRows(row, rates.get(row.dutyGroup) ?? null, today));
  await saveDueStatus(tx, rows);
  if (which !== null) await markStaleGroups(tx, fleetId, rows);
}

/** Computes those who borrow from a duty group in which a rate changed. */
export async function refreshStaleGroups(tx: Tx, fleetId: FleetId, today: PlainDate): Promise<void> {
  const groups = await takeStaleGroups(tx, fleetId);
  if (groups.length === 0) return;
  const recorded = await loadRecorded(tx, fleetId, await lockBorrowers(tx, fleetId, groups));
  const rates = new Map<string, GroupRate | null>();
  for (const group of groups) rates.set(group, groupRate(await loadGroupRates(tx, fleetId, group)));
  await saveDueStatus(
    tx,
    recorded.flatMap((row) => toRows(row, rates.get(row.dutyGroup) ?? null, today)),
  );
}

export const dueStatusOf = (
  row: RecordedRow,
  of: ComponentInputs,
  group: GroupRate | null,
  today: PlainDate,
): DueStatus => computeDueStatus(recordedOf(row, of), group, moneyOf(row), ASSUMED_LIFE, today);

/** What each duty group lends, from the rates of the whole fleet. */
export const ratesOf = (rows: readonly RecordedRow[]): ReadonlyMap<string, GroupRate | null> =>
  new Map(
    [...groupBy(rows, (row) => row.dutyGroup)].map(([group, members]) => [
      group,
      groupRate(members.flatMap((row) => row.rateKmPerDay ?? [])),
    ]),
  );

/** Where each component of a vehicle stands; one of them speaks for it. */
function toRows(row: RecordedRow, group: GroupRate | null, today: PlainDate): readonly DueStatusRow[] {
  const results = row.components.map((component) => {
    const status = dueStatusOf(row, component, group, today);
    return {
      of: component,
      status,
      component: component.component,
      state: status.state,
      due: status.dates?.p50 ?? null,
      lifeUsed: status.worst?.due.lifeUsed ?? null,
    };
  });
  const first = bindsFirst(results);
  const { total: vehiclePressure } = weekCost(
    results.map(({ status }) => status),
    row,
    row.failureCost,
  );
  return results.map((each) => ({
    ...toRow(row, each.of, each.status),
    component: each.component,
    leads: each === first,
    vehiclePressure,
  }));
}

function toRow(
  row: RecordedRow,
  { component: _, clocks, ...of }: ComponentInputs,
  { state, worst, dates, rate, lifeIn7, lifeIn28, pressure }: DueStatus,
): Omit<DueStatusRow, 'component' | 'leads'> {
  const since = worst?.site ?? oldest(clocksOf(row, { clocks }));
  return {
    ...of,
    vehicleId: row.id,
    fleetId: row.fleetId,
    depot: row.depot,
    dutyGroup: row.dutyGroup,
    unitOrder: unitOrder(row.unitNumber),
    state,
    lifeUsed: worst?.due.lifeUsed ?? null,
    lifeIn7,
    lifeIn28,
    odometerNowKm: worst?.due.odometerNowKm ?? row.odometerKm,
    binds: worst?.due.binds ?? null,
    certainty: since?.certainty ?? null,
    dueP10: dates?.p10 ?? null,
    dueP50: dates?.p50 ?? null,
    dueP90: dates?.p90 ?? null,
    rateKmPerDay: rate?.kmPerDay ?? null,
    rateReadings: rate?.used ?? 0,
    rateBorrowed: rate?.borrowed ?? false,
    borrowsGroupRate: borrowsGroupRate(row),
    failureCost: row.failureCost,
    pressure,
    fittedOn: since?.installed.on ?? null,
    fittedKm: since?.installed.km ?? null,
  };
}

/** Of parts that nothing dates the one that has been in for longest. */
const oldest = (clocks: readonly SiteClock[]): SiteClock | null =>
  clocks.reduce<SiteClock | null>(
    (first, next) => (first && first.installed.km <= next.installed.km ? first : next),
    null,
  );

/** "G9" before "G10", "9" before "10", whatever the database's own order of letters is. */
export const unitOrder = (unit: string): string =>
  unit.toLowerCase().replace(/\d+/g, (digits) => digits.padStart(12, '0'));
