import { eq } from 'drizzle-orm';
import { minuteOf } from '@/core/calendar/zone';
import { readRule } from '@/core/planning/absence';
import { ABSENCE_OF, type AbsenceOf } from '@/core/planning/absence-of';
import { absences, bays, depots, people, vehicles } from '@/db/schema';
import { defineKind, type PlannedRow, type RawRow } from '../kind';

type Write = Omit<typeof absences.$inferInsert, 'fleetId' | 'id' | 'createdAt'>;

/** Of each kind, its id by what people call it. */
type Names = ReadonlyMap<string, string>;

export const absencesKind = defineKind<Write>({
  name: 'absences',
  title: 'Absences',
  about: 'One row a time at which a depot, bay, person or vehicle cannot be had: once, or again and again by a rule.',
  needs: ['vehicles', 'bays'],
  dateColumns: ['from', 'to'],
  columns: [
    { key: 'of', required: true, help: ABSENCE_OF.join(', '), example: 'vehicle', choices: ABSENCE_OF },
    {
      key: 'name',
      required: true,
      help: 'A unit number, a person, a depot, or a depot with its bay: Northhaven Bay 1',
      example: '8',
    },
    { key: 'what', required: true, help: 'Why', example: 'harbour route' },
    { key: 'from', required: true, help: 'First day', example: '2026-02-02' },
    { key: 'to', help: 'Last day; empty: the same', example: '' },
    { key: 'from_time', help: 'Within each day; empty: all day', example: '07:30' },
    { key: 'to_time', help: 'Within each day', example: '17:30' },
    { key: 'rule', help: 'How it comes again, by RFC 5545', example: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR' },
  ],

  async plan(q, { fleetId }, rows) {
    const ofDepots = await q.select().from(depots).where(eq(depots.fleetId, fleetId));
    const depotNames = new Map(ofDepots.map(({ id, name }) => [id, name]));
    const ofBays = await q.select().from(bays).where(eq(bays.fleetId, fleetId));
    const ofPeople = await q.select().from(people).where(eq(people.fleetId, fleetId));
    const ofVehicles = await q
      .select({ id: vehicles.id, unit: vehicles.unitNumber })
      .from(vehicles)
      .where(eq(vehicles.fleetId, fleetId));
    const names: Names = new Map([
      ...ofDepots.map(({ id, name }) => [`depot ${name}`, id] as const),
      ...ofBays.map(({ id, depotId, name }) => [`bay ${depotNames.get(depotId)} ${name}`, id] as const),
      ...ofPeople.map(({ id, name }) => [`person ${name}`, id] as const),
      ...ofVehicles.map(({ id, unit }) => [`vehicle ${unit}`, id] as const),
    ]);
    const here = new Set((await q.select().from(absences).where(eq(absences.fleetId, fleetId))).map(keyOf));
    return rows.map((row) => planRow(row, names, here));
  },

  async apply(tx, { fleetId }, writes) {
    for (const write of writes) await tx.insert(absences).values({ fleetId, ...write });
  },
});

const keyOf = ({ of, ofId, fromDay, toDay, fromMin, toMin, rule }: Write): string =>
  [of, ofId, fromDay, toDay, fromMin ?? '', toMin ?? '', rule ?? ''].join('|');

const WHERE: Readonly<Record<AbsenceOf, string>> = {
  depot: 'import vehicles.csv first',
  bay: 'import bays.csv first',
  person: 'a supervisor adds them under People',
  vehicle: 'import vehicles.csv first',
};

function planRow({ line, reader: r }: RawRow, names: Names, here: Set<string>): PlannedRow<Write> {
  const kind = r.oneOf('of', ABSENCE_OF);
  const [name, why] = [r.required('name'), r.required('what')];
  const what = `${kind ?? '?'} ${name}`;
  const ofId = kind && names.get(`${kind} ${name}`);
  if (kind && name && !ofId) r.fault('name', `there is no ${kind} “${name}”: ${WHERE[kind]}`);
  const [from, to] = [r.date('from'), r.date('to')];
  if (!from && !r.faults.some((fault) => fault.startsWith('from'))) r.fault('from', 'is empty');
  if (from && to && to.date < from.date) r.fault('to', 'is before from');
  const [fromMin, toMin] = [readTime(r, 'from_time'), readTime(r, 'to_time')];
  if ((fromMin === null) !== (toMin === null)) r.fault('to_time', 'give both times, or none for the whole day');
  else if (fromMin !== null && toMin !== null && fromMin >= toMin) r.fault('to_time', 'is before from_time');
  const text = r.text('rule');
  const rule = text === null || !from ? null : readRule(text, from.date);
  if (rule && !rule.ok) r.fault('rule', rule.error);
  if (why.length > 120) r.fault('what', 'at most 120 characters');
  if (r.faults.length > 0 || !kind || !ofId || !from) return { line, verdict: 'refuse', what, reasons: r.faults };
  const write: Write = {
    of: kind,
    ofId,
    what: why,
    fromDay: from.date,
    toDay: to?.date ?? from.date,
    fromMin,
    toMin,
    rule: rule?.ok ? rule.value : null,
  };
  if (here.has(keyOf(write))) return { line, verdict: 'skip', what, reasons: ['already here'] };
  here.add(keyOf(write));
  return { line, verdict: 'add', what, reasons: [], write };
}

function readTime(r: RawRow['reader'], key: string): number | null {
  const text = r.text(key);
  if (text === null) return null;
  const minute = minuteOf(text);
  return Number.isNaN(minute) ? r.fault(key, `“${text}” is no time such as 08:00`) : minute;
}
