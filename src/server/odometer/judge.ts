import { dayNumber } from '@/core/calendar/plain-date';
import { type ReadingCheck, suspectReadings } from '@/core/odometer/check';
import { byDay, type Reading } from '@/core/odometer/use-rate';

export interface LifeReading {
  readonly readOn: string;
  readonly odometerKm: number;
}

/** In order of day and figure, as the core wants its history. */
export const historyOf = (rows: readonly LifeReading[]): readonly Reading[] =>
  rows.map((row) => ({ day: dayNumber(row.readOn), km: row.odometerKm })).sort(byDay);

/** The checks of new readings that are suspect beside what is accepted, by the reading itself. */
export function judgeReadings<R extends LifeReading>(
  accepted: readonly Reading[],
  fresh: readonly R[],
): ReadonlyMap<R, ReadingCheck> {
  const sorted = [...fresh].sort((a, b) => a.readOn.localeCompare(b.readOn) || a.odometerKm - b.odometerKm);
  const shown = sorted.map((row) => ({ day: dayNumber(row.readOn), value: row.odometerKm, unit: 'km' as const }));
  const judged = new Map<R, ReadingCheck>();
  for (const [index, check] of suspectReadings(accepted, shown)) {
    const row = sorted[index];
    if (row) judged.set(row, check);
  }
  return judged;
}

interface Meter {
  readonly meterOffsetKm: number;
  readonly meterReplacedOn: string | null;
}

/** What a shown figure means in the life of the vehicle: a replaced meter began anew. */
export const lifeKm = (shownKm: number, readOn: string, meter: Meter): number =>
  Math.round(
    (shownKm + (meter.meterReplacedOn !== null && readOn >= meter.meterReplacedOn ? meter.meterOffsetKm : 0)) * 10,
  ) / 10;
