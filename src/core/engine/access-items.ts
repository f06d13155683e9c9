import type { Nm } from '../shared/kinds';
import { type BankAccess, doubtOfFastener, type Fastener, type FastenerSize, type TighteningOrder } from './access';
import { BANK_PLACES, type EngineModel } from './model';

/* What stands between a mechanic and the plugs of a family: an ordered list, taken off from the first to the last and put back
   from the last to the first. */

export const ACCESS_PARTS = [
  'cover',
  'cowl',
  'duct',
  'airbox',
  'bracket',
  'shield',
  'wheel',
  'servo',
  'cap',
  'connector',
  'clip',
  'hose',
  'harness',
  'fuel_line',
  'intake',
] as const;
export type AccessPart = (typeof ACCESS_PARTS)[number];

/** What a fastener is turned with. */
export const DRIVERS = [
  '7 mm',
  '8 mm',
  '10 mm',
  '12 mm',
  '13 mm',
  '19 mm',
  'T20',
  'T25',
  'T30',
  'T40',
  '4 mm hex',
  '5 mm hex',
  '6 mm hex',
  'flat',
  'cross',
  'pliers',
  'hand',
] as const;
export type Driver = (typeof DRIVERS)[number];

/** What holds an item: screws of a size, or clips, clamps and locks, which have none and no torque. */
export interface ItemFasteners {
  readonly count: number;
  readonly size: FastenerSize | null;
  readonly driver: Driver | null;
  /** Null: by hand, a clip, or the sheet says nothing. */
  readonly torqueNm: Nm | null;
  readonly order: TighteningOrder;
  /** Stay in their part when loosened, so they are not counted out and in. */
  readonly captive: boolean;
  /** Their torque is written down when they go on again. */
  readonly isRecorded?: boolean;
}

/** A part that often breaks at an item: it is on the kit before the day. */
export interface Breakage {
  readonly what: string;
  readonly number: string | null;
  /** In one visit, from 0 to 1. */
  readonly chance: number;
}

/** With a harness the connectors of its coils stay plugged in, or are off already. */
export const COIL_CONNECTORS = ['stay', 'unplugged'] as const;
export type CoilConnectors = (typeof COIL_CONNECTORS)[number];

export const SEAL_RULES = ['new', 'if_sound'] as const;

/** A gasket or seal that is disturbed with an item. */
export interface DisturbedSeal {
  readonly what: string;
  readonly number: string | null;
  /** Always new, or used again while it is pliable, proud of its groove and not cut. */
  readonly rule: (typeof SEAL_RULES)[number];
}

export interface AccessItem {
  /** Its name in small letters with underscores, once in its family. */
  readonly key: string;
  readonly part: AccessPart;
  /** "engine cover" */
  readonly what: string;
  /** Cylinders to which it opens the way. */
  readonly opens: readonly number[];
  readonly fasteners: ItemFasteners | null;
  /** Minutes off and on; 0 on: nothing is put back. */
  readonly minutesOff: number;
  readonly minutesOn: number;
  /** What becomes of the connectors of the coils with it; left out: nothing, they are met one by one. */
  readonly coilConnectors?: CoilConnectors;
  /** What is special about it, in words. */
  readonly howOff: string | null;
  readonly howOn: string | null;
  readonly caution: string | null;
  readonly breaks: Breakage | null;
  readonly seal: DisturbedSeal | null;
  /** Only on vehicles that have this option; null: on all. */
  readonly onlyWith: string | null;
  /** Key of the item in whose place it may be done; null: it is the usual way. */
  readonly insteadOf: string | null;
  /** What speaks for and against this way. */
  readonly speaks: string | null;
}

/** Longest name of an item, characters. */
export const MAX_ITEM_NAME = 36;

/** The key of an item by its name: "Intake manifold" is intake_manifold. */
export const itemKey = (what: string): string =>
  what
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_|_$/g, '');

const cylindersOf = ({ banks }: Pick<EngineModel, 'banks'>): readonly number[] =>
  banks.flatMap(({ cylinders }) => cylinders).sort((a, b) => a - b);

/**
 * What an item opens, as a person writes it: "all", "rear bank", "5" or "2, 4 6".
 *
 * @returns cylinders in their order; null where the text names none of this engine
 */
export function opensFromText(model: Pick<EngineModel, 'banks'>, text: string): readonly number[] | null {
  const plain = text.trim().toLowerCase();
  const all = cylindersOf(model);
  if (plain === '' || plain === 'all') return all;
  const place = BANK_PLACES.find((known) => plain === known || plain === `${known} bank`);
  if (place) {
    const bank = model.banks.find((bank) => bank.place === place);
    return bank ? [...bank.cylinders].sort((a, b) => a - b) : null;
  }
  const numbers = plain
    .replace(/^cylinders?\s*/, '')
    .split(/[\s,;]+/)
    .map(Number);
  const known = numbers.every((n) => all.includes(n));
  return known ? all.filter((n) => numbers.includes(n)) : null;
}

