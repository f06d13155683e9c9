import type { GapSpec } from './check';

interface PressureBand extends GapSpec {
  /** Absolute intake pressure up to which the gap holds, kPa. */
  readonly upToKpa: number;
}

export type BoostGap<B extends PressureBand> =
  | { readonly kind: 'in-band'; readonly band: B }
  /** Between two pressures that were asked for and set: the tighter gap, once someone has approved it. */
  | { readonly kind: 'between'; readonly band: B; readonly needsApproval: true }
  | { readonly kind: 'above-all' };

/**
 * The gap for a pressure from a table of known pressures. Between two of them the tighter gap is taken and approval asked
 * for; above the highest nothing is known.
 *
 * @param known pressures at which the maker or tuner states a gap, any order, at least one
 */
export function gapForBoost<B extends PressureBand>(known: readonly B[], intakeKpa: number): BoostGap<B> {
  const sorted = [...known].sort((a, b) => a.upToKpa - b.upToKpa);
  const at = sorted.findIndex((band) => intakeKpa <= band.upToKpa);
  const above = sorted[at];
  if (!above) return { kind: 'above-all' };
  const below = sorted[at - 1];
  if (intakeKpa === above.upToKpa || !below) return { kind: 'in-band', band: above };
  const tighter = below.maxMm < above.maxMm ? below : above;
  return { kind: 'between', band: tighter, needsApproval: true };
}

export interface Bounds {
  readonly min: number;
  readonly max: number;
}

/** Where two makers' ranges agree; null: nowhere, so stop and ask. */
export function overlap(ranges: readonly Bounds[]): Bounds | null {
  const min = Math.max(...ranges.map((range) => range.min));
  const max = Math.min(...ranges.map((range) => range.max));
  return ranges.length > 0 && min <= max + 1e-9 ? { min, max } : null;
}
