import { notAFigure, plainText, twice, withDigits } from './as-written';
import { readNumber } from './read-number';
import { type QuantityKind, UNITS, type Unit, type UnitName, unitFromText, unitsOf } from './unit';
import { bareText, isAbout } from './words-around';

export interface Suggestion {
  readonly text: string;
  readonly valueSi: number;
  readonly unit: UnitName;
}

type QuantityReading =
  | {
      readonly verdict: 'ok';
      readonly valueSi: number;
      readonly number: number;
      readonly unit: UnitName;
      /** Said to be about so much, or given in whole thousands: it is no exact figure. */
      readonly isAbout: boolean;
      readonly message: string;
    }
  | { readonly verdict: 'ask' | 'refuse'; readonly suggestions: readonly Suggestion[]; readonly message: string };

export interface Window {
  readonly min: number;
  readonly max: number;
}

/**
 * What a quantity of each kind can be, in SI. Source: gap 0.40 to 2.00 mm and install torque from a quarter under the
 * smallest thread's to a quarter over the largest's are general trade guidance; no odometer shows over 2,000,000 km; no winding
 * or lead has over 200 kΩ unless it is broken.
 */
const PLAUSIBLE: Readonly<Record<QuantityKind, Window>> = {
  gap: { min: 0.4, max: 2.0 },
  torque: { min: 6, max: 43.75 },
  distance: { min: 0, max: 2_000_000 },
  resistance: { min: 0, max: 200_000 },
};

/** Of a screw that holds a coil, cap or cover, N·m: from M4 in plastic to M8 in steel. */
export const PLAUSIBLE_SCREW: Window = { min: 1, max: 30 };

/** Loosening torque of a plug, N·m: a seized one takes far more than it was given. */
export const PLAUSIBLE_BREAKAWAY: Window = { min: 1, max: 150 };

export interface QuantityInput {
  readonly kind: QuantityKind;
  readonly text: string;
  /** The unit a number without one is read in; by default the SI one. */
  readonly personUnit?: UnitName;
  /** Overrides `PLAUSIBLE`, in SI. */
  readonly window?: Window;
  /** What the sheet allows, in SI: nothing else is offered instead of a figure that cannot be right. */
  readonly sheet?: Window;
}

/**
 * Reads a typed quantity, and catches slips of unit and decimal mark instead of converting them silently.
 *
 * - a number with a unit is taken if it is plausible, else refused with the nearest plausible readings
 * - a number without one is read in the person's unit; if only another unit makes it plausible, it asks
 * - a mark that may mean thousands or decimals is resolved by plausibility, else it asks
 * - two figures of one quantity, "28 Nm (21 lb-ft)", must agree as far as they are written, else it asks
 *
 * @returns `ok` with the value in SI, to 12 digits; `ask` when a person must choose; `refuse` when it cannot be right.
 *   Never throws: any text is a possible input.
 */
export function readQuantity(input: QuantityInput): QuantityReading {
  const plain = plainText(input.text.slice(0, MAX_TEXT + 1));
  if (plain.length > MAX_TEXT) return readPlain(input, '');
  const reading = readPlain(input, plain);
  return reading.verdict === 'ok' ? { ...reading, isAbout: isAbout(input.text) } : reading;
}

function readPlain(input: QuantityInput, plain: string): QuantityReading {
  const text = bareText(input.kind, plain);
  const both = twice(text, (each) => unitIn(input.kind, each));
  if (both) return readTwice(input, both);
  const digits = withDigits(text);
  if (digits !== null) return askForDigits(input, digits);
  return readOne(input, text);
}

/** A letter for a digit: what it would be is asked, not taken. */
function askForDigits(input: QuantityInput, digits: string): QuantityReading {
  const meant = readOne(input, digits);
  const message = `“${clip(input.text)}” has a letter where a digit belongs.`;
  if (meant.verdict !== 'ok') return refuse(`${message} ${meant.message}`, meant.suggestions);
  const meaning = suggest(meant.number, UNITS[meant.unit]);
  return ask(`${message} Did you mean ${meaning.text}?`, [meaning]);
}

/** Two figures of one quantity, as manuals give them: they must agree as far as they are written. */
function readTwice(input: QuantityInput, [left, other]: readonly [string, string]): QuantityReading {
  const [first, second] = [readOne(input, bareText(input.kind, left)), readPlain(input, other)];
  if (first.verdict !== 'ok') return first;
  // "0.8 mm (.031)": the second is without its unit, and only one unit makes it plausible.
  const seconds = second.verdict === 'ok' ? [second] : second.suggestions;
  const room = (each: Meant): number => lastDigit(left, first) / 2 + lastDigit(other, each) / 2;
  if (seconds.some((each) => Math.abs(first.valueSi - each.valueSi) <= room(each) + 1e-9)) return first;
  if (second.verdict !== 'ok') return second;
  const meanings = [suggest(first.number, UNITS[first.unit]), suggest(second.number, UNITS[second.unit])];
  return ask(`“${left}” and “${other}” are not the same. Which holds?`, meanings);
}

