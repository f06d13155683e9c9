import { eq } from 'drizzle-orm';
import { dayNumber, type PlainDate } from '@/core/calendar/plain-date';
import { type ReadingCheck, suspectReadings } from '@/core/odometer/check';
import type { Reading } from '@/core/odometer/use-rate';
import { groupBy } from '@/core/shared/group-by';
import type { Querier } from '@/db/client';
import { type History, insertReadings, loadHistories, readingKey } from '@/db/queries/odometer';
import { vehicles } from '@/db/schema';
import { refreshOdometers } from '../../due/refresh-due';
import { doubtText } from '../../odometer/doubt-text';
import { lifeKm } from '../../odometer/judge';
import { defineKind, type PlannedRow, type PlanScope, type RawRow } from '../kind';

interface ReadingWrite {
  readonly vehicleId: string;
  readonly readOn: PlainDate;
  readonly odometerKm: number;
  readonly asTyped: string;
  readonly unit: 'km' | 'mi';
  readonly source: string;
  doubt: string | null;
  suggestedKm: number | null;
}

interface Vehicle {
  readonly id: string;
  readonly unit: 'km' | 'mi';
  readonly meterOffsetKm: number;
  readonly meterReplacedOn: string | null;
}

export const odometerKind = defineKind<ReadingWrite>({
  name: 'odometer',
  title: 'Odometer readings',
  about:
    'One row a reading. A unit in the row or behind the figure wins; else the column’s own unit; else what the vehicle’s dash shows. A reading that goes backwards or too fast is kept and flagged, but not used.',
  needs: ['vehicles'],
  dateColumns: ['read_on'],
  columns: [
    {
      key: 'unit_number',
      required: true,
      help: 'The vehicle',
      example: '32',
      aliases: ['unit_no', 'fleet_number', 'vehicle'],
    },
    {
      key: 'read_on',
      required: true,
      help: 'Day of the reading',
      example: '2026-11-02',
      aliases: ['date', 'day', 'on'],
    },
    { key: 'odometer', help: 'The figure as read', example: '88412', aliases: ['reading', 'value', 'mileage'] },
    { key: 'unit', help: 'km or mi of this row', example: 'km' },
    { key: 'odometer_km', help: 'Instead of odometer: a column in kilometres', example: '', aliases: ['km'] },
    { key: 'odometer_mi', help: 'Instead of odometer: a column in miles', example: '', aliases: ['mi', 'miles'] },
    { key: 'source', help: 'Who or what read it', example: 'yard walk' },
  ],

  async plan(q, scope, rows) {
    const known = await vehiclesByNumber(q, scope.fleetId);
    const planned = rows.map((row) => planRow(row, scope, known));
    return judgeHistory(planned, await loadHistories(q, scope.fleetId, vehiclesOf(planned)));
  },

  async apply(tx, { fleetId, today }, writes, personId) {
    await insertReadings(
      tx,
      fleetId,
      writes.map((write) => ({ ...write, state: write.doubt ? 'suspect' : 'accepted', enteredBy: personId })),
    );
    await refreshOdometers(tx, fleetId, today, [...new Set(writes.map((write) => write.vehicleId))]);
  },
});

async function vehiclesByNumber(q: Querier, fleetId: string): Promise<ReadonlyMap<string, Vehicle>> {
  const rows = await q
    .select({
      id: vehicles.id,
      number: vehicles.unitNumber,
      unit: vehicles.odometerUnit,
      meterOffsetKm: vehicles.meterOffsetKm,
      meterReplacedOn: vehicles.meterReplacedOn,
    })
    .from(vehicles)
    .where(eq(vehicles.fleetId, fleetId));
  return new Map(rows.map((row) => [row.number, row]));
}

