import { and, eq } from 'drizzle-orm';
import { partKey, SOURCE_RANKS } from '@/core/fitment/match';
import { ELECTRODES } from '@/core/gap/check';
import { doubtOfTorque, SEATS, THREADS } from '@/core/torque/plan';
import type { Querier, Tx } from '@/db/client';
import { type EngineFamily, loadFamilies, loadSpecs, type PartRow, type SpecSheet } from '@/db/queries/catalogue';
import { parts, specSheets } from '@/db/schema';
import { refreshStatus } from '../../due/refresh-status';
import { defineKind, differences, type PlannedRow, type RawRow, SeenBefore } from '../kind';

type PartValues = Omit<typeof parts.$inferInsert, 'fleetId' | 'id' | 'version'>;
type SheetValues = Omit<typeof specSheets.$inferInsert, 'fleetId' | 'id' | 'partId' | 'createdAt'>;
interface SheetWrite {
  readonly part: PartValues;
  readonly sheet: SheetValues;
}

interface Here {
  readonly families: ReadonlyMap<string, EngineFamily>;
  readonly parts: ReadonlyMap<string, PartRow>;
  readonly sheets: ReadonlyMap<string, SpecSheet>;
}

export const specSheetsKind = defineKind<SheetWrite>({
  name: 'spec-sheets',
  title: 'Spec sheets',
  about:
    'One row a spark plug spec: the part, gap, torque (clean dry threads) and interval for an engine family, with its source. A sheet never changes once it is here; give a change a new revision number. A sheet from memory is kept, but releases no work.',
  needs: ['engine-families'],
  dateColumns: ['source_dated'],
  columns: [
    {
      key: 'engine_family',
      required: true,
      help: 'Code of the engine family',
      example: 'PW-34M',
      aliases: ['engine', 'family'],
    },
    { key: 'variant', help: 'Only for this variant; empty for all', example: '' },
    { key: 'model_year_from', help: 'First model year', example: '2016', aliases: ['year_from'] },
    { key: 'model_year_to', help: 'Last model year', example: '', aliases: ['year_to'] },
    { key: 'part_number', required: true, help: 'The plug', example: 'EM-7310', aliases: ['part', 'plug'] },
    { key: 'part_maker', required: true, help: 'Who makes it', example: 'Emberline', aliases: ['maker'] },
    { key: 'electrode', required: true, help: 'nickel, fine_wire or multi_ground', example: 'fine_wire' },
    { key: 'thread', required: true, help: 'M8, M10, M12, M14 or M18', example: 'M12' },
    { key: 'seat', required: true, help: 'gasket or conical', example: 'gasket' },
    { key: 'reach_mm', help: 'Thread reach, mm', example: '26.5', aliases: ['reach'] },
    { key: 'hex_mm', help: 'Hexagon, mm', example: '14', aliases: ['hex'] },
    { key: 'gap_min', required: true, help: 'Least gap, in gap_unit or with its own unit', example: '1.00' },
    { key: 'gap_max', required: true, help: 'Greatest gap', example: '1.10' },
    { key: 'gap_unit', help: 'mm, in or thou', example: 'mm' },
    { key: 'torque_min', required: true, help: 'Least torque, clean dry threads', example: '16' },
    { key: 'torque_max', required: true, help: 'Greatest torque', example: '19' },
    { key: 'torque_unit', help: 'N·m, lbf·ft or lbf·in', example: 'Nm' },
    { key: 'interval', help: 'Distance in normal duty', example: '96000', aliases: ['interval_normal'] },
    { key: 'interval_severe', help: 'Distance in severe duty', example: '72000' },
    { key: 'interval_unit', help: 'km or mi', example: 'km' },
    { key: 'interval_months', help: 'Months, whichever comes first', example: '72', aliases: ['months'] },
    { key: 'source_kind', required: true, help: SOURCE_RANKS.join(', '), example: 'service_information' },
    {
      key: 'source_document',
      required: true,
      help: 'Where the figures stand',
      example: 'Demo data: Pellworm engine book 4',
      aliases: ['source'],
    },
    { key: 'source_dated', help: 'Date of the source', example: '2024-03-01' },
    { key: 'revision', help: 'Revision number; 1 when empty', example: '1' },
    { key: 'entered_by', required: true, help: 'Who copied the figures', example: 'R. Tolland' },
    { key: 'checked_by', help: 'Another person who compared them with the source', example: 'M. Vane' },
    { key: 'note', help: 'Anything the technician should know', example: 'Demo data, not for real work' },
  ],

  async plan(q, { fleetId }, rows) {
    const here = await whatIsHere(q, fleetId);
    const seen = new SeenBefore();
    return rows.map((row) => planRow(row, here, seen));
  },

  async apply(tx, { fleetId }, writes) {
    for (const write of writes) await save(tx, fleetId, write);
    // Any of them can change which sheet holds, and which sites there are, for any vehicle.
    await refreshStatus(tx, fleetId, null);
  },
});

