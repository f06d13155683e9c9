import type { GapSpec } from '../gap/check';
import type { Mm } from '../shared/kinds';
import { roundTo } from '../units/round';
import { sayGap } from '../units/say';
import { TERMINALS } from './equivalent';

/** What a place of a maker's suffix can say. */
export const SUFFIX_ATTRIBUTES = ['resistor', 'heat_range', 'gap', 'terminal', 'shell'] as const;
type SuffixAttribute = (typeof SUFFIX_ATTRIBUTES)[number];

/** How the digits of a code are to be read; each `#` of a code stands for one digit. */
const DIGIT_SCALES = { 'as written': 1, 'tenths of a mm': 0.1, 'hundredths of a mm': 0.01 } as const;

/** One row of a maker's table: at this place of the suffix, this code has this value. */
export interface SuffixCode {
  readonly maker: string;
  /** From 1, in the order in which the places stand. 0 with `base`: the number before the suffix. */
  readonly place: number;
  readonly attribute: SuffixAttribute | 'base';
  /** Letters, digits, `.`, `/`, `-`; `#` is any digit. Empty: nothing stands there. */
  readonly code: string;
  /** The meaning; a scale of digits where the code has `#`. Empty: it says nothing. */
  readonly value: string;
}

/** What a suffix can tell of a plug; what it does not tell is absent. */
interface SuffixValues {
  readonly resistor?: boolean;
  readonly heatRange?: number;
  readonly preGapMm?: Mm;
  readonly terminal?: (typeof TERMINALS)[number];
  readonly shell?: 'plated' | 'bare';
}

interface SuffixPiece {
  readonly attribute: SuffixAttribute;
  readonly place: number;
  /** As it stands in the number; '' where its absence is what speaks. */
  readonly code: string;
}

export interface SuffixReading {
  readonly maker: string;
  readonly base: string;
  readonly pieces: readonly SuffixPiece[];
  readonly values: SuffixValues;
}

type Suffix =
  /** No table has a base like this. */
  | { readonly kind: 'no-table' }
  /** The number ends with its base: nothing is said. */
  | { readonly kind: 'bare' }
  | ({ readonly kind: 'read' } & SuffixReading)
  /** The table reads it in more ways than one. */
  | { readonly kind: 'unclear'; readonly readings: readonly SuffixReading[] }
  /** There is a table, but it does not know this suffix. */
  | { readonly kind: 'unknown'; readonly maker: string; readonly base: string; readonly rest: string };

/**
 * Reads a number's suffix by the makers' own tables: resistor letter, heat number, gap as sold.
 *
 * Case and spaces do not matter. Hyphens do as long as that gives a reading; a number written without them is read
 * without them, and where that leaves two readings both are given and none is taken.
 */
export function readSuffix(number: string, codes: readonly SuffixCode[]): Suffix {
  const text = number.toUpperCase().replace(/\s+/g, '');
  const strict = readings(text, codes);
  const matches = strict.length > 0 ? strict : readings(withoutHyphens(text), codes.map(hyphenless));
  const [only] = matches;
  if (matches.some((reading) => reading.pieces.length === 0)) return { kind: 'bare' };
  if (matches.length > 1) return { kind: 'unclear', readings: matches };
  if (only) return { kind: 'read', ...only };
  return baseOnly(text, codes);
}

const withoutHyphens = (text: string): string => text.replaceAll('-', '');
const hyphenless = (code: SuffixCode): SuffixCode => ({ ...code, code: withoutHyphens(code.code) });

function readings(text: string, codes: readonly SuffixCode[]): readonly SuffixReading[] {
  return codes
    .filter((base) => base.attribute === 'base')
    .flatMap(({ maker, code }) => {
      const base = startOf(text, code);
      if (base === null) return [];
      const ofMaker = codes.filter((c) => c.maker === maker && c.attribute !== 'base');
      const rest = text.slice(base.length);
      if (rest === '') return [{ maker, base, pieces: [], values: {} }];
      return ways(rest, placesOf(ofMaker)).map((pieces) => ({
        maker,
        base,
        pieces,
        values: valuesOf(pieces, ofMaker),
      }));
    });
}

const placesOf = (codes: readonly SuffixCode[]): readonly (readonly SuffixCode[])[] =>
  [...new Set(codes.map((c) => c.place))].sort((a, b) => a - b).map((place) => codes.filter((c) => c.place === place));

