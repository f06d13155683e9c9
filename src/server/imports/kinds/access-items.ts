import { eq, sql } from 'drizzle-orm';
import { FASTENER_SIZES, TIGHTENING_ORDERS } from '@/core/engine/access';
import {
  ACCESS_PARTS,
  type AccessItem,
  type Breakage,
  type DisturbedSeal,
  DRIVERS,
  type ItemFasteners,
  itemFaults,
  itemKey,
  MAX_ITEM_MINUTES,
  MAX_ITEM_NAME,
  opensFromText,
  SEAL_RULES,
} from '@/core/engine/access-items';
import { groupBy } from '@/core/shared/group-by';
import { type EngineFamily, loadFamilies } from '@/db/queries/catalogue';
import { engineFamilies } from '@/db/schema';
import { MAX_LIST, type RowReader } from '../csv/row-reader';
import { type Column, defineKind, differences, type PlannedRow, type RawRow } from '../kind';

/** The items of one family: the list is kept whole. */
interface ItemsWrite {
  readonly familyId: string;
  readonly items: readonly AccessItem[];
}

/** Of one item, in the order in which a mechanic asks. */
const ITEM_COLUMNS: readonly Column[] = [
  { key: 'part', required: true, help: ACCESS_PARTS.join(', '), example: 'cover', choices: ACCESS_PARTS },
  { key: 'what', required: true, help: 'Its name, once in the family', example: 'engine cover' },
  { key: 'opens', help: 'all, a bank, or cylinder numbers; all when empty', example: 'rear bank' },
  { key: 'count', help: 'Screws, clips, clamps or locks', example: '4' },
  { key: 'size', help: 'Of its screws; empty for clips and clamps', example: 'M6', choices: ['', ...FASTENER_SIZES] },
  { key: 'driver', help: 'What they are turned with', example: '10 mm', choices: ['', ...DRIVERS] },
  { key: 'torque', help: 'Of its screws, with its unit', example: '8 N·m' },
  { key: 'order', help: 'In which they are tightened', example: 'any', choices: ['', ...TIGHTENING_ORDERS] },
  { key: 'captive', help: 'yes where they stay in their part', example: 'no' },
  { key: 'minutes_off', required: true, help: 'To take it off', example: '3' },
  { key: 'minutes_on', required: true, help: 'To put it back; 0 where nothing is put back', example: '4' },
  { key: 'how_off', help: 'What is special about taking it off', example: 'unplug the sensor first' },
  { key: 'how_on', help: 'What is special about putting it back', example: 'sensor last' },
  { key: 'caution', help: 'What can hurt somebody or break', example: '' },
  { key: 'breaks', help: 'The part that often breaks here', example: 'duct clip' },
  { key: 'breaks_number', help: 'Its number', example: 'AG-8841' },
  { key: 'breaks_chance', help: 'How often, of 100 visits', example: '15' },
  { key: 'seal', help: 'Gasket or seal that is disturbed', example: 'manifold gaskets' },
  { key: 'seal_number', help: 'Its number', example: 'PW-3320' },
  {
    key: 'seal_rule',
    help: 'new, or if_sound: used again while it is pliable, proud and not cut',
    example: 'new',
    choices: ['', ...SEAL_RULES],
  },
  { key: 'only_with', help: 'Only on vehicles with this option', example: 'air suspension' },
  { key: 'instead_of', help: 'Name of the item in whose place it may be done', example: '' },
  { key: 'speaks', help: 'What speaks for and against this way', example: '' },
];

export const accessItemsKind = defineKind<ItemsWrite>({
  name: 'access-items',
  title: 'Access items',
  about:
    'One row an item on the way to the plugs, in the order in which it comes off. The rows of a family take the place of all that it had.',
  needs: ['engine-families'],
  dateColumns: [],
  columns: [
    {
      key: 'engine_family',
      required: true,
      help: 'Code of its family',
      example: 'PW-34M',
      aliases: ['family', 'code'],
    },
    ...ITEM_COLUMNS,
  ],

  async plan(q, { fleetId }, rows) {
    const families = new Map((await loadFamilies(q, fleetId)).map((family) => [family.code, family]));
    const read = rows.map((row) => readRow(row, families));
    const byFamily = groupBy(read, ({ code }) => code);
    return read.map((row) => planRow(row, byFamily.get(row.code) ?? []));
  },

  async apply(tx, _scope, writes) {
    for (const { familyId, items } of writes)
      await tx
        .update(engineFamilies)
        .set({ accessItems: [...items], version: sql`${engineFamilies.version} + 1` })
        .where(eq(engineFamilies.id, familyId));
  },
});

interface ReadRow {
  readonly line: number;
  readonly code: string;
  readonly what: string;
  readonly family: EngineFamily | undefined;
  readonly item: AccessItem;
  readonly faults: string[];
}

