/* Source: ISO 3779 (structure), 49 CFR 565 (check digit, model year in position 10). */

const VALUES = new Map(
  [...'ABCDEFGHJKLMNPRSTUVWXYZ'].map(
    (letter, i) => [letter, [1, 2, 3, 4, 5, 6, 7, 8, 1, 2, 3, 4, 5, 7, 9, 2, 3, 4, 5, 6, 7, 8, 9][i] ?? 0] as const,
  ),
);
const WEIGHTS = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2];
const YEAR_CODES = 'ABCDEFGHJKLMNPRSTVWXY123456789';
const FIRST_YEAR = 1980;
const CYCLES = 2;

interface VinReading {
  /** 17 characters, none of them I, O or Q. */
  readonly valid: boolean;
  /** Position 9 agrees. Markets that do not use a check digit may put any character there. */
  readonly checkDigitOk: boolean;
  /** Years that position 10 can mean: the code repeats after 30. Empty where it means none. */
  readonly modelYears: readonly number[];
  /** The last six characters as a number, where they are digits. */
  readonly serial: number | null;
  /** In words, what is wrong; empty when nothing is. */
  readonly reasons: readonly string[];
}

/** Letters and digits only, in capitals, as it is stored. */
export const plainVin = (text: string): string => text.toUpperCase().replace(/[\s\-.]/g, '');

/** Reads a vehicle identification number as typed. Never throws: any text is a possible input. */
export function readVin(text: string): VinReading {
  const vin = plainVin(text);
  const reasons = shapeFaults(vin);
  const valid = reasons.length === 0;
  if (!valid) return { valid, checkDigitOk: false, modelYears: [], serial: null, reasons };
  const expected = checkDigit(vin);
  const checkDigitOk = vin[8] === expected;
  const modelYears = yearsOf(vin[9] ?? '');
  const serial = /\d{6}$/.exec(vin)?.[0];
  return {
    valid,
    checkDigitOk,
    modelYears,
    serial: serial === undefined ? null : Number(serial),
    reasons: [
      ...(checkDigitOk
        ? []
        : [`the check digit (9th) is ${vin[8]}, and the rest asks for ${expected}: a slip, or a market without one`]),
      ...(modelYears.length > 0 ? [] : [`the 10th character “${vin[9]}” stands for no model year`]),
    ],
  };
}

function shapeFaults(vin: string): readonly string[] {
  const wrong = [...new Set([...vin].filter((c) => !VALUES.has(c) && !/\d/.test(c)))];
  return [
    ...(vin.length === 17 ? [] : [`a VIN has 17 characters, this has ${vin.length}`]),
    ...(wrong.length === 0
      ? []
      : [
          /[IOQ]/.test(wrong.join(''))
            ? `a VIN has no I, O or Q: is ${wrong.join(', ')} a 1 or a 0?`
            : `“${wrong.join('')}” cannot stand in a VIN`,
        ]),
  ];
}

function checkDigit(vin: string): string {
  const total = [...vin].reduce((sum, c, i) => sum + (VALUES.get(c) ?? Number(c)) * (WEIGHTS[i] ?? 0), 0);
  return total % 11 === 10 ? 'X' : String(total % 11);
}

function yearsOf(code: string): readonly number[] {
  const at = YEAR_CODES.indexOf(code);
  if (code === '' || at < 0) return [];
  return Array.from({ length: CYCLES }, (_, cycle) => FIRST_YEAR + at + cycle * YEAR_CODES.length);
}

/** A model year that the VIN cannot mean. Null: it can, or the VIN says nothing. */
export function yearContradiction(vin: string, modelYear: number): string | null {
  const { modelYears } = readVin(vin);
  if (modelYears.length === 0 || modelYears.includes(modelYear)) return null;
  return `the VIN says model year ${modelYears.join(' or ')}, the record ${modelYear}`;
}
