import { ACCESS_CLASSES, FASTENER_PLACES, FASTENER_SIZES, TIGHTENING_ORDERS } from '@/core/engine/access';
import { WEAK_POINT_KINDS, weakPointFromText } from '@/core/engine/weak-points';

/* Lists that are kept as one text, in the words of their import file, and typed as rows of fields. */

export type Row = Readonly<Record<string, string>>;

interface Column {
  readonly key: string;
  readonly label: string;
  /** Where there are a few to choose from. */
  readonly choices?: readonly string[];
  /** Of the width of the row. */
  readonly share: number;
}

export interface RowShape {
  /** One of its entries, as in “Add a fastener”. */
  readonly noun: string;
  readonly columns: readonly Column[];
  /** What stands between two entries, in a text that is pasted too. */
  readonly between: RegExp;
  readonly split: (entry: string) => Row;
  /** Empty for a row with nothing in it. */
  readonly join: (row: Row) => string;
  readonly glue: string;
}

export const rowsOf = ({ between, split }: RowShape, text: string): readonly Row[] =>
  text
    .split(between)
    .map((entry) => entry.trim())
    .filter(Boolean)
    .map(split);

export const textOf = ({ join, glue }: RowShape, rows: readonly Row[]): string =>
  rows.map(join).filter(Boolean).join(glue);

const written = (text: string | undefined): string => (text ?? '').trim();

/** Plain words, a row each. */
export const words = (text: string, label: string): RowShape => ({
  noun: text,
  columns: [{ key: 'words', label, share: 1 }],
  between: /[|\n]/,
  split: (entry) => ({ words: entry }),
  join: (row) => written(row.words),
  glue: ' | ',
});

export const WEAK_POINTS: RowShape = {
  noun: 'weak point',
  columns: [
    { key: 'kind', label: 'Kind', choices: WEAK_POINT_KINDS, share: 1 },
    { key: 'says', label: 'What is weak', share: 3 },
  ],
  between: /[|\n]/,
  split: (entry) => ({ ...weakPointFromText(entry) }),
  join: (row) => (written(row.says) === '' ? '' : `${row.kind ?? 'other'}: ${written(row.says)}`),
  glue: ' | ',
};

/** Its interval, minutes and bank stay one text: "40000 km, 24 months, 10 min, front bank". */
export const OTHER_WORK: RowShape = {
  noun: 'belt, filter or fluid',
  columns: [
    { key: 'what', label: 'What', share: 2 },
    { key: 'when', label: 'Every 40000 km, 24 months; 10 min; behind', share: 3 },
  ],
  between: /[|\n]/,
  split: (entry) => {
    const cut = entry.lastIndexOf(':');
    return { what: entry.slice(0, Math.max(0, cut)).trim(), when: entry.slice(cut + 1).trim() };
  },
  join: ({ what, when }) => (written(what) === '' && written(when) === '' ? '' : `${written(what)}: ${written(when)}`),
  glue: ' | ',
};

/** The bank with cylinder 1 first. */
export const ACCESS: RowShape = {
  noun: 'bank',
  columns: [
    { key: 'access', label: 'How the bank is reached', choices: ACCESS_CLASSES, share: 2 },
    { key: 'minutes', label: 'Minutes', share: 1 },
  ],
  between: /[,;|\n]/,
  split: (entry) => {
    const [access = '', minutes = ''] = entry.split(/\s+(?=\S+$)/);
    return { access, minutes };
  },
  join: (row) => (written(row.minutes) === '' ? '' : `${row.access ?? ACCESS_CLASSES[0]} ${written(row.minutes)}`),
  glue: ', ',
};

export const RESTING: RowShape = {
  noun: 'variant that rests some',
  columns: [
    { key: 'variant', label: 'Variant, empty for all', share: 2 },
    { key: 'cylinders', label: 'Cylinders, such as 1 3 5', share: 2 },
  ],
  between: /[|\n]/,
  split: (entry) => {
    const cut = entry.lastIndexOf(':');
    return { variant: cut < 0 ? '' : entry.slice(0, cut).trim(), cylinders: entry.slice(cut + 1).trim() };
  },
  join: ({ variant, cylinders }) => [written(variant), written(cylinders)].filter(Boolean).join(': '),
  glue: ' | ',
};

const ENTRY = /^(.+?)\s+(M\d+)\s*[x×]\s*(\d{1,2})\s+([\d.,]+\s*[^\d\s]\S*)\s*(.*)$/i;
const ORDER_WORDS: Readonly<Record<string, string>> = { centre_outward: 'centre outward', crosswise: 'crosswise' };

export const FASTENERS: RowShape = {
  noun: 'fastener',
  columns: [
    { key: 'what', label: 'Fastener', share: 4 },
    { key: 'size', label: 'Size', choices: FASTENER_SIZES, share: 2 },
    { key: 'count', label: 'Count', share: 1.5 },
    { key: 'torque', label: 'Torque, with its unit', share: 3 },
    { key: 'order', label: 'Order', choices: TIGHTENING_ORDERS, share: 3 },
    { key: 'captive', label: 'Comes off', choices: ['loose', 'captive'], share: 2.4 },
    { key: 'holds', label: 'Holds', choices: ['', ...FASTENER_PLACES], share: 2.4 },
  ],
  between: /[;|\n]/,
  split: (entry): Row => {
    const [, what, size, count, torque, rest = ''] = ENTRY.exec(entry) ?? [];
    // What cannot be read stays to be seen, and is refused in words when it is saved.
    if (!what || !size || !count || !torque) return { what: entry };
    const after = rest.toLowerCase();
    return {
      what,
      size: size.toUpperCase(),
      count,
      torque,
      order: TIGHTENING_ORDERS.find((order) => after.includes(ORDER_WORDS[order] ?? '\0')) ?? 'any',
      captive: after.includes('captive') ? 'captive' : 'loose',
      holds: FASTENER_PLACES.find((place) => after.includes(`holds ${place}`)) ?? '',
    };
  },
  join: ({ what, size, count, torque, order, captive, holds }) => {
    if (written(what) === '' && written(torque) === '') return '';
    const told =
      written(count) === '' && written(torque) === ''
        ? []
        : [size ?? FASTENER_SIZES[0], `x${written(count)}`, written(torque)];
    const rest = [ORDER_WORDS[order ?? ''], captive === 'captive' ? 'captive' : '', holds ? `holds ${holds}` : ''];
    return [written(what), ...told, ...rest].filter(Boolean).join(' ');
  },
  glue: '; ',
};
