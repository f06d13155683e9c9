import { plainText } from './as-written';
import { type QuantityInput, readQuantity } from './read-quantity';
import { fromSi, UNITS, type UnitName, unitFromText } from './unit';
import { saysState } from './words-around';

export type RangeReading =
  | {
      readonly ok: true;
      readonly minSi: number;
      readonly maxSi: number;
      /** The value that a tolerance was given around; null for a plain range. */
      readonly targetSi: number | null;
      readonly unit: UnitName;
      /** A lone torque: the shop's default tolerance, as a share, was put around it. */
      readonly assumedShare: number | null;
    }
  | { readonly ok: false; readonly message: string };

/** Nobody writes a range longer than this; no pattern below sees more. */
const MAX_TEXT = 80;
const TOLERANCE = /±|\+\/-|\+-/u;
const SEPARATOR = /(?:to|\.\.|–|—|-)(?=\s*[\d.,])/giu;
/** With the k of thousands, which is none where a unit goes on: 60k, but 10 kΩ. */
const NUMBER = /^[\d.,\s]+(?:k(?!\p{L}))?/iu;
/** What a torque given as one figure may be off. Source: the shop's default. */
export const DEFAULT_TOLERANCE = 0.1;

/**
 * Reads a spec as people write it: "1.0 to 1.1 mm", ".028-.031 in", "1.05 ± 0.05 mm", "1.05 mm +/- 0.05".
 * A tolerance may be in another unit, or in percent. Both ends are checked for slips of unit and decimal mark as a single
 * quantity is. A lone torque is one with the shop's default tolerance; a lone gap is refused.
 *
 * @returns ends in SI; never throws, any text is a possible input
 */
export function readRange(input: QuantityInput): RangeReading {
  const text = plainText(input.text.slice(0, MAX_TEXT + 1));
  const around = text.length > MAX_TEXT ? null : aroundValue(text);
  if (around) return withTolerance(input, around.value, around.tolerance, around.unit);
  const span = text.length > MAX_TEXT ? null : spanOf(text);
  if (!span && input.kind === 'torque') return point(input, text);
  if (!span)
    return {
      ok: false,
      message: `“${text.slice(0, 40)}” is no range. Write it like 1.0 to 1.1 mm, or 1.05 ± 0.05 mm.`,
    };
  const { low, high } = span;
  const [min, max] = [readQuantity({ ...input, text: low }), readQuantity({ ...input, text: high })];
  if (min.verdict !== 'ok') return { ok: false, message: min.message };
  if (max.verdict !== 'ok') return { ok: false, message: max.message };
  if (min.valueSi > max.valueSi) return { ok: false, message: `${low} is above ${high}: the range is upside down.` };
  return { ok: true, minSi: min.valueSi, maxSi: max.valueSi, targetSi: null, unit: max.unit, assumedShare: null };
}

/** "1.05 mm ± 0.05 mm" in its pieces; null: no tolerance in it. */
function aroundValue(text: string): { value: string; tolerance: string; unit: string } | null {
  const sign = TOLERANCE.exec(text);
  if (!sign || sign.index === 0) return null;
  const after = text.slice(sign.index + sign[0].length).trim();
  const tolerance = /^[\d.,]+/u.exec(after)?.[0];
  if (!tolerance) return null;
  return { value: text.slice(0, sign.index).trim(), tolerance, unit: after.slice(tolerance.length).trim() };
}

/** Both ends as texts of their own, each with its unit: the first separator behind a number and its unit parts them. */
function spanOf(text: string): { low: string; high: string } | null {
  const number = NUMBER.exec(text)?.[0] ?? '';
  if (number.trim() === '') return null;
  for (const match of text.matchAll(SEPARATOR)) {
    // Two dots are no part of a number.
    const end = match[0] === '..' ? Math.min(number.length, match.index) : number.length;
    const [digits, unit] = [text.slice(0, end).trim(), text.slice(end, match.index).trim()];
    if (match.index < end || digits === '' || /\d/u.test(unit)) continue;
    const high = text.slice(match.index + match[0].length).trim();
    return { low: `${digits} ${unit || high.replace(NUMBER, '')}`.trim(), high };
  }
  return null;
}