/** All ways to spend the whole text on the places in their order. */
function ways(text: string, places: readonly (readonly SuffixCode[])[]): readonly (readonly SuffixPiece[])[] {
  const [first, ...later] = places;
  if (!first) return text === '' ? [[]] : [];
  return first.flatMap(({ attribute, place, code }) => {
    const written = startOf(text, code);
    if (written === null || attribute === 'base') return [];
    return ways(text.slice(written.length), later).map((rest) => [{ attribute, place, code: written }, ...rest]);
  });
}

/** The start of the text that has the form of a code; null where it has not. */
function startOf(text: string, code: string): string | null {
  const start = text.slice(0, code.length);
  return isWrittenAs(start, code) ? start : null;
}

const isWrittenAs = (text: string, code: string): boolean =>
  text.length === code.length && [...code].every((c, i) => (c === '#' ? /\d/.test(text[i] ?? '') : c === text[i]));

function baseOnly(text: string, codes: readonly SuffixCode[]): Suffix {
  const [longest] = codes
    .filter((c) => c.attribute === 'base')
    .flatMap(({ maker, code }) => {
      const base = startOf(text, code);
      return base === null ? [] : [{ maker, base }];
    })
    .sort((a, b) => b.base.length - a.base.length);
  return longest ? { kind: 'unknown', ...longest, rest: text.slice(longest.base.length) } : { kind: 'no-table' };
}

const valuesOf = (pieces: readonly SuffixPiece[], codes: readonly SuffixCode[]): SuffixValues =>
  Object.assign(
    {},
    ...pieces.map(({ place, code }) => {
      const row = codes.find((c) => c.place === place && isWrittenAs(code, c.code));
      return row ? meaning(row, code) : {};
    }),
  );

/** What one code says once its digits are put in. A row that is no row of a table (see `suffixFault`) says nothing. */
function meaning({ attribute, code, value }: SuffixCode, written: string): SuffixValues {
  if (value === '') return {};
  const scale = DIGIT_SCALES[value as keyof typeof DIGIT_SCALES];
  const digits = [...code].flatMap((c, i) => (c === '#' ? (written[i] ?? '') : [])).join('');
  const number = scale === undefined ? Number(value) : roundTo(Number(digits) * scale, 2);
  switch (attribute) {
    case 'resistor':
      return { resistor: value === 'yes' };
    case 'heat_range':
      return { heatRange: number };
    case 'gap':
      return { preGapMm: number };
    case 'terminal':
      return { terminal: TERMINALS.find((terminal) => terminal === value) };
    case 'shell':
      return { shell: value === 'plated' ? 'plated' : 'bare' };
    case 'base':
      return {};
  }
}

/** Narrowest and widest gap that a table may give, mm. */
const GAP_WINDOW_MM = [0.3, 2] as const;

