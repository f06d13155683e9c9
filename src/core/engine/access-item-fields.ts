import { readQuantity } from '../units/read-quantity';
import { roundTo } from '../units/round';
import { FASTENER_SIZES, TIGHTENING_ORDERS } from './access';
import {
  ACCESS_PARTS,
  type AccessItem,
  type Breakage,
  COIL_CONNECTORS,
  type DisturbedSeal,
  DRIVERS,
  type ItemFasteners,
  itemKey,
  MAX_ITEM_MINUTES,
  MAX_ITEM_NAME,
  opensFromText,
  SEAL_RULES,
  sayOpens,
} from './access-items';
import type { EngineModel } from './model';

/* An access item as a person types it, field by field: in a file, and in the editor that checks while it is typed. */

export const ITEM_FIELDS = [
  'part',
  'what',
  'opens',
  'count',
  'size',
  'driver',
  'torque',
  'order',
  'captive',
  'record_torque',
  'coil_connectors',
  'minutes_off',
  'minutes_on',
  'how_off',
  'how_on',
  'caution',
  'breaks',
  'breaks_number',
  'breaks_chance',
  'seal',
  'seal_number',
  'seal_rule',
  'only_with',
  'instead_of',
  'speaks',
] as const;
export type ItemField = (typeof ITEM_FIELDS)[number];
export type ItemFields = Readonly<Partial<Record<ItemField, string>>>;
export type ItemFaults = Readonly<Partial<Record<ItemField, string>>>;

/** Which fields can only be one of a few. */
export const ITEM_CHOICES: Readonly<Partial<Record<ItemField, readonly string[]>>> = {
  part: ACCESS_PARTS,
  size: ['', ...FASTENER_SIZES],
  driver: ['', ...DRIVERS],
  order: TIGHTENING_ORDERS,
  captive: ['no', 'yes'],
  record_torque: ['no', 'yes'],
  coil_connectors: ['', ...COIL_CONNECTORS],
  seal_rule: SEAL_RULES,
};

const MAX_WORDS = 300;
const TORQUE = { min: 1, max: 150 };

/** Reads one field after the other, and gathers what is wrong. */
class FieldReader {
  readonly faults: Partial<Record<ItemField, string>> = {};
  constructor(private readonly fields: ItemFields) {}

  text(field: ItemField): string {
    const written = (this.fields[field] ?? '').trim().replace(/\s+/g, ' ');
    return written.length > MAX_WORDS ? this.fault(field, `longer than ${MAX_WORDS} characters`, '') : written;
  }

  words(field: ItemField): string | null {
    return this.text(field) || null;
  }

  fault<T>(field: ItemField, why: string, instead: T): T {
    this.faults[field] ??= why;
    return instead;
  }

  oneOf<T extends string>(field: ItemField, choices: readonly T[], usual: T | null): T | null {
    const written = this.text(field);
    if (written === '') return usual;
    const choice = choices.find((known) => known.toLowerCase() === written.toLowerCase().replace(/ (?=outward)/, '_'));
    return choice ?? this.fault(field, `“${written}” is not one of ${choices.join(', ')}`, null);
  }

  whole(field: ItemField, min: number, max: number): number | null {
    const written = this.text(field);
    if (written === '') return null;
    const value = /^\d{1,4}$/.test(written) ? Number(written) : Number.NaN;
    return value >= min && value <= max
      ? value
      : this.fault(field, `“${written}” is not a whole number from ${min} to ${max}`, null);
  }
}

/**
 * One item from its fields, with what is wrong with them; a field that is wrong is read as if it were empty.
 *
 * @param model whose cylinders it opens; null: it is not known yet
 */
export function itemFromFields(
  model: Pick<EngineModel, 'banks'> | null,
  fields: ItemFields,
): { readonly item: AccessItem; readonly faults: ItemFaults } {
  const r = new FieldReader(fields);
  const what = r.text('what');
  if (what === '') r.fault('what', 'give it a name', null);
  if (what.length > MAX_ITEM_NAME) r.fault('what', `longer than ${MAX_ITEM_NAME} characters`, null);
  const opensText = r.text('opens');
  const opens = model ? opensFromText(model, opensText) : [];
  if (opens === null) r.fault('opens', `“${opensText}” is no bank and no cylinder of this engine`, null);
  const minutes = (field: 'minutes_off' | 'minutes_on'): number => {
    if (r.text(field) === '') r.fault(field, 'give the minutes', null);
    return r.whole(field, 0, MAX_ITEM_MINUTES) ?? 0;
  };
  const instead = r.words('instead_of');
  const connectors = r.oneOf('coil_connectors', COIL_CONNECTORS, null);
  const item: AccessItem = {
    key: itemKey(what),
    part: r.oneOf('part', ACCESS_PARTS, 'cover') ?? 'cover',
    what,
    opens: opens ?? [],
    fasteners: readFasteners(r),
    ...(connectors ? { coilConnectors: connectors } : {}),
    minutesOff: minutes('minutes_off'),
    minutesOn: minutes('minutes_on'),
    howOff: r.words('how_off'),
    howOn: r.words('how_on'),
    caution: r.words('caution'),
    breaks: readBreakage(r),
    seal: readSeal(r),
    onlyWith: r.words('only_with'),
    insteadOf: instead === null ? null : itemKey(instead),
    speaks: r.words('speaks'),
  };
  return { item, faults: r.faults };
}