function readRow({ line, reader: r }: RawRow, families: ReadonlyMap<string, EngineFamily>): ReadRow {
  const code = r.required('engine_family');
  const family = families.get(code);
  if (code && !family) r.fault('engine_family', `${code} is not here yet: import engine-families.csv first`);
  const item = readItem(r, family);
  return { line, code, what: `${code}, ${item.what || 'an item'}`, family, item, faults: r.faults };
}

/** One item as it is typed in a file or in the editor. @param family whose cylinders it opens */
function readItem(r: RowReader, family: Pick<EngineFamily, 'model'> | undefined): AccessItem {
  const what = r.required('what');
  if (what.length > MAX_ITEM_NAME) r.fault('what', `longer than ${MAX_ITEM_NAME} characters`);
  const opensText = r.text('opens') ?? 'all';
  const opens = family ? opensFromText(family.model, opensText) : [];
  if (opens === null) r.fault('opens', `“${opensText}” is no bank and no cylinder of this engine`);
  const minutes = (key: string): number => r.integer(key, 0, MAX_ITEM_MINUTES) ?? r.fault(key, 'give the minutes') ?? 0;
  const instead = r.text('instead_of');
  return {
    key: itemKey(what),
    part: r.oneOf('part', ACCESS_PARTS) ?? 'cover',
    what,
    opens: opens ?? [],
    fasteners: readFasteners(r),
    minutesOff: minutes('minutes_off'),
    minutesOn: minutes('minutes_on'),
    howOff: r.text('how_off', MAX_LIST),
    howOn: r.text('how_on', MAX_LIST),
    caution: r.text('caution', MAX_LIST),
    breaks: readBreakage(r),
    seal: readSeal(r),
    onlyWith: r.text('only_with'),
    insteadOf: instead === null ? null : itemKey(instead),
    speaks: r.text('speaks', MAX_LIST),
  };
}

function readFasteners(r: RowReader): ItemFasteners | null {
  const count = r.integer('count', 1, 60);
  const size = r.text('size') === null ? null : r.oneOf('size', FASTENER_SIZES);
  const driver =
    r.text('driver') === null
      ? null
      : (DRIVERS.find((one) => one === r.text('driver')) ?? r.fault('driver', `is not one of ${DRIVERS.join(', ')}`));
  const torque = r.quantity('torque', 'torque', 'unit', 'N·m', { min: 1, max: 150 });
  const order = r.oneOf('order', TIGHTENING_ORDERS, 'any') ?? 'any';
  const captive = r.yesNo('captive');
  if (count === null) {
    if (size || torque) r.fault('count', 'give how many there are');
    return null;
  }
  return { count, size, driver, torqueNm: torque?.si ?? null, order, captive };
}

function readBreakage(r: RowReader): Breakage | null {
  const what = r.text('breaks');
  const number = r.code('breaks_number', 60);
  const chance = r.integer('breaks_chance', 0, 100);
  if (what === null) {
    if (number !== null || chance !== null) r.fault('breaks', 'name the part that breaks');
    return null;
  }
  return { what, number, chance: (chance ?? 10) / 100 };
}

function readSeal(r: RowReader): DisturbedSeal | null {
  const what = r.text('seal');
  const number = r.code('seal_number', 60);
  const rule = r.oneOf('seal_rule', SEAL_RULES, 'new') ?? 'new';
  return what === null ? null : { what, number, rule };
}

/** A family is written whole, by its first row; one row that is wrong keeps all of them out. */
function planRow(row: ReadRow, own: readonly ReadRow[]): PlannedRow<ItemsWrite> {
  const { line, what, family, faults } = row;
  const items = own.map(({ item }) => item);
  const place = own.indexOf(row) + 1;
  const listed = family ? itemFaults(family.model, items).filter(({ at }) => at === place) : [];
  const reasons = faults.length > 0 ? faults : listed.map(({ says }) => says);
  if (reasons.length > 0) return { line, verdict: 'refuse', what, reasons };
  if (!family) return { line, verdict: 'refuse', what, reasons: ['its family is not here'] };
  if (own.some((other) => other.faults.length > 0) || itemFaults(family.model, items).length > 0)
    return {
      line,
      verdict: 'refuse',
      what,
      reasons: ['another row of this family is wrong, and the list is kept whole'],
    };
  const known = family.accessItems ?? [];
  const before = known.find(({ key }) => key === row.item.key);
  const isSame = differences({ items: known }, { items }).length === 0;
  if (isSame) return { line, verdict: 'skip', what, reasons: ['already here'] };
  const write = place === 1 ? { write: { familyId: family.id, items } } : {};
  return { line, verdict: before || known.length > 0 ? 'change' : 'add', what, reasons: [], ...write };
}