/** What is wrong with a row of a table, in words; null when it can be used. */
export function suffixFault({ place, attribute, code, value }: Omit<SuffixCode, 'maker'>): string | null {
  if (!/^[A-Z0-9#./-]*$/.test(code)) return `the code “${code}” may have capital letters, digits, # . / and - only`;
  if (attribute === 'base') {
    if (place !== 0) return 'the base stands at place 0';
    if (code === '' || value !== '') return 'the base needs a form such as EM-####, and no value';
    return null;
  }
  if (place < 1) return 'the places of the suffix begin at 1; 0 is the base';
  if (code === '' && value === '') return null;
  if (value === '') return 'says nothing: give the value that this code stands for';
  const scaled = value in DIGIT_SCALES;
  if (scaled !== code.includes('#'))
    return scaled
      ? `“${value}” needs a code with #, one for each digit`
      : `a code with # needs one of ${Object.keys(DIGIT_SCALES).join(', ')}`;
  if (scaled) return scaleFault(attribute, value);
  return literalFault(attribute, value);
}

function scaleFault(attribute: SuffixAttribute, value: string): string | null {
  const fits = attribute === 'gap' ? value !== 'as written' : attribute === 'heat_range' && value === 'as written';
  return fits ? null : `${attribute} cannot be read as digits “${value}”`;
}

function literalFault(attribute: SuffixAttribute, value: string): string | null {
  const oneOf = (choices: readonly string[]): string | null =>
    choices.includes(value) ? null : `“${value}” is not one of ${choices.join(', ')}`;
  switch (attribute) {
    case 'resistor':
      return oneOf(['yes', 'no']);
    case 'terminal':
      return oneOf(TERMINALS);
    case 'shell':
      return oneOf(['plated', 'bare']);
    case 'heat_range':
      return /^\d{1,2}$/.test(value) ? null : `“${value}” is not a heat number from 0 to 99`;
    case 'gap': {
      const [least, most] = GAP_WINDOW_MM;
      const mm = /^\d+(\.\d+)?$/.test(value) ? Number(value) : Number.NaN;
      return mm >= least && mm <= most ? null : `“${value}” is not a gap in mm from ${least} to ${most}`;
    }
  }
}

/** The recorded attributes that a suffix can speak about. Null: not recorded. */
type Recorded = { readonly [K in keyof Required<SuffixValues>]: Required<SuffixValues>[K] | null };

/** A part as the suffix's counterpart: what it does not have is not recorded. */
export const recordedOf = (part: { readonly [K in keyof Recorded]?: Recorded[K] | undefined }): Recorded => ({
  resistor: part.resistor ?? null,
  heatRange: part.heatRange ?? null,
  preGapMm: part.preGapMm ?? null,
  terminal: part.terminal ?? null,
  shell: part.shell ?? null,
});

/** One thing that a suffix says, in words. */
export function suffixWords(attribute: keyof SuffixValues, claimed: boolean | number | string): string {
  switch (attribute) {
    case 'resistor':
      return claimed ? 'with resistor' : 'without resistor';
    case 'heatRange':
      return `heat ${claimed}`;
    case 'preGapMm':
      return `gap as sold ${sayGap(Number(claimed))}`;
    case 'terminal':
      return `${claimed} terminal`;
    case 'shell':
      return `${claimed} shell`;
  }
}

export interface SuffixCheck {
  readonly attribute: keyof SuffixValues;
  readonly claimed: boolean | number | string;
  readonly recorded: boolean | number | string | null;
  readonly verdict: 'agrees' | 'fills' | 'contradicts';
}

/** Gaps agree within half of a hundredth, mm. */
const GAP_AGREES_MM = 0.005;

/** Each thing that a suffix says against what is recorded. */
export function checkSuffix(values: SuffixValues, recorded: Recorded): readonly SuffixCheck[] {
  return (Object.keys(values) as (keyof SuffixValues)[]).flatMap((attribute): readonly SuffixCheck[] => {
    const claimed = values[attribute];
    const known = recorded[attribute];
    if (claimed === undefined) return [];
    if (known === null) return [{ attribute, claimed, recorded: null, verdict: 'fills' }];
    const same =
      attribute === 'preGapMm'
        ? Math.abs(Number(claimed) - Number(known)) < GAP_AGREES_MM
        : String(claimed) === String(known);
    return [{ attribute, claimed, recorded: known, verdict: same ? 'agrees' : 'contradicts' }];
  });
}

/**
 * The number of the same plug sold with a gap that a sheet allows: the suffix with its gap put to the smallest in the sheet's
 * range, since gaps grow. Null where the table has no such code. A number so made is to be asked for, not presumed to be sold.
 */
export function suffixForGap(reading: SuffixReading, codes: readonly SuffixCode[], spec: GapSpec): string | null {
  const [best] = codes
    .filter((c) => c.maker === reading.maker && c.attribute === 'gap')
    .flatMap((c) => writtenGaps(c).map((written) => ({ place: c.place, written, ...meaning(c, written) })))
    .flatMap(({ place, written, preGapMm }) => (preGapMm === undefined ? [] : [{ place, written, preGapMm }]))
    .filter(({ preGapMm }) => preGapMm >= spec.minMm - GAP_AGREES_MM && preGapMm <= spec.maxMm + GAP_AGREES_MM)
    .sort((a, b) => a.preGapMm - b.preGapMm || a.written.length - b.written.length);
  if (!best) return null;
  const tail = reading.pieces.map((piece) => (piece.place === best.place ? best.written : piece.code)).join('');
  return reading.base + tail;
}

/** Every way to write one code of a gap: its digits filled with each count that does not begin with 0. */
function writtenGaps({ code }: SuffixCode): readonly string[] {
  const places = code.split('#').length - 1;
  if (places === 0) return code === '' ? [] : [code];
  if (places > 3) return [];
  const first = places === 1 ? 1 : 10 ** (places - 1);
  return Array.from({ length: 10 ** places - first }, (_, i) => {
    const digits = [...String(first + i)];
    return code.replaceAll('#', () => digits.shift() ?? '');
  });
}
