import { eq } from 'drizzle-orm';
import type { PlainDate } from '@/core/calendar/plain-date';
import { MAX_ODOMETER_KM, type ReadingCheck } from '@/core/odometer/check';
import {
  certaintyOf,
  givenOf,
  lifeKm,
  NOTHING_KNOWN,
  type ReadingCertainty,
  readingFault,
  takeIn,
} from '@/core/odometer/intake';
import { groupBy } from '@/core/shared/group-by';
import type { FleetId, Km, VehicleId } from '@/core/shared/kinds';
import type { Querier } from '@/db/client';
import { type History, insertReadings, loadHistories } from '@/db/queries/odometer';
import { vehicles } from '@/db/schema';
import { distanceText } from '@/text/format';
import { doubtText } from '@/text/odometer-words';
import { refreshOdometers } from '../../due/refresh-due';
import { defineKind, type PlannedRow, type PlanScope, type RawRow, READING_COLUMNS } from '../kind';

interface ReadingWrite {
  readonly vehicleId: VehicleId;
  readonly readOn: PlainDate;
  readonly odometerKm: Km;
  readonly asTyped: string;
  readonly unit: 'km' | 'mi';
  readonly source: string;
  readonly certainty: ReadingCertainty;
  doubt: string | null;
  suggestedKm: Km | null;
}

interface Vehicle {
  readonly id: string;
  readonly unit: 'km' | 'mi';
  readonly meterOffsetKm: Km;
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
    ...READING_COLUMNS,
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

async function vehiclesByNumber(q: Querier, fleetId: FleetId): Promise<ReadonlyMap<string, Vehicle>> {
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
    certainty: certaintyOf(value),
    doubt: null,
    suggestedKm: null,
  };
  const fault = readingFault(write, today);
  if (fault === 'future') r.fault('read_on', `${on.date} is in the future`);
  if (fault === 'too_far')
    r.fault('odometer', `is over ${distanceText(MAX_ODOMETER_KM, write.unit === 'mi' ? 'us' : 'metric')}`);
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
  histories: ReadonlyMap<string, History>,
): readonly PlannedRow<ReadingWrite>[] {
  const judged = new Map<PlannedRow<ReadingWrite>, PlannedRow<ReadingWrite>>();
  const ready = rows.flatMap((row) => (row.write ? [{ row, write: row.write }] : []));
  for (const [vehicleId, rows] of groupBy(ready, ({ write }) => write.vehicleId)) {
    const given = rows.map(({ write }) => givenOf(write));
    for (const [i, taken] of takeIn(histories.get(vehicleId) ?? NOTHING_KNOWN, given).entries()) {
      const { row, write } = rows[i] ?? {};
      if (!row || !write) continue;
      if (taken.kind === 'known') judged.set(row, skipped(row, sameAs(taken.sameAs, rows)));
      if (taken.kind === 'suspect') judged.set(row, doubted(row, write, taken.check));
    }
  }
  return rows.map((row) => judged.get(row) ?? row);
}

const sameAs = (index: number | null, siblings: readonly { readonly row: PlannedRow }[]): string =>
  index === null ? 'already here' : `the same as line ${siblings[index]?.row.line}`;

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
  reasons: [
    `${doubtText(reasons, suggestion?.km ?? null, write.unit === 'mi' ? 'us' : 'metric')}: kept as suspect, not used until someone resolves it`,
  ],
  write: { ...write, doubt: reasons.join(','), suggestedKm: suggestion?.km ?? null },
});