async function whatIsHere(q: Querier, fleetId: string): Promise<Here> {
  const families = new Map((await loadFamilies(q, fleetId)).map((family) => [family.code, family]));
  const partRows = await q.select().from(parts).where(eq(parts.fleetId, fleetId));
  const sheets = new Map((await loadSpecs(q, fleetId)).map((sheet) => [sheetKey(sheet), sheet]));
  return { families, parts: new Map(partRows.map((part) => [part.numberKey, part])), sheets };
}

const sheetKey = (s: SheetValues | SpecSheet): string =>
  JSON.stringify([
    s.engineFamilyId,
    s.component,
    s.variant,
    s.modelYearFrom,
    s.modelYearTo,
    s.sourceDocument,
    s.revision,
  ]);

function planRow(row: RawRow, here: Here, seen: SeenBefore): PlannedRow<SheetWrite> {
  const { line, reader: r } = row;
  const code = r.required('engine_family');
  const what = `${code} sheet for ${r.text('part_number') ?? '?'}`;
  const family = here.families.get(code);
  if (code && !family) r.faults.push(`engine family ${code} is not here yet: import engine-families.csv first`);
  const part = readPart(r);
  const sheet = family ? readSheet(r, family, part) : null;
  if (r.faults.length > 0 || !sheet) return { line, verdict: 'refuse', what, reasons: r.faults };
  const known = here.parts.get(part.numberKey);
  const clash = known ? differences(known, withoutBlanks(part)) : [];
  if (clash.length > 0)
    return {
      line,
      verdict: 'refuse',
      what,
      reasons: [`part ${part.number} is already here with another ${clash.join(', ')}`],
    };
  const otherPart = seen.check(`part ${part.numberKey}`, line, withoutBlanks(part));
  if (otherPart?.verdict === 'refuse')
    return { line, verdict: 'refuse', what, reasons: [`part ${part.number}: ${otherPart.reason}`] };
  const again = seen.check(sheetKey(sheet), line, { part, sheet });
  if (again) return { line, verdict: again.verdict, what, reasons: [again.reason] };
  return againstSheets(line, what, part, sheet, here);
}

function againstSheets(
  line: number,
  what: string,
  part: PartValues,
  sheet: SheetValues,
  here: Here,
): PlannedRow<SheetWrite> {
  const before = here.sheets.get(sheetKey(sheet));
  if (!before) return { line, verdict: 'add', what, reasons: [], write: { part, sheet } };
  const changed = differences({ ...before, number: before.part.numberKey }, { ...sheet, number: part.numberKey });
  if (changed.length === 0) return { line, verdict: 'skip', what, reasons: ['already here'] };
  return {
    line,
    verdict: 'refuse',
    what,
    reasons: [
      `revision ${sheet.revision} is already here with another ${changed.join(', ')}. Give the change revision ${sheet.revision + 1}`,
    ],
  };
}

const withoutBlanks = (part: PartValues): Record<string, unknown> => {
  const { number: _, ...rest } = part;
  return Object.fromEntries(Object.entries(rest).filter(([, value]) => value !== null));
};

function readPart(r: RawRow['reader']): PartValues {
  const number = r.required('part_number');
  return {
    number,
    numberKey: partKey(number),
    maker: r.required('part_maker'),
    kind: 'plug',
    electrode: r.oneOf('electrode', ELECTRODES),
    thread: r.oneOf('thread', THREADS),
    seat: r.oneOf('seat', SEATS),
    reachMm: r.decimal('reach_mm', 5, 60),
    hexMm: r.decimal('hex_mm', 8, 30),
  };
}

