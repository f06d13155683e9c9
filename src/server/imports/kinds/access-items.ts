import { eq, sql } from 'drizzle-orm';
import { FASTENER_SIZES, TIGHTENING_ORDERS } from '@/core/engine/access';
import { ITEM_FIELDS, type ItemField, itemFromFields } from '@/core/engine/access-item-fields';
import { ACCESS_PARTS, type AccessItem, DRIVERS, itemFaults, SEAL_RULES } from '@/core/engine/access-items';
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
  const typed = Object.fromEntries(ITEM_FIELDS.map((field) => [field, cellOf(r, field)]));
  const { item, faults } = itemFromFields(family?.model ?? null, typed);
  for (const [field, why] of Object.entries(faults)) r.fault(field, why);
  return { line, code, what: `${code}, ${item.what || 'an item'}`, family, item, faults: r.faults };
}

const CODES: ReadonlySet<ItemField> = new Set(['breaks_number', 'seal_number']);

/** Numbers of parts may begin as no words do. */
const cellOf = (r: RowReader, field: ItemField): string =>
  (CODES.has(field) ? r.code(field, 60) : r.text(field, MAX_LIST)) ?? '';

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
