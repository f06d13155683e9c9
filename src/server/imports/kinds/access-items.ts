import { eq, sql } from 'drizzle-orm';
import { ITEM_CHOICES, ITEM_FIELDS, type ItemField, itemFromFields } from '@/core/engine/access-item-fields';
import { ACCESS_PARTS, type AccessItem, itemFaults } from '@/core/engine/access-items';
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

/** What each field of an item says, with an example. */
const ITEM_HELP: Readonly<Record<ItemField, readonly [help: string, example: string]>> = {
  part: [ACCESS_PARTS.join(', '), 'cover'],
  what: ['Its name, once in the family', 'engine cover'],
  opens: ['all, a bank, or cylinder numbers; all when empty', 'rear bank'],
  count: ['Screws, clips, clamps or locks', '4'],
  size: ['Of its screws; empty for clips and clamps', 'M6'],
  driver: ['What they are turned with', '10 mm'],
  torque: ['Of its screws, with its unit', '8 N·m'],
  order: ['In which they are tightened', 'any'],
  captive: ['yes where they stay in their part', 'no'],
  record_torque: ['yes where their torque is written down when they go on', 'no'],
  coil_connectors: ['stay: the coils stay plugged in when it is laid aside; unplugged: they are off with it', ''],
  minutes_off: ['To take it off', '3'],
  minutes_on: ['To put it back; 0 where nothing is put back', '4'],
  how_off: ['What is special about taking it off', 'unplug the sensor first'],
  how_on: ['What is special about putting it back', 'sensor last'],
  caution: ['What can hurt somebody or break', ''],
  breaks: ['The part that often breaks here', 'duct clip'],
  breaks_number: ['Its number', 'AG-8841'],
  breaks_chance: ['How often, of 100 visits', '15'],
  seal: ['Gasket or seal that is disturbed', 'manifold gaskets'],
  seal_number: ['Its number', 'PW-3320'],
  seal_rule: ['new, or if_sound: used again while it is pliable, proud and not cut', 'new'],
  only_with: ['Only on vehicles with this option', 'air suspension'],
  instead_of: ['Name of the item in whose place it may be done', ''],
  speaks: ['What speaks for and against this way', ''],
};
const REQUIRED: ReadonlySet<ItemField> = new Set(['part', 'what', 'minutes_off', 'minutes_on']);

const ITEM_COLUMNS: readonly Column[] = ITEM_FIELDS.map((key) => {
  const [help, example] = ITEM_HELP[key];
  const choices = ITEM_CHOICES[key];
  return { key, help, example, ...(REQUIRED.has(key) ? { required: true } : {}), ...(choices ? { choices } : {}) };
});

export const accessItemsKind = defineKind<ItemsWrite>({
  name: 'access-items',
  title: 'Access items',
  about:
    'One row for each item that comes off before the plugs can be reached, in the order in which it comes off. The rows of a family take the place of all that it had.',
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
function planRow(row: ReadRow, siblings: readonly ReadRow[]): PlannedRow<ItemsWrite> {
  const { line, what, family, faults } = row;
  const items = siblings.map(({ item }) => item);
  const place = siblings.indexOf(row) + 1;
  const listed = family ? itemFaults(family.model, items).filter(({ at }) => at === place) : [];
  const reasons = faults.length > 0 ? faults : listed.map(({ says }) => says);
  if (reasons.length > 0) return { line, verdict: 'refuse', what, reasons };
  if (!family) return { line, verdict: 'refuse', what, reasons: ['its family is not here'] };
  if (siblings.some((other) => other.faults.length > 0) || itemFaults(family.model, items).length > 0)
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