function planRow(
  { line, reader: r }: RawRow,
  { today, options }: PlanScope,
  known: ReadonlyMap<string, Vehicle>,
): PlannedRow<ReadingWrite> {
  const number = r.required('unit_number');
  const vehicle = known.get(number);
  if (number && !vehicle) r.faults.push(`unit ${number} is not here yet: import vehicles.csv first`);
  const on = r.date('read_on');
  if (!on && r.faults.length === 0) r.fault('read_on', 'is empty');
  if (on?.certainty === 'estimated') r.fault('read_on', 'a reading needs its exact day');
  if (on && on.date > today) r.fault('read_on', `${on.date} is in the future`);
  const value =
    r.quantity('odometer', 'distance', 'unit', options.unit ?? vehicle?.unit ?? 'km') ??
    r.quantity('odometer_km', 'distance', '', 'km') ??
    r.quantity('odometer_mi', 'distance', '', 'mi');
  if (!value && r.faults.length === 0) r.fault('odometer', 'is empty');
  const what = on ? `unit ${number} on ${on.date}` : `unit ${number}`;
  if (r.faults.length > 0 || !vehicle || !on || !value) return { line, verdict: 'refuse', what, reasons: r.faults };
  const write: ReadingWrite = {
    vehicleId: vehicle.id,
    readOn: on.date,
    odometerKm: lifeKm(value.si, on.date, vehicle),
    asTyped: value.asTyped,
    unit: value.unit === 'mi' ? 'mi' : 'km',
    source: r.text('source') ?? 'import',
    doubt: null,
    suggestedKm: null,
  };
  return r.faults.length > 0
    ? { line, verdict: 'refuse', what, reasons: r.faults }
    : { line, verdict: 'add', what, reasons: [], write };
}

const vehiclesOf = (rows: readonly PlannedRow<ReadingWrite>[]): readonly string[] => [
  ...new Set(rows.flatMap((row) => row.write?.vehicleId ?? [])),
];

/** Skips what is already here, and flags what cannot follow from the vehicle's history. */
function judgeHistory(
  rows: readonly PlannedRow<ReadingWrite>[],
  history: ReadonlyMap<string, History>,
): readonly PlannedRow<ReadingWrite>[] {
  const judged = new Map<PlannedRow<ReadingWrite>, PlannedRow<ReadingWrite>>();
  for (const [vehicleId, own] of groupBy(
    rows.filter((row) => row.write),
    (row) => row.write?.vehicleId ?? '',
  )) {
    const known = history.get(vehicleId);
    const fresh = new Map<string, { row: PlannedRow<ReadingWrite>; write: ReadingWrite; reading: Reading }>();
    for (const row of own) {
      if (!row.write) continue;
      const reading = { day: dayNumber(row.write.readOn), km: row.write.odometerKm };
      const key = readingKey(reading);
      if (known?.known.has(key)) judged.set(row, skipped(row, 'already here'));
      else if (fresh.has(key)) judged.set(row, skipped(row, `the same as line ${fresh.get(key)?.row.line}`));
      else fresh.set(key, { row, write: row.write, reading });
    }
    const sorted = [...fresh.values()].sort((a, b) => a.reading.day - b.reading.day || a.reading.km - b.reading.km);
    const shown = sorted.map(({ reading }) => ({ day: reading.day, value: reading.km, unit: 'km' as const }));
    for (const [index, check] of suspectReadings(known?.accepted ?? [], shown)) {
      const entry = sorted[index];
      if (entry) judged.set(entry.row, doubted(entry.row, entry.write, check));
    }
  }
  return rows.map((row) => judged.get(row) ?? row);
}

const skipped = ({ line, what }: PlannedRow, reason: string): PlannedRow<ReadingWrite> => ({
  line,
  what,
  verdict: 'skip',
  reasons: [reason],
});

const doubted = (
  row: PlannedRow<ReadingWrite>,
  write: ReadingWrite,
  { reasons, suggestion }: ReadingCheck,
): PlannedRow<ReadingWrite> => ({
  ...row,
  reasons: [`${doubtText(reasons, suggestion?.km ?? null)}: kept as suspect, not used until someone resolves it`],
  write: { ...write, doubt: reasons.join(','), suggestedKm: suggestion?.km ?? null },
});
