import { plainText } from './as-written';

/**
 * Units of the trade and their exact factors.
 *
 * Source: international yard and pound agreement (1959); 1 lbf·ft and 1 lbf·in follow from standard gravity.
 */
export const MM_PER_INCH = 25.4;
export const KM_PER_MILE = 1.609344;
export const NM_PER_LBF_FT = 1.3558179483;
export const NM_PER_LBF_IN = 0.112984829;
/** Standard gravity. */
const NM_PER_KGF_M = 9.80665;
/** Newtons a pound-force, from standard gravity. */
export const N_PER_LBF = 4.4482216153;

export const QUANTITY_KINDS = ['gap', 'torque', 'distance', 'resistance'] as const;
export type QuantityKind = (typeof QUANTITY_KINDS)[number];

export const UNIT_NAMES = [
  'mm',
  'in',
  'thou',
  'µm',
  'cm',
  'N·m',
  'lbf·ft',
  'lbf·in',
  'N·cm',
  'N·mm',
  'daN·m',
  'kgf·m',
  'kgf·cm',
  'km',
  'mi',
  'Ω',
  'kΩ',
] as const;
export type UnitName = (typeof UNIT_NAMES)[number];

export interface Unit {
  readonly name: UnitName;
  readonly kind: QuantityKind;
  /** SI (mm, N·m, km or Ω) per one of this unit. */
  readonly factor: number;
  /** Decimals that a person working in this unit writes. */
  readonly decimals: number;
  /** Read where it is written, and never offered. */
  readonly rare?: true;
}

export const UNITS: Readonly<Record<UnitName, Unit>> = {
  mm: { name: 'mm', kind: 'gap', factor: 1, decimals: 2 },
  in: { name: 'in', kind: 'gap', factor: MM_PER_INCH, decimals: 3 },
  thou: { name: 'thou', kind: 'gap', factor: MM_PER_INCH / 1000, decimals: 0 },
  µm: { name: 'µm', kind: 'gap', factor: 0.001, decimals: 0, rare: true },
  cm: { name: 'cm', kind: 'gap', factor: 10, decimals: 3, rare: true },
  N·m: { name: 'N·m', kind: 'torque', factor: 1, decimals: 1 },
  lbf·ft: { name: 'lbf·ft', kind: 'torque', factor: NM_PER_LBF_FT, decimals: 1 },
  lbf·in: { name: 'lbf·in', kind: 'torque', factor: NM_PER_LBF_IN, decimals: 0 },
  N·cm: { name: 'N·cm', kind: 'torque', factor: 0.01, decimals: 0, rare: true },
  N·mm: { name: 'N·mm', kind: 'torque', factor: 0.001, decimals: 0, rare: true },
  daN·m: { name: 'daN·m', kind: 'torque', factor: 10, decimals: 2, rare: true },
  kgf·m: { name: 'kgf·m', kind: 'torque', factor: NM_PER_KGF_M, decimals: 2, rare: true },
  kgf·cm: { name: 'kgf·cm', kind: 'torque', factor: NM_PER_KGF_M / 100, decimals: 0, rare: true },
  km: { name: 'km', kind: 'distance', factor: 1, decimals: 0 },
  mi: { name: 'mi', kind: 'distance', factor: KM_PER_MILE, decimals: 0 },
  Ω: { name: 'Ω', kind: 'resistance', factor: 1, decimals: 2 },
  kΩ: { name: 'kΩ', kind: 'resistance', factor: 1000, decimals: 2 },
};

/** Units of one kind that a person works in, the SI one first. */
export function unitsOf(kind: QuantityKind): readonly Unit[] {
  return Object.values(UNITS).filter((unit) => unit.kind === kind && !unit.rare);
}

/** @param value in `unit` @returns mm, N·m, km or Ω, not rounded */
export const toSi = (value: number, unit: UnitName): number => value * UNITS[unit].factor;

/** @param si in mm, N·m, km or Ω @returns the value in `unit`, not rounded */
export const fromSi = (si: number, unit: UnitName): number => si / UNITS[unit].factor;

const SPELLINGS: ReadonlyArray<readonly [RegExp, UnitName]> = [
  [/^(mm|m[\s/]m|millimet(er|re)s?)$/, 'mm'],
  [/^(in|ins|inch|inches|"|″|”|'')$/, 'in'],
  [/^(thou|thous|thousandths?( of an inch)?|mil|mils)$/, 'thou'],
  [/^(um|microns?|micromet(er|re)s?)$/, 'µm'],
  [/^(cm|centimet(er|re)s?)$/, 'cm'],
  [/^n[\s.·*-]*m$/, 'N·m'],
  [/^n[\s.·*-]*cm$/, 'N·cm'],
  [/^n[\s.·*-]*mm$/, 'N·mm'],
  [/^da\s*n[\s.·*-]*m$/, 'daN·m'],
  [/^((kgf?|kp)[\s.·*-]*m|m[\s.·*-]*(kgf?|kp))$/, 'kgf·m'],
  [/^(kgf?|kp)[\s.·*-]*cm$/, 'kgf·cm'],
  [/^(newton[\s-]*met(er|re)s?)$/, 'N·m'],
  [/^(ft|foot|feet)[\s.·*/-]*(lbs?|lbf|#|pounds?)$/, 'lbf·ft'],
  [/^(lbs?|lbf|#|pounds?)[\s.·*/-]*(ft|foot|feet)$/, 'lbf·ft'],
  [/^(ins?|inch(es)?)[\s.·*/-]*(lbs?|lbf|#|pounds?)$/, 'lbf·in'],
  [/^(lbs?|lbf|#|pounds?)[\s.·*/-]*(ins?|inch(es)?)$/, 'lbf·in'],
  [/^(km|kms|klm|klms|kays|kilomet(er|re)s?)$/, 'km'],
  [/^(mi|mls|mile|miles)$/, 'mi'],
  [/^(ω|ohms?|r)$/, 'Ω'],
  [/^(k[\s-]*ω|k[\s-]*ohms?|kilo-?ohms?)$/, 'kΩ'],
];

/** No unit is spelled longer. */
const MAX_TEXT = 40;

/** The unit that a person's spelling names, or null: "ft-lb", "lb ft" and "lbf·ft" are one unit. */
export function unitFromText(text: string): Unit | null {
  if (text.length > MAX_TEXT) return null;
  const spelled = plainText(text).toLowerCase().replace(/\.$/, '');
  const spelling = SPELLINGS.find(([pattern]) => pattern.test(spelled));
  return spelling ? UNITS[spelling[1]] : null;
}
