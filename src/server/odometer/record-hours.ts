import { dayNumber } from '@/core/calendar/plain-date';
import { doubtHours, type HourDoubt, type HourReading, MAX_HOURS } from '@/core/odometer/engine-hours';
import { groupBy } from '@/core/shared/group-by';
import type { FleetId, VehicleId } from '@/core/shared/kinds';
import { readNumber } from '@/core/units/read-number';
import { roundTo } from '@/core/units/round';
import type { Querier, Tx } from '@/db/client';
import { loadHourRows } from '@/db/queries/odometer';
import { engineHourReadings } from '@/db/schema';

const HOURS = /^([\d.,\s\u00a0\u202f’']+)(h|hr|hrs|hours?)\.?$/iu;

/** Whether a typed reading is one of an hour meter: "4,210.5 h". */
export const isHours = (text: string): boolean => HOURS.test(text.trim());

/** @returns hours to a tenth; null for what no hour meter shows */
export function readHours(text: string): number | null {
  const digits = HOURS.exec(text.trim())?.[1] ?? text;
  // No hour meter shows thousandths: a mark before three digits groups.
  const hours = Math.max(...readNumber(digits.trim()));
  return hours >= 0 && hours <= MAX_HOURS ? roundTo(hours, 1) : null;
}

export const HOUR_DOUBTS: Readonly<Record<HourDoubt, string>> = {
  backwards: 'goes backwards',
  too_fast: 'more than 24 hours a day',
};

export interface NewHours {
  readonly vehicleId: VehicleId;
  readonly readOn: string;
  readonly hours: number;
  readonly asTyped: string;
  readonly source: string;
}

export interface JudgedHours extends NewHours {
  readonly state: 'accepted' | 'suspect' | 'known';
  readonly doubt: HourDoubt | null;
}

/** Judges new readings of hour meters against what is known of each vehicle, in order of day. Nothing is written. */
export async function judgeHours(
  q: Querier,
  fleetId: FleetId,
  rows: readonly NewHours[],
): Promise<readonly JudgedHours[]> {
  const known = groupBy(
    await loadHourRows(q, fleetId, [...new Set(rows.map((row) => row.vehicleId))]),
    (row) => row.vehicleId,
  );
  const judged = new Map<NewHours, JudgedHours>();
  for (const [vehicleId, ofVehicle] of groupBy(rows, (row) => row.vehicleId)) {
    const here = known.get(vehicleId) ?? [];
    const keys = new Set(here.map((row) => `${row.readOn} ${row.hours}`));
    const accepted: HourReading[] = here.filter((row) => row.state === 'accepted').map(toReading);
    for (const row of [...ofVehicle].sort((a, b) => a.readOn.localeCompare(b.readOn) || a.hours - b.hours)) {
      const key = `${row.readOn} ${row.hours}`;
      const isKnown = keys.has(key);
      const doubt = isKnown ? null : doubtHours(accepted, toReading(row));
      const fresh = doubt ? 'suspect' : 'accepted';
      judged.set(row, { ...row, doubt, state: isKnown ? 'known' : fresh });
      if (!isKnown && !doubt) accepted.push(toReading(row));
      keys.add(key);
    }
  }
  return rows.flatMap((row) => judged.get(row) ?? []);
}

const toReading = (row: { readonly readOn: string; readonly hours: number }): HourReading => ({
  day: dayNumber(row.readOn),
  hours: row.hours,
});

/** Writes readings of hour meters that have been judged. @returns the vehicles whose due status they change */
export async function keepJudged(
  tx: Tx,
  fleetId: FleetId,
  enteredBy: string | null,
  judged: readonly JudgedHours[],
): Promise<readonly string[]> {
  const rows = judged.flatMap(({ state, ...row }) =>
    state === 'known' ? [] : [{ ...row, state, fleetId, enteredBy }],
  );
  if (rows.length > 0) await tx.insert(engineHourReadings).values(rows);
  return [...new Set(rows.map((row) => row.vehicleId))];
}