function readSheet(r: RawRow['reader'], family: EngineFamily, part: PartValues): SheetValues | null {
  const gapMin = r.quantity('gap_min', 'gap', 'gap_unit', 'mm');
  const gapMax = r.quantity('gap_max', 'gap', 'gap_unit', 'mm');
  const torqueMin = r.quantity('torque_min', 'torque', 'torque_unit', 'N·m');
  const torqueMax = r.quantity('torque_max', 'torque', 'torque_unit', 'N·m');
  const interval = r.quantity('interval', 'distance', 'interval_unit', 'km');
  const severe = r.quantity('interval_severe', 'distance', 'interval_unit', 'km');
  const months = r.integer('interval_months', 1, 600);
  const dated = r.date('source_dated');
  const [enteredBy, checkedBy] = [r.required('entered_by'), r.text('checked_by')];
  const variant = r.text('variant');
  const [from, to] = [r.integer('model_year_from', 1950, 2100), r.integer('model_year_to', 1950, 2100)];
  const sourceKind = r.oneOf('source_kind', SOURCE_RANKS);
  const document = r.required('source_document');
  if (!gapMin || !gapMax) r.fault('gap_min', 'give both ends of the range');
  if (!torqueMin || !torqueMax) r.fault('torque_min', 'give both ends of the range');
  if (!interval && !months) r.fault('interval', 'give a distance, months, or both');
  if (interval && interval.si < 1000)
    r.fault('interval', `${interval.asTyped} is too short for a plug interval. Is a k missing?`);
  if (gapMin && gapMax && gapMin.si > gapMax.si) r.fault('gap_min', 'is above gap_max');
  if (torqueMin && torqueMax && torqueMin.si > torqueMax.si) r.fault('torque_min', 'is above torque_max');
  if (checkedBy !== null && checkedBy === enteredBy) r.fault('checked_by', 'must be another person than entered_by');
  if (variant !== null && !family.variants.includes(variant))
    r.fault(
      'variant',
      `${family.code} has no variant “${variant}”: it knows ${family.variants.join(' and ') || 'none'}`,
    );
  if (from !== null && to !== null && from > to) r.fault('model_year_from', 'is after model_year_to');
  const { thread, seat } = part;
  if (!gapMin || !gapMax || !torqueMin || !torqueMax || !sourceKind || !thread || !seat) return null;
  const doubt = doubtOfTorque({ min: torqueMin.si, max: torqueMax.si }, thread, seat, family.headMaterial);
  if (doubt) r.fault('torque_min', doubt);
  return {
    engineFamilyId: family.id,
    component: 'plug',
    variant,
    modelYearFrom: from,
    modelYearTo: to,
    gapMinMm: round(gapMin.si, 4),
    gapMaxMm: round(gapMax.si, 4),
    gapAsTyped: `${gapMin.asTyped} to ${gapMax.asTyped}`,
    torqueMinNm: round(torqueMin.si, 2),
    torqueMaxNm: round(torqueMax.si, 2),
    torqueAsTyped: `${torqueMin.asTyped} to ${torqueMax.asTyped}`,
    intervalKm: interval ? round(interval.si, 1) : null,
    intervalSevereKm: severe ? round(severe.si, 1) : null,
    intervalMonths: months,
    intervalAsTyped: [interval?.asTyped, severe && `severe ${severe.asTyped}`, months && `${months} months`]
      .filter(Boolean)
      .join(', '),
    sourceKind,
    sourceDocument: document,
    sourceDated: dated?.date ?? null,
    revision: r.integer('revision', 1, 999) ?? 1,
    enteredBy,
    checkedBy,
    note: r.text('note'),
  };
}

/** To the digits that the column keeps. */
const round = (value: number, digits: number): number => Number(value.toFixed(digits));

async function save(tx: Tx, fleetId: string, { part, sheet }: SheetWrite): Promise<void> {
  await tx
    .insert(parts)
    .values({ fleetId, ...part })
    .onConflictDoNothing({ target: [parts.fleetId, parts.numberKey] });
  const [row] = await tx
    .select({ id: parts.id })
    .from(parts)
    .where(and(eq(parts.fleetId, fleetId), eq(parts.numberKey, part.numberKey)));
  if (!row) throw new Error('the part was not written');
  await tx.insert(specSheets).values({ fleetId, partId: row.id, ...sheet });
}
