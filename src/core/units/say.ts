import type { Mm, Nm, Ohm } from '../shared/kinds';
import { fromSi, UNITS, type UnitName } from './unit';

/* A quantity within a sentence of the core: in both systems, since nobody knows there who will read it. */

/** A torque drops its needless zero; the figures of a gauge keep theirs. */
const figure = (si: number, unit: UnitName): string => {
  const { kind, decimals } = UNITS[unit];
  const shown = fromSi(si, unit).toFixed(decimals);
  return kind === 'torque' ? String(Number(shown)) : shown;
};
const figureText = (si: number, unit: UnitName): string => `${figure(si, unit)} ${unit}`;
const both = (si: number, unit: UnitName, other: UnitName): string =>
  `${figureText(si, unit)} (${figureText(si, other)})`;

function range({ min, max }: { readonly min: number; readonly max: number }, unit: UnitName): string {
  const [from, to] = [figure(min, unit), figure(max, unit)];
  return from === to ? `${from} ${unit}` : `${from} to ${to} ${unit}`;
}

/** "1.05 mm (0.041 in)" */
export const sayGap = (mm: Mm): string => both(mm, 'mm', 'in');
/** "1.00 to 1.10 mm (0.039 to 0.043 in)" */
export const sayGaps = (mm: { readonly min: number; readonly max: number }): string =>
  `${range(mm, 'mm')} (${range(mm, 'in')})`;

/** "17.5 N·m (12.9 lbf·ft)" */
export const sayTorque = (nm: Nm): string => both(nm, 'N·m', 'lbf·ft');
/** "16 to 19 N·m (11.8 to 14 lbf·ft)" */
export const sayTorques = (nm: { readonly min: number; readonly max: number }): string =>
  `${range(nm, 'N·m')} (${range(nm, 'lbf·ft')})`;
/** A small screw's in all three, since one of them is taken for another: "9 N·m (6.6 lbf·ft, 80 lbf·in)" */
export const saySmallTorque = (nm: Nm): string =>
  `${figureText(nm, 'N·m')} (${figureText(nm, 'lbf·ft')}, ${figureText(nm, 'lbf·in')})`;
export const saySmallTorques = (nm: { readonly min: number; readonly max: number }): string =>
  `${range(nm, 'N·m')} (${range(nm, 'lbf·ft')}, ${range(nm, 'lbf·in')})`;

/** What a meter shows where nothing conducts: a broken winding or lead is a reading too. */
export const OPEN_CIRCUIT: Ohm = 1e9;

/** "0.7 Ω", "9.8 kΩ", "open circuit" */
export function sayOhms(ohm: Ohm): string {
  if (ohm >= OPEN_CIRCUIT) return 'open circuit';
  return ohm >= 1000 ? `${Number((ohm / 1000).toPrecision(4))} kΩ` : `${Number(ohm.toPrecision(4))} Ω`;
}
/** "0.6 to 0.8 Ω" */
export const sayOhmRange = ({ min, max }: { readonly min: Ohm; readonly max: Ohm }): string =>
  `${sayOhms(min)} to ${sayOhms(max)}`;
