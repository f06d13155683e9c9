import { type GapSpec, gapTarget } from '../gap/check';
import type { Km, Mm } from '../shared/kinds';

/** A gap is worn out beyond this multiple of the nominal one. Source: general trade guidance. */
const WORN_OUT = 1.3;
/** Usual growth of a gap where its own is not known, µm per 1,000 km. Source: general trade guidance for fine wires. */
const USUAL_GROWTH = 2.5;
/** So much of what is worked out is promised: a gap opens faster towards its end. */
const SAFETY = 0.7;
/** Nobody is told more than this without another look, km. */
const MOST_KM = 60_000;
const STEP_KM = 1_000;

/** Beyond this a gap is worn out, mm. */
export const wornOutAt = (gap: GapSpec): Mm => WORN_OUT * gapTarget(gap);

/**
 * What a plug that was looked at and goes back has left, by its gap: the distance to the worn-out gap at its own growth, or the
 * usual one, times a safety factor; whole thousands.
 *
 * @param gapMm as measured now, mm
 * @param growth µm per 1,000 km; null: not known
 * @returns km; 0 where it is worn out
 */
export function remainingKm(gapMm: Mm, gap: GapSpec, growth: number | null): Km {
  const left = wornOutAt(gap) - gapMm;
  if (left <= 0) return 0;
  const rate = Math.max(growth ?? USUAL_GROWTH, 0.5) / 1_000_000;
  return Math.min(MOST_KM, Math.floor((SAFETY * left) / rate / STEP_KM) * STEP_KM);
}
