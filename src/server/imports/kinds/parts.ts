import { eq } from 'drizzle-orm';
import { TERMINALS } from '@/core/catalogue/equivalent';
import { partKey } from '@/core/catalogue/match';
import { checkSuffix, readSuffix, recordedOf, type SuffixCode, suffixWords } from '@/core/catalogue/suffix';
import { COMPONENTS } from '@/core/engine/quantities';
import { ELECTRODES } from '@/core/gap/check';
import { SHELLS } from '@/core/policy/apply';
import { SEATS, THREADS } from '@/core/torque/plan';
import { keptMm } from '@/core/units/round';
import { loadNumberCodes, loadParts, type PartRow } from '@/db/queries/catalogue';
import { parts } from '@/db/schema';
import { MAX_LIST, type RowReader } from '../csv/row-reader';
import { type Column, defineKind, differences, type PlannedRow, type RawRow, SeenBefore } from '../kind';

export type PartValues = Omit<typeof parts.$inferInsert, 'fleetId' | 'id' | 'version'>;

interface PartWrite {
  readonly id: string | null;
  readonly version: number;
  readonly values: PartValues;
}

/** What decides fit, in the columns that parts and spec sheets share. */
export const ATTRIBUTE_COLUMNS: readonly Column[] = [
  { key: 'electrode', help: `Plug: ${ELECTRODES.join(', ')}`, example: 'fine_wire', choices: ['', ...ELECTRODES] },
  { key: 'thread', help: `Plug: ${THREADS.join(', ')}`, example: 'M12', choices: ['', ...THREADS] },
  { key: 'seat', help: 'Plug: gasket or conical', example: 'gasket', choices: ['', ...SEATS] },
  { key: 'reach_mm', help: 'Thread reach, mm', example: '26.5', aliases: ['reach'] },
  { key: 'hex_mm', help: 'Hexagon, mm', example: '14', aliases: ['hex'] },
];

/** Reads them; a plug must have its electrode, thread and seat. */
export function readAttributes(r: RowReader, kind: PartValues['kind']) {
  const wanted = <T extends string>(key: string, choices: readonly T[]): T | null =>
    r.text(key) === null && kind !== 'plug' ? null : r.oneOf(key, choices);
  return {
    electrode: wanted('electrode', ELECTRODES),
    thread: wanted('thread', THREADS),
    seat: wanted('seat', SEATS),
    reachMm: r.decimal('reach_mm', 5, 60),
    hexMm: r.decimal('hex_mm', 8, 30),
  };
}

export const partsKind = defineKind<PartWrite>({
  name: 'parts',
  title: 'Parts',
  about:
    'One row a part: plugs, coils, rails, boots, leads, caps, rotors, seals and consumables, with what decides whether they fit, how they are bought and what is on the shelf.',
  needs: [],
  dateColumns: [],
  columns: [
    {
      key: 'number',
      required: true,
      help: 'As printed on the part',
      example: 'EM-7310',
      aliases: ['part_number', 'part'],
    },
    { key: 'maker', required: true, help: 'Who makes it', example: 'Emberline', aliases: ['part_maker'] },
    { key: 'kind', required: true, help: COMPONENTS.join(', '), example: 'plug', choices: COMPONENTS },
    { key: 'name', help: 'In words', example: 'fine wire, long reach' },
    ...ATTRIBUTE_COLUMNS,
    { key: 'pitch_mm', help: 'Thread pitch, mm', example: '1.25' },
    { key: 'projection_mm', help: 'How far the nose stands in, mm', example: '3.5' },
    { key: 'resistor', help: 'yes or no; empty where nobody has said', example: 'yes', choices: ['', 'yes', 'no'] },
    { key: 'terminal', help: TERMINALS.join(', '), example: 'solid', choices: ['', ...TERMINALS] },
    { key: 'heat_range', help: 'The maker’s own heat number', example: '7' },
    { key: 'shell', help: 'plated or bare', example: 'plated', choices: ['', ...SHELLS] },
    { key: 'pre_gap', help: 'Gap it leaves the works with', example: '1.05 mm' },
    { key: 'pack_size', help: 'Pieces in a box', example: '4' },
    { key: 'price', help: 'Of one piece', example: '9.80' },
    { key: 'lead_days', help: 'Days from order to shelf', example: '4' },
    { key: 'approved_sources', help: 'Separated by a vertical bar', example: 'Ferry Parts Store | Kilnmark direct' },
    { key: 'on_hand', help: 'Pieces on the shelf', example: '12', aliases: ['stock'] },
    { key: 'lengths_mm', help: 'Lead set: lengths in the order of its box', example: '' },
    { key: 'warranty_months', help: 'How long its maker answers for it, months', example: '24' },
    { key: 'warranty_km', help: 'The same in km', example: '40000' },
    { key: 'note', help: 'Anything to know', example: 'Demo data, not for real work' },
  ],

  async plan(q, { fleetId }, rows) {
    const known = new Map((await loadParts(q, fleetId)).map((part) => [part.numberKey, part]));
    const codes = await loadNumberCodes(q, fleetId);
    const seen = new SeenBefore();
    return rows.map((row) => planRow(row, known, codes, seen));
  },

  async apply(tx, { fleetId }, writes) {
    for (const { id, version, values } of writes) {
      if (id === null) await tx.insert(parts).values({ fleetId, ...values });
      else
        await tx
          .update(parts)
          .set({ ...values, version: version + 1 })
          .where(eq(parts.id, id));
    }
  },
});