type Meant = Pick<Suggestion, 'valueSi' | 'unit'>;

/** What one in the last written digit is, in SI: the mark before it may part thousands. */
function lastDigit(text: string, { unit, valueSi }: Meant): number {
  const { factor } = UNITS[unit];
  const match = /(\d*)[.,](\d+)\D*$/u.exec(text);
  const isDecimal = match && Math.abs(Number(`${match[1]}.${match[2]}`) * factor - valueSi) < factor / 1000;
  return isDecimal ? factor / 10 ** (match[2]?.length ?? 0) : factor;
}

/** A figure that is given without its unit, with one. @param text as `plainText` gives it */
export const withUnitName = (kind: QuantityKind, text: string, unit: UnitName): string =>
  `${isAbout(text) ? '~' : ''}${bareText(kind, text)} ${unit}`;

/** The name of the unit that a figure is written with; null: none that is known. @param text as `plainText` gives it */
export const unitIn = (kind: QuantityKind, text: string): string | null =>
  unitFromText(split(bareText(kind, text))?.unit ?? '')?.name ?? null;

function readOne(input: QuantityInput, text: string): QuantityReading {
  const { kind } = input;
  const window = input.window ?? PLAUSIBLE[kind];
  const other = notAFigure(text);
  if (other) return refuse(`“${clip(text)}” is ${other}. Give one figure, such as ${EXAMPLE[kind]}.`);
  const parts = split(text);
  const numbers = parts ? readNumber(parts.number) : [];
  if (!parts || numbers.length === 0)
    return refuse(`“${clip(text)}” is not a ${kind} we can read. Write a number and a unit, such as ${EXAMPLE[kind]}.`);
  const unit = parts.unit === '' ? null : unitFromText(parts.unit);
  if (parts.unit !== '' && unit?.kind !== kind) {
    return refuse(
      `“${clip(parts.unit)}” is not a unit of ${kind}. Use ${unitsOf(kind)
        .map((u) => u.name)
        .join(', ')}.`,
    );
  }
  const asked: Asked = { window, offer: input.sheet ?? window };
  if (unit) return withUnit(numbers, unit, asked, parts.number);
  if (kind === 'distance' && /k\s*$/iu.test(parts.number)) return askWhichThousand(numbers[0] ?? 0, input.personUnit);
  const usual = input.personUnit && UNITS[input.personUnit].kind === kind ? UNITS[input.personUnit] : unitsOf(kind)[0];
  return usual ? withoutUnit(numbers, usual, asked) : refuse(`no unit for ${kind}`);
}

/** Thousands of what: people say "100k" of either. */
function askWhichThousand(number: number, usual: UnitName = 'km'): QuantityReading {
  const units = [...unitsOf('distance')].sort((a, b) => Number(b.name === usual) - Number(a.name === usual));
  return ask(
    'Kilometres or miles?',
    units.map((unit) => suggest(number, unit)),
  );
}

const MAX_TEXT = 80;
const EXAMPLE: Readonly<Record<QuantityKind, string>> = {
  gap: '0.80 mm or 0.031 in',
  torque: '23 N·m or 17 lbf·ft',
  distance: '104,000 km',
  resistance: '0.7 Ω or 9.8 kΩ',
};

const clip = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);

