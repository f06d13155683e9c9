import type { Km, Mm, Nm, Ohm } from '../shared/kinds';
/* How figures are rounded: for keeping, and for showing. */

/** To so many decimals, half away from zero as printed. */
export const roundTo = (value: number, decimals: number): number => Number(value.toFixed(decimals));

/** To the nearest multiple of a step, such as a gauge's or a wrench's. @throws RangeError where the step is not above 0 */
export function roundToStep(value: number, step: number): number {
  if (!(step > 0)) throw new RangeError(`roundToStep: a step is above 0, got ${step}`);
  return Number((Math.round(value / step) * step).toPrecision(12));
}

/** As quantities are kept: a gap to a tenth of a µm, a torque to a hundredth of a N·m, a distance to a tenth of a km, a resistance to a hundredth of an Ω. */
export const keptMm = (mm: Mm): number => roundTo(mm, 4);
export const keptNm = (nm: Nm): number => roundTo(nm, 2);
export const keptOhm = (ohm: Ohm): number => roundTo(ohm, 2);
export const keptKm = (km: Km): number => Math.round(km * 10) / 10;