function readFasteners(r: FieldReader): ItemFasteners | null {
  const count = r.whole('count', 1, 60);
  const size = r.oneOf('size', FASTENER_SIZES, null);
  const driver = r.oneOf('driver', DRIVERS, null);
  const torqueNm = readTorque(r);
  const order = r.oneOf('order', TIGHTENING_ORDERS, 'any') ?? 'any';
  const captive = r.oneOf('captive', ['no', 'yes'], 'no') === 'yes';
  const isRecorded = r.oneOf('record_torque', ['no', 'yes'], 'no') === 'yes';
  if (isRecorded && torqueNm === null) r.fault('record_torque', 'give the torque that is to be written down', null);
  if (count !== null) return { count, size, driver, torqueNm, order, captive, ...(isRecorded ? { isRecorded } : {}) };
  if (size || torqueNm !== null) r.fault('count', 'give how many there are', null);
  return null;
}

function readTorque(r: FieldReader): number | null {
  const typed = r.text('torque');
  if (typed === '') return null;
  const reading = readQuantity({ kind: 'torque', text: typed, personUnit: 'N·m', window: TORQUE });
  return reading.verdict === 'ok' ? reading.valueSi : r.fault('torque', reading.message, null);
}

function readBreakage(r: FieldReader): Breakage | null {
  const [what, number] = [r.words('breaks'), r.words('breaks_number')];
  const chance = r.whole('breaks_chance', 0, 100);
  if (what === null && (number !== null || chance !== null)) r.fault('breaks', 'name the part that breaks', null);
  return what === null ? null : { what, number, chance: (chance ?? 10) / 100 };
}

function readSeal(r: FieldReader): DisturbedSeal | null {
  const [what, number] = [r.words('seal'), r.words('seal_number')];
  const rule = r.oneOf('seal_rule', SEAL_RULES, 'new') ?? 'new';
  if (what === null && number !== null) r.fault('seal', 'name the seal', null);
  return what === null ? null : { what, number, rule };
}

/** The fields that `itemFromFields` reads back. @param items the list that it stands in */
export function fieldsOfItem(
  model: Pick<EngineModel, 'banks'>,
  item: AccessItem,
  items: readonly AccessItem[],
): Readonly<Record<ItemField, string>> {
  const { fasteners, breaks, seal } = item;
  const text = (value: string | number | null | undefined): string => (value == null ? '' : String(value));
  return {
    part: item.part,
    what: item.what,
    opens: sayOpens(model, item.opens),
    count: text(fasteners?.count),
    size: text(fasteners?.size),
    driver: text(fasteners?.driver),
    torque: fasteners?.torqueNm == null ? '' : `${roundTo(fasteners.torqueNm, 2)} N·m`,
    order: fasteners && fasteners.order !== 'any' ? fasteners.order : '',
    captive: fasteners?.captive ? 'yes' : '',
    record_torque: fasteners?.isRecorded ? 'yes' : '',
    coil_connectors: text(item.coilConnectors),
    minutes_off: text(item.minutesOff),
    minutes_on: text(item.minutesOn),
    how_off: text(item.howOff),
    how_on: text(item.howOn),
    caution: text(item.caution),
    breaks: text(breaks?.what),
    breaks_number: text(breaks?.number),
    breaks_chance: breaks ? String(Math.round(breaks.chance * 100)) : '',
    seal: text(seal?.what),
    seal_number: text(seal?.number),
    seal_rule: text(seal?.rule),
    only_with: text(item.onlyWith),
    instead_of:
      item.insteadOf === null ? '' : (items.find(({ key }) => key === item.insteadOf)?.what ?? item.insteadOf),
    speaks: text(item.speaks),
  };
}