function withTolerance(input: QuantityInput, value: string, tolerance: string, unitText: string): RangeReading {
  const ownUnit = /[^\d.,\s]/u.test(value);
  const middle = readQuantity({ ...input, text: ownUnit ? value : `${value} ${unitText}`.trim() });
  if (middle.verdict !== 'ok') return { ok: false, message: middle.message };
  const each = toleranceUnit(unitText, middle, ownUnit);
  if (each === null) return { ok: false, message: `“${unitText}” is no unit of a tolerance here.` };
  const by = Number(tolerance.replace(',', '.')) * each;
  if (!(by >= 0) || by >= middle.valueSi)
    return { ok: false, message: `± ${tolerance} is no tolerance around ${value.trim()}.` };
  const exact = (si: number): number => Number(si.toPrecision(12));
  return {
    ok: true,
    minSi: exact(middle.valueSi - by),
    maxSi: exact(middle.valueSi + by),
    targetSi: middle.valueSi,
    unit: middle.unit,
    assumedShare: null,
  };
}

/** What one in the tolerance is, in SI: of its own unit, of the value's, or a hundredth of the value. */
function toleranceUnit(text: string, middle: { readonly valueSi: number; readonly unit: UnitName }, ownUnit: boolean) {
  if (text === '%') return middle.valueSi / 100;
  if (text === '' || !ownUnit) return UNITS[middle.unit].factor;
  const unit = unitFromText(text);
  return unit?.kind === UNITS[middle.unit].kind ? unit.factor : null;
}

function point(input: QuantityInput, text: string): RangeReading {
  // The state of the threads has a field beside the figure: left in the text the state would be lost.
  if (saysState(text))
    return { ok: false, message: `Give the figure alone, and choose the state of the threads beside it: “${text}”.` };
  const read = readQuantity({ ...input, text });
  if (read.verdict !== 'ok') return { ok: false, message: read.message };
  const end = (share: number): number => Number((read.valueSi * share).toPrecision(12));
  return {
    ok: true,
    minSi: end(1 - DEFAULT_TOLERANCE),
    maxSi: end(1 + DEFAULT_TOLERANCE),
    targetSi: read.valueSi,
    unit: read.unit,
    assumedShare: DEFAULT_TOLERANCE,
  };
}

export interface WrittenAs {
  readonly unit: UnitName;
  readonly decimals: number;
}

/** The unit and the decimals in which a spec is written: "0.045 in to 0.049 in" is inches to three. Null: no unit in it. */
export function writtenAs(text: string): WrittenAs | null {
  if (text.length > MAX_TEXT) return null;
  const tokens = [...text.matchAll(/(\d*)[.,]?(\d*)\s*([^\d.,\s±+-][^\d±+]*)?/gu)].filter(
    (m) => m[1] !== '' || m[2] !== '',
  );
  const decimals = Math.max(0, ...tokens.map((m) => (m[2] ?? '').length));
  const unit = tokens
    .map((m) => unitFromText((m[3] ?? '').replace(/\s*(to|–|—)\s*$/i, '')))
    .findLast((u) => u !== null);
  return unit ? { unit: unit.name, decimals } : null;
}

/**
 * Whether a measured value keeps a range at the precision in which the range is written: 1.25 mm is 0.0492 in and passes
 * a maximum of "0.049 in".
 *
 * @param measuredSi mm or N·m @param range in the same
 */
export function keepsRange(
  measuredSi: number,
  range: { readonly min: number; readonly max: number },
  written: WrittenAs | null,
): boolean {
  if (!written) return measuredSi >= range.min - 1e-6 && measuredSi <= range.max + 1e-6;
  const shown = (si: number): number => Math.round(fromSi(si, written.unit) * 10 ** written.decimals + 1e-9);
  return shown(range.min) <= shown(measuredSi) && shown(measuredSi) <= shown(range.max);
}
