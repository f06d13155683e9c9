import type { PlainDate } from '@/core/calendar/plain-date';
import { computeDueStatus, type DueStatus, type Recorded } from '@/core/due/due-status';
import { ASSUMED_FORECAST } from '@/core/due/forecast';
import { ASSUMED_WEEKLY } from '@/core/odometer/spread';
import { type GroupRate, groupRate, type UseRate, WINDOW_DAYS } from '@/core/odometer/use-rate';
import { ASSUMED_LIFE } from '@/core/reliability/weibull';
import { groupBy } from '@/core/shared/group-by';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier, Tx } from '@/db/client';
import { lockFleet, lockOne } from '@/db/locks';
import { sumUpCounts } from '@/db/queries/due';
import {
  type DueStatusRow,
  loadDueRun,
  loadGroupRates,
  loadRecorded,
  lockBorrowers,
  markStaleGroups,
  type RecordedRow,
  saveDueStatus,
  takeStaleGroups,
  type Which,
} from '@/db/queries/due-inputs';
import { dueRuns } from '@/db/schema';

/** What the row of a vehicle says, in the words of the core. */
export const recordedOf = (row: RecordedRow): Recorded => ({
  matched: row.fitment === 'match',
  odometer: row.odometerOn === null || row.odometerKm === null ? null : { on: row.odometerOn, km: row.odometerKm },
  ownRate: ownRateOf(row),
  limits: { distanceKm: row.limitKm, months: row.limitMonths, share: row.limitShare },
  clocks: row.clocks,
  meter: row.hourMeter,
  deferral: row.deferred ? { until: row.deferredUntil, fault: row.blockedByFault } : null,
  forecast: row.drift === null || row.scale === null ? ASSUMED_FORECAST : { drift: row.drift, scale: row.scale },
});

export const moneyOf = ({ failureCost, wearCostPerPercent }: RecordedRow) => ({ failureCost, wearCostPerPercent });

function ownRateOf(row: RecordedRow): UseRate | null {
  if (row.rateKmPerDay === null) return null;
  return {
    kmPerDay: row.rateKmPerDay,
    used: row.rateReadings,
    borrowed: false,
    weeklySpread: row.rateWeeklySpread ?? ASSUMED_WEEKLY,
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
  const rows = recorded.map((row) => toRow(row, dueStatusOf(row, rates.get(row.dutyGroup) ?? null, today)));
  await saveDueStatus(tx, rows);
  if (which !== null) await markStaleGroups(tx, fleetId, rows);
}

/** Computes those who borrow from a duty group in which a rate changed. */
async function refreshStaleGroups(tx: Tx, fleetId: FleetId, today: PlainDate): Promise<void> {
  const groups = await takeStaleGroups(tx, fleetId);
  if (groups.length === 0) return;
  const recorded = await loadRecorded(tx, fleetId, await lockBorrowers(tx, fleetId, groups));
  const rates = new Map<string, GroupRate | null>();
  for (const group of groups) rates.set(group, groupRate(await loadGroupRates(tx, fleetId, group)));
  await saveDueStatus(
    tx,
    recorded.map((row) => toRow(row, dueStatusOf(row, rates.get(row.dutyGroup) ?? null, today))),
  );
}

export const dueStatusOf = (row: RecordedRow, group: GroupRate | null, today: PlainDate): DueStatus =>
  computeDueStatus(recordedOf(row), group, moneyOf(row), ASSUMED_LIFE, today);

/** What each duty group lends, from the rates of the whole fleet. */
export const ratesOf = (rows: readonly RecordedRow[]): ReadonlyMap<string, GroupRate | null> =>
  new Map(
    [...groupBy(rows, (row) => row.dutyGroup)].map(([group, members]) => [
      group,
      groupRate(members.flatMap((row) => row.rateKmPerDay ?? [])),
    ]),
  );

function toRow(row: RecordedRow, { state, worst, dates, rate, lifeIn7, lifeIn28, pressure }: DueStatus): DueStatusRow {
  return {
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
    certainty: worst?.site.certainty ?? null,
    dueP10: dates?.p10 ?? null,
    dueP50: dates?.p50 ?? null,
    dueP90: dates?.p90 ?? null,
    rateKmPerDay: rate?.kmPerDay ?? null,
    rateReadings: rate?.used ?? 0,
    rateBorrowed: rate?.borrowed ?? false,
    borrowsGroupRate: borrowsGroupRate(row),
    failureCost: row.failureCost,
    pressure,
  };
}

/** "G9" before "G10", "9" before "10", whatever the database's own order of letters is. */
export const unitOrder = (unit: string): string =>
  unit.toLowerCase().replace(/\d+/g, (digits) => digits.padStart(12, '0'));

/**
 * Sees to it that the due status is that of today, and that those who borrow from their group follow it: the first who
 * asks does it, those who ask meanwhile wait for that and do not do it again.
 */
export async function ensureDueStatus(db: Querier, fleetId: FleetId, today: PlainDate): Promise<void> {
  const before = await loadDueRun(db, fleetId);
  if (before.on === today && !before.stale) return;
  await db.transaction(async (tx) => {
    await lockOne(tx, 'dueRun', fleetId);
    const { on } = await loadDueRun(tx, fleetId);
    if (on === today) return refreshStaleGroups(tx, fleetId, today);
    await lockFleet(tx, fleetId, true);
    await takeStaleGroups(tx, fleetId);
    await updateDueStatus(tx, fleetId, today, null);
    await sumUpCounts(tx, fleetId);
    await tx
      .insert(dueRuns)
      .values({ fleetId, ranOn: today })
      .onConflictDoUpdate({ target: dueRuns.fleetId, set: { ranOn: today } });
  });
}
