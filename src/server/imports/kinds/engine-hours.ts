import { eq } from 'drizzle-orm';
import { vehicles } from '@/db/schema';
import { refreshDue } from '../../due/refresh-due';
import {
  HOUR_DOUBTS,
  type JudgedHours,
  judgeHours,
  keepJudged,
  type NewHours,
  readHours,
} from '../../odometer/record-hours';
import { defineKind, type PlannedRow, type RawRow, READING_COLUMNS } from '../kind';

export const engineHoursKind = defineKind<JudgedHours>({
  name: 'engine-hours',
  title: 'Engine hours',
  about:
    'One row a reading of an hour meter, for engines that idle: hours count as distance, by the shop’s policy. A reading that goes backwards or beyond 24 hours a day is kept and flagged, but not used.',
  needs: ['vehicles'],
  dateColumns: ['read_on'],
  columns: [
    ...READING_COLUMNS,
    {
      key: 'hours',
      required: true,
      help: 'The hours as read',
      example: '4210.5',
      aliases: ['engine_hours', 'reading', 'value'],
    },
    { key: 'source', help: 'Who or what read it', example: 'yard walk' },
  ],

  async plan(q, { fleetId, today }, rows) {
    const here = await q
      .select({ id: vehicles.id, number: vehicles.unitNumber })
      .from(vehicles)
      .where(eq(vehicles.fleetId, fleetId));
    const ids = new Map(here.map((row) => [row.number, row.id]));
    const read = rows.map((row) => readRow(row, today, ids));
    const judged = (
      await judgeHours(
        q,
        fleetId,
        read.flatMap((row) => row.hours ?? []),
      )
    ).values();
    return read.map(({ line, what, reasons, hours }): PlannedRow<JudgedHours> => {
      if (!hours) return { line, what, reasons, verdict: 'refuse' };
      const write = judged.next().value;
      if (!write || write.state === 'known') return { line, what, verdict: 'skip', reasons: ['already here'] };
      const doubts = write.doubt ? [`${HOUR_DOUBTS[write.doubt]}: kept as suspect, not used`] : [];
      return { line, what, verdict: 'add', reasons: doubts, write };
    });
  },

  async apply(tx, { fleetId, today }, writes, personId) {
    await refreshDue(tx, fleetId, today, await keepJudged(tx, fleetId, personId, writes));
  },
});

function readRow({ line, reader: r }: RawRow, today: string, ids: ReadonlyMap<string, string>) {
  const number = r.required('unit_number');
  const vehicleId = ids.get(number);
  if (number && !vehicleId) r.faults.push(`unit ${number} is not here yet: import vehicles.csv first`);
  const on = r.date('read_on');
  if (!on && r.faults.length === 0) r.fault('read_on', 'is empty');
  if (on?.certainty === 'estimated') r.fault('read_on', 'a reading needs its exact day');
  if (on && on.date > today) r.fault('read_on', `${on.date} is in the future`);
  const asTyped = r.required('hours');
  const hours = readHours(asTyped);
  if (asTyped && hours === null) r.fault('hours', `“${asTyped}” is not what an hour meter shows`);
  const source = r.text('source') ?? 'import';
  const what = on ? `unit ${number} on ${on.date}` : `unit ${number}`;
  const whole: NewHours | null =
    r.faults.length === 0 && vehicleId && on && hours !== null
      ? { vehicleId, readOn: on.date, hours, asTyped, source }
      : null;
  return { line, what, reasons: r.faults, hours: whole };
}