function planRow(
  { line, reader: r }: RawRow,
  known: ReadonlyMap<string, PartRow>,
  codes: readonly SuffixCode[],
  seen: SeenBefore,
): PlannedRow<PartWrite> {
  const number = r.required('number');
  const what = `part ${number}`;
  const typed = readValues(r, number);
  const { values, filled } = typed ? withSuffix(r, typed, codes) : { values: null, filled: [] };
  if (r.faults.length > 0 || !values) return { line, verdict: 'refuse', what, reasons: r.faults };
  const again = seen.check(values.numberKey, line, values);
  if (again) return { line, verdict: again.verdict, what, reasons: [again.reason] };
  const before = known.get(values.numberKey);
  if (!before) return { line, verdict: 'add', what, reasons: filled, write: { id: null, version: 0, values } };
  if (before.kind !== values.kind)
    return { line, verdict: 'refuse', what, reasons: [`is already here as a ${before.kind}`] };
  const changed = differences(before, values);
  return changed.length === 0
    ? { line, verdict: 'skip', what, reasons: ['already here'] }
    : {
        line,
        verdict: 'change',
        what,
        reasons: [`changes ${changed.join(', ')}`, ...filled],
        write: { id: before.id, version: before.version, values },
      };
}

const SUFFIX_COLUMNS = {
  resistor: 'resistor',
  heatRange: 'heat_range',
  preGapMm: 'pre_gap',
  terminal: 'terminal',
  shell: 'shell',
} as const;

/**
 * What the number itself says by its maker's table fills the cells that are empty. Where it says another thing than a
 * cell, one of them is wrong and the row is refused: nothing later could tell.
 */
function withSuffix(r: RowReader, typed: PartValues, codes: readonly SuffixCode[]) {
  const none = { values: typed, filled: [] as string[] };
  if (typed.kind !== 'plug') return none;
  const ofMaker = codes.filter((code) => code.maker === typed.maker);
  const suffix = readSuffix(typed.number, ofMaker);
  if (suffix.kind !== 'read') return none;
  const checks = checkSuffix(suffix.values, recordedOf(typed));
  for (const { attribute, claimed, verdict } of checks)
    if (verdict === 'contradicts')
      r.fault(
        SUFFIX_COLUMNS[attribute],
        `the number says ${suffixWords(attribute, claimed)} by ${typed.maker}’s own table. Correct the row, or the table if it is wrong`,
      );
  const fills = checks.filter((check) => check.verdict === 'fills');
  return {
    values: { ...typed, ...Object.fromEntries(fills.map(({ attribute, claimed }) => [attribute, claimed])) },
    filled: fills.map(({ attribute, claimed }) => `${suffixWords(attribute, claimed)}, read from the number`),
  };
}

function readValues(r: RowReader, number: string): PartValues | null {
  const kind = r.oneOf('kind', COMPONENTS);
  if (!kind) return null;
  const preGap = r.quantity('pre_gap', 'gap', '', 'mm');
  return {
    number,
    numberKey: partKey(number),
    maker: r.required('maker'),
    kind,
    name: r.text('name'),
    ...readAttributes(r, kind),
    pitchMm: r.decimal('pitch_mm', 0.5, 3),
    projectionMm: r.decimal('projection_mm', -5, 15),
    resistor: r.text('resistor') === null ? null : r.yesNo('resistor'),
    terminal: r.text('terminal') === null ? null : r.oneOf('terminal', TERMINALS),
    heatRange: r.integer('heat_range', 0, 99),
    shell: r.text('shell') === null ? null : r.oneOf('shell', SHELLS),
    preGapMm: preGap && keptMm(preGap.si),
    packSize: r.integer('pack_size', 1, 1000),
    price: r.decimal('price', 0, 1_000_000),
    leadDays: r.integer('lead_days', 0, 999),
    approvedSources: r.list('approved_sources'),
    onHand: r.integer('on_hand', 0, 100_000),
    lengthsMm: r.numbers('lengths_mm', 50, 3000),
    warrantyMonths: r.integer('warranty_months', 1, 600),
    warrantyKm: r.integer('warranty_km', 1, 3_000_000),
    note: r.text('note', MAX_LIST),
  };
}
