import { eq, sql } from 'drizzle-orm';
import type { PlainDate } from '@/core/calendar/plain-date';
import { type Recorded, type Standing, standingOf } from '@/core/interval/standing';
import { FEW_READINGS, type GroupRate, groupRate, type UseRate } from '@/core/odometer/use-rate';
import { ASSUMED_LIFE } from '@/core/reliability/weibull';
import { groupBy } from '@/core/shared/group-by';
import type { Db, Tx } from '@/db/client';
import {
  loadGroupRates,
  loadLeaning,
  loadRecorded,
  type RecordedRow,
  type StandingRow,
  saveStandings,
  type Which,
} from '@/db/queries/status';
import { weighings } from '@/db/schema';

/** What the row of a vehicle says, in the words of the core. */
export const recordedOf = (row: RecordedRow): Recorded => ({
  matched: row.fitment === 'match',
  odometer: row.odometerOn === null || row.odometerKm === null ? null : { on: row.odometerOn, km: row.odometerKm },
  ownRate: ownRateOf(row),
  limits: { distanceKm: row.limitKm, months: row.limitMonths, share: row.limitShare },
  clocks: row.clocks,
  deferredUntil: row.deferredUntil,
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

const leans = (row: RecordedRow): boolean => row.rateKmPerDay === null || row.rateReadings <= FEW_READINGS;

/**
 * Weighs some vehicles, or (null) the whole fleet, for a day. One vehicle's work, unless others of its duty group lean
 * on the group's rate: those are weighed with it.
 */
export async function weigh(tx: Tx, fleetId: string, today: PlainDate, which: Which): Promise<void> {
  const asked = await loadRecorded(tx, fleetId, which);
  const groups = [...new Set(asked.map((row) => row.dutyGroup))];
  const leaning = which === null ? [] : await loadLeaning(tx, fleetId, groups, which);
  const rows = leaning.length === 0 ? asked : [...asked, ...(await loadRecorded(tx, fleetId, leaning))];
  const rates = which === null ? ratesOf(rows) : await ratesFor(tx, fleetId, rows);
  await saveStandings(
    tx,
    rows.map((row) => toRow(row, weighed(row, rates.get(row.dutyGroup) ?? null, today))),
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

/** The same for those groups only on which one of these vehicles leans. */
async function ratesFor(
  tx: Tx,
  fleetId: string,
  rows: readonly RecordedRow[],
): Promise<ReadonlyMap<string, GroupRate | null>> {
  const groups = [...new Set(rows.filter(leans).map((row) => row.dutyGroup))];
  const rates = new Map<string, GroupRate | null>();
  for (const group of groups) rates.set(group, groupRate(await loadGroupRates(tx, fleetId, group)));
  return rates;
}

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
 * Sees to it that the fleet has been weighed for today: the first who asks on a new day weighs it, those who ask
 * meanwhile wait for that and do not weigh again.
 */
export async function ensureWeighed(db: Db, fleetId: string, today: PlainDate): Promise<void> {
  const isFresh = async (q: Db | Tx): Promise<boolean> => {
    const [row] = await q.select().from(weighings).where(eq(weighings.fleetId, fleetId));
    return row?.weighedOn === today;
  };
  if (await isFresh(db)) return;
  await db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${fleetId}, 11))`);
    if (await isFresh(tx)) return;
    await weigh(tx, fleetId, today, null);
    await tx
      .insert(weighings)
      .values({ fleetId, weighedOn: today })
      .onConflictDoUpdate({ target: weighings.fleetId, set: { weighedOn: today } });
  });
}
