import { sql } from 'drizzle-orm';
import type { PlainDate } from '@/core/calendar/plain-date';
import { type Recorded, type Standing, standingOf } from '@/core/due/due-status';
import { FEW_READINGS, type GroupRate, groupRate, type UseRate } from '@/core/odometer/use-rate';
import { ASSUMED_LIFE } from '@/core/reliability/weibull';
import { groupBy } from '@/core/shared/group-by';
import type { Db, Tx } from '@/db/client';
import {
  holdFleet,
  loadGroupRates,
  loadRecorded,
  loadWeighing,
  markUnsettled,
  type RecordedRow,
  type StandingRow,
  saveStandings,
  takeLeaning,
  takeUnsettled,
  type Which,
} from '@/db/queries/due-inputs';
import { weighings } from '@/db/schema';

/** What the row of a vehicle says, in the words of the core. */
export const recordedOf = (row: RecordedRow): Recorded => ({
  matched: row.fitment === 'match',
  odometer: row.odometerOn === null || row.odometerKm === null ? null : { on: row.odometerOn, km: row.odometerKm },
  ownRate: ownRateOf(row),
  limits: { distanceKm: row.limitKm, months: row.limitMonths, share: row.limitShare },
  clocks: row.clocks,
  meter: row.hourMeter,
  hold: row.held ? { until: row.heldUntil, fault: row.heldByFault } : null,
});

export const moneyOf = ({ failureCost, wearCostPerPercent }: RecordedRow) => ({ failureCost, wearCostPerPercent });

function ownRateOf(row: RecordedRow): UseRate | null {
  if (row.rateKmPerDay === null) return null;
  return {
    kmPerDay: row.rateKmPerDay,
    ci80: [row.rateLowKmPerDay ?? 0, row.rateHighKmPerDay ?? 0],
    used: row.rateReadings,
    borrowed: false,
  };
}

/** Whether its rate is borrowed from its duty group, or widened by it. */
export const leans = (row: RecordedRow): boolean => row.rateKmPerDay === null || row.rateReadings <= FEW_READINGS;

/**
 * Weighs some vehicles, or (null) the whole fleet, for a day. Those who lean on their duty group's rate are left to
 * `ensureWeighed`, which settles them before anyone looks.
 */
export async function weigh(tx: Tx, fleetId: string, today: PlainDate, which: Which): Promise<void> {
  const recorded = await loadRecorded(tx, fleetId, which);
  const rates = which === null ? ratesOf(recorded) : new Map<string, GroupRate | null>();
  const rows = recorded.map((row) => toRow(row, weighed(row, rates.get(row.dutyGroup) ?? null, today)));
  await saveStandings(tx, rows);
  if (which !== null) await markUnsettled(tx, fleetId, rows);
}

/** Weighs those who lean on a duty group in which a rate changed. */
async function settleGroups(tx: Tx, fleetId: string, today: PlainDate): Promise<void> {
  const groups = await takeUnsettled(tx, fleetId);
  if (groups.length === 0) return;
  const recorded = await loadRecorded(tx, fleetId, await takeLeaning(tx, fleetId, groups));
  const rates = new Map<string, GroupRate | null>();
  for (const group of groups) rates.set(group, groupRate(await loadGroupRates(tx, fleetId, group)));
  await saveStandings(
    tx,
    recorded.map((row) => toRow(row, weighed(row, rates.get(row.dutyGroup) ?? null, today))),
  );
}

export const weighed = (row: RecordedRow, group: GroupRate | null, today: PlainDate): Standing =>
  standingOf(recordedOf(row), group, moneyOf(row), ASSUMED_LIFE, today);

/** What each duty group lends, from the rates of the whole fleet. */
export const ratesOf = (rows: readonly RecordedRow[]): ReadonlyMap<string, GroupRate | null> =>
  new Map(
    [...groupBy(rows, (row) => row.dutyGroup)].map(([group, members]) => [
      group,
      groupRate(members.flatMap((row) => row.rateKmPerDay ?? [])),
    ]),
  );

function toRow(row: RecordedRow, { state, worst, dates, rate, lifeIn7, lifeIn28, pressure }: Standing): StandingRow {
  return {
    vehicleId: row.id,
    fleetId: row.fleetId,
    depot: row.depot,
    dutyGroup: row.dutyGroup,
    searchKey: `${row.unitNumber}\n${row.name}`.toLowerCase(),
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
    rateLowKmPerDay: rate?.ci80[0] ?? null,
    rateHighKmPerDay: rate?.ci80[1] ?? null,
    rateReadings: rate?.used ?? 0,
    rateBorrowed: rate?.borrowed ?? false,
    leansOnGroup: leans(row),
    failureCost: row.failureCost,
    pressure,
  };
}

/** "G9" before "G10", "9" before "10", whatever the database's own order of letters is. */
export const unitOrder = (unit: string): string =>
  unit.toLowerCase().replace(/\d+/g, (digits) => digits.padStart(12, '0'));

/**
 * Sees to it that the fleet has been weighed for today, and that those who lean on their group follow it: the first who
 * asks does it, those who ask meanwhile wait for that and do not do it again.
 */
export async function ensureWeighed(db: Db, fleetId: string, today: PlainDate): Promise<void> {
  const before = await loadWeighing(db, fleetId);
  if (before.on === today && !before.unsettled) return;
  await db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${fleetId}, 11))`);
    const { on } = await loadWeighing(tx, fleetId);
    if (on === today) return settleGroups(tx, fleetId, today);
    await holdFleet(tx, fleetId, true);
    await takeUnsettled(tx, fleetId);
    await weigh(tx, fleetId, today, null);
    await tx
      .insert(weighings)
      .values({ fleetId, weighedOn: today })
      .onConflictDoUpdate({ target: weighings.fleetId, set: { weighedOn: today } });
  });
}