/** What an item opens, in the words that `opensFromText` reads back. */
export function sayOpens(model: Pick<EngineModel, 'banks'>, opens: readonly number[]): string {
  const same = (cylinders: readonly number[]): boolean =>
    cylinders.length === opens.length && cylinders.every((n) => opens.includes(n));
  if (same(cylindersOf(model))) return 'all';
  const bank = model.banks.find(({ cylinders }) => same(cylinders));
  return bank ? `${bank.place} bank` : `cylinder${opens.length === 1 ? '' : 's'} ${opens.join(' ')}`;
}

/** Longest that one item may take, minutes. */
export const MAX_ITEM_MINUTES = 240;

/** What is wrong with a list of items, with the place of the item from 1; empty when a mechanic could go by it. */
export function itemFaults(
  model: Pick<EngineModel, 'banks'>,
  items: readonly AccessItem[],
): readonly { readonly at: number; readonly says: string }[] {
  const all = cylindersOf(model);
  return items.flatMap((item, i) => {
    const says = (text: string) => ({ at: i + 1, says: text });
    const doubled = items.findIndex(({ key }) => key === item.key) < i;
    const doubt =
      item.fasteners?.size && item.fasteners.torqueNm !== null
        ? doubtOfFastener(item.fasteners.size, item.fasteners.torqueNm)
        : null;
    return [
      ...(item.key === '' ? [says('Give it a name.')] : []),
      ...(doubled && item.key !== '' ? [says(`“${item.what}” is in the list twice. Give each its own name.`)] : []),
      ...(item.opens.length === 0 || item.opens.some((n) => !all.includes(n))
        ? [says(`“${item.what}” opens no cylinder of this engine. Write all, a bank, or cylinder numbers.`)]
        : []),
      ...(doubt ? [says(doubt)] : []),
      ...wayFaults(items, item).map(says),
    ];
  });
}

function wayFaults(items: readonly AccessItem[], { what, opens, insteadOf }: AccessItem): readonly string[] {
  if (insteadOf === null) return [];
  const usual = items.find(({ key }) => key === insteadOf);
  if (!usual) return [`“${what}” stands in for “${insteadOf}”, which is not in the list.`];
  if (usual.insteadOf !== null) return [`“${what}” stands in for “${usual.what}”, which is itself another way.`];
  return usual.opens.some((n) => !opens.includes(n))
    ? [`“${what}” does not open all that “${usual.what}” opens, so it cannot stand in for it.`]
    : [];
}

/** Which ways are taken where a family has two: the key of the usual item, and that of the one in its place. */
export type Ways = Readonly<Record<string, string>>;

/**
 * The items on the way to some cylinders of one vehicle, in their order.
 *
 * @param options what this vehicle has: "air suspension"
 */
export function itemsOnTheWay(
  items: readonly AccessItem[],
  cylinders: ReadonlySet<number>,
  options: readonly string[],
  ways: Ways,
): readonly AccessItem[] {
  const has = new Set(options.map((option) => option.trim().toLowerCase()));
  const fits = ({ onlyWith }: AccessItem): boolean => onlyWith === null || has.has(onlyWith.trim().toLowerCase());
  const taken = ({ key, insteadOf }: AccessItem): boolean => {
    const usual = insteadOf ?? key;
    const chosen = items.find((item) => item.key === ways[usual] && item.insteadOf === usual && fits(item));
    return (chosen?.key ?? usual) === key;
  };
  return items.filter((item) => fits(item) && taken(item) && item.opens.some((n) => cylinders.has(n)));
}

/** What a bank is usually reached by, where nobody has written its items: a cover, or the intake. Source: trade guidance, coarse. */
const USUAL = {
  cover: { key: 'cover', part: 'cover', what: 'cover', minutesOff: 3, minutesOn: 4 },
  under_intake: { key: 'intake_manifold', part: 'intake', what: 'intake manifold', minutesOff: 35, minutesOn: 45 },
} as const;

/** Items for a family that has none of its own, from how each bank is reached and which screws are known. */
export function usualItems(
  model: Pick<EngineModel, 'banks'>,
  access: readonly BankAccess[],
  fasteners: readonly Fastener[],
): readonly AccessItem[] {
  return model.banks.flatMap(({ place, cylinders }, i): readonly AccessItem[] => {
    const kind = access[i]?.access;
    if (kind !== 'cover' && kind !== 'under_intake') return [];
    const side = place === 'only' ? '' : ` of the ${place} bank`;
    const usual = USUAL[kind];
    const screws = fasteners.find(({ holds }) => holds === (kind === 'cover' ? 'cover' : 'intake'));
    // One cover over both banks has its screws counted once.
    const first = access.findIndex((bank) => bank.access === kind) === i;
    return [
      {
        ...usual,
        key: place === 'only' ? usual.key : `${usual.key}_${place}`,
        what: `${usual.what}${side}`,
        opens: [...cylinders].sort((a, b) => a - b),
        fasteners: screws && first ? { ...screws, driver: null } : null,
        howOff: null,
        howOn: null,
        caution: null,
        breaks: null,
        seal: kind === 'under_intake' ? { what: 'manifold gaskets', number: null, rule: 'new' } : null,
        onlyWith: null,
        insteadOf: null,
        speaks: null,
      },
    ];
  });
}