function split(text: string): { number: string; unit: string } | null {
  if (text.length > MAX_TEXT) return null;
  const match =
    /^\s*([\d.,][\d.,_\s\u00a0\u202f\u2009'’]*(?:[eE][+-]?\d{1,2}(?![\w.]))?(?:[kKM](?![a-zA-Z/·]))?)\s*-?(.*?)\s*$/u.exec(
      text,
    );
  if (!match) return null;
  // A quote after the number is inches, not a thousands mark.
  const number = (match[1] ?? '').replace(/['’]+$/, '');
  return { number, unit: (match[1] ?? '').slice(number.length).trim() + (match[2] ?? '') };
}

const fits = (si: number, { min, max }: Window): boolean => si >= min - 1e-9 && si <= max + 1e-9;

/** Shows as many digits as were meant: at least the unit's own, no trailing noise. */
function show(number: number, unit: Unit): string {
  const shown = number.toFixed(Math.max(unit.decimals, Math.min(4, decimalsOf(number))));
  return `${shown} ${unit.name}`;
}

const decimalsOf = (value: number): number => (String(value).split('.')[1] ?? '').length;

/** Without the last digits of binary arithmetic: 0.030 in is 0.762 mm. */
const inSi = (number: number, unit: Unit): number => Number((number * unit.factor).toPrecision(12));

function suggest(number: number, unit: Unit): Suggestion {
  const valueSi = inSi(number, unit);
  const si = unitsOf(unit.kind)[0];
  const other = unit.factor === 1 || !si ? '' : ` = ${show(Number(valueSi.toFixed(si.decimals)), si)}`;
  return { text: show(number, unit) + other, valueSi, unit: unit.name };
}

const accept = (number: number, unit: Unit): QuantityReading => ({
  verdict: 'ok',
  valueSi: inSi(number, unit),
  number,
  unit: unit.name,
  isAbout: false,
  message: `read as ${show(number, unit)}`,
});

const refuse = (message: string, suggestions: readonly Suggestion[] = []): QuantityReading => ({
  verdict: 'refuse',
  suggestions,
  message,
});

const ask = (message: string, suggestions: readonly Suggestion[]): QuantityReading => ({
  verdict: 'ask',
  suggestions,
  message,
});

/** What a figure can be, and what may be offered instead of one that it cannot be. */
interface Asked {
  readonly window: Window;
  readonly offer: Window;
}

function withUnit(numbers: readonly number[], unit: Unit, asked: Asked, typed: string): QuantityReading {
  const { window } = asked;
  const plausible = numbers.filter((n) => fits(n * unit.factor, window));
  const [first, second] = plausible;
  if (first !== undefined && (second === undefined || readsAsThousands(typed, unit.kind))) return accept(first, unit);
  if (first !== undefined)
    return ask(
      `${typed.trim()} ${unit.name} can mean two things. Which?`,
      plausible.map((n) => suggest(n, unit)),
    );
  const number = numbers[0] ?? 0;
  return implausible(number, unit, asked);
}

/** An odometer of "104,000" is never 104 km with three decimals: a comma there groups. */
const readsAsThousands = (typed: string, kind: QuantityKind): boolean => kind === 'distance' && typed.includes(',');

function implausible(number: number, unit: Unit, { window, offer }: Asked): QuantityReading {
  const others = inOtherUnits(number, unit, offer);
  // Foot-pounds and inch-pounds are taken for each other more often than a decimal mark is lost.
  const sister = others.filter(({ unit: name }) => POUNDS.includes(unit.name) && POUNDS.includes(name));
  const suggestions = [
    ...sister,
    ...shifted(number, unit, offer),
    ...others.filter((other) => !sister.includes(other)),
  ];
  const si = unitsOf(unit.kind)[0];
  const meaning =
    unit.factor === 1 || !si ? '' : ` is ${show(Number((number * unit.factor).toFixed(si.decimals)), si)}`;
  const range = si ? `${window.min} to ${window.max.toLocaleString('en')} ${si.name}` : '';
  const [best] = suggestions;
  const hint = best ? `did you mean ${best.text}?` : 'check the figure and its unit.';
  return refuse(`${show(number, unit)}${meaning}, outside the plausible ${range}: ${hint}`, suggestions);
}

/** The same digits with the decimal mark moved, the smallest move first. */
function shifted(number: number, unit: Unit, window: Window): readonly Suggestion[] {
  if (number === 0) return [];
  return [-1, 1, -2, 2, -3, 3]
    .map((power) => Number((number * 10 ** power).toPrecision(12)))
    .filter((candidate) => fits(candidate * unit.factor, window))
    .slice(0, 1)
    .map((candidate) => suggest(candidate, unit));
}

const POUNDS: readonly UnitName[] = ['lbf·ft', 'lbf·in'];

const inOtherUnits = (number: number, unit: Unit, window: Window): readonly Suggestion[] =>
  unitsOf(unit.kind)
    .filter((other) => other !== unit && fits(number * other.factor, window))
    .map((other) => suggest(number, other));

function withoutUnit(numbers: readonly number[], usual: Unit, asked: Asked): QuantityReading {
  const { window, offer } = asked;
  const plausible = numbers.filter((n) => fits(n * usual.factor, window));
  const [first, second] = plausible;
  if (first !== undefined && (second === undefined || (usual.kind === 'distance' && first > second)))
    return accept(first, usual);
  if (first !== undefined)
    return ask(
      'The mark can mean thousands or decimals. Which?',
      plausible.map((n) => suggest(n, usual)),
    );
  const elsewhere = numbers.flatMap((n) => inOtherUnits(n, usual, offer));
  const number = numbers[0] ?? 0;
  if (elsewhere.length === 0) return implausible(number, usual, asked);
  const best = elsewhere[0]?.text ?? '';
  return ask(`${show(number, usual)} is not plausible. Did you mean ${best}?`, elsewhere);
}
