import type { Mm } from '../shared/kinds';

/*
 * Paschen's law for air. Source: Lieberman & Lichtenberg, Principles of Plasma Discharges, section 14.3; pressure and
 * temperature at the spark from Heywood, Internal Combustion Engine Fundamentals, chapter 9. About ±30 % in absolute
 * terms; ratios between two gaps or pressures of one engine are much better than that.
 */

/** 1 / (kPa·cm) */
const A = 112.5;
/** V / (kPa·cm) */
const B = 2737.5;
/** Secondary emission. */
const GAMMA = 0.01;
/** Polytropic exponent of the compression. */
const N = 1.32;
/** Share of the compression that is done when the spark comes. */
const SHARE_AT_SPARK = 0.75;
const REFERENCE_K = 293;

export interface Breath {
  /** Absolute pressure in the intake, kPa. */
  readonly intakeKpa: number;
  /** K */
  readonly intakeK: number;
  /** Geometric, for example 10 for 10:1. */
  readonly compressionRatio: number;
}

/** Pressure at the spark, kPa, scaled to the density it would have at 293 K: density is what the spark crosses. */
function densityPressure({ intakeKpa, intakeK, compressionRatio }: Breath): number {
  const r = SHARE_AT_SPARK * compressionRatio;
  return (intakeKpa * r ** N * REFERENCE_K) / (intakeK * r ** (N - 1));
}

/**
 * Voltage that a plug's gap asks of the coil, about.
 *
 * @param gapMm above 0, mm
 * @returns V, not rounded; Infinity where the gap is so small that the law no longer holds
 * @throws RangeError unless all are above 0
 */
export function sparkDemand(gapMm: Mm, breath: Breath): number {
  if (!(gapMm > 0 && breath.intakeKpa > 0 && breath.intakeK > 0 && breath.compressionRatio > 0))
    throw new RangeError('sparkDemand: gap, pressure, temperature and ratio must be above 0');
  return paschen((densityPressure(breath) * gapMm) / 10);
}

/** @param pd pressure times distance, kPa·cm */
function paschen(pd: number): number {
  const denominator = Math.log(A * pd) - Math.log(Math.log(1 + 1 / GAMMA));
  return denominator > 0 ? (B * pd) / denominator : Number.POSITIVE_INFINITY;
}

/**
 * The gap at which an engine under boost asks as much as the standard one does at its own pressure.
 * Demand depends on pressure times gap alone, so the gap shrinks as the pressure grows.
 *
 * @returns mm, not rounded
 */
export function gapOfEqualDemand(standardGapMm: Mm, standard: Breath, boosted: Breath): number {
  sparkDemand(standardGapMm, standard);
  sparkDemand(standardGapMm, boosted);
  return (standardGapMm * densityPressure(standard)) / densityPressure(boosted);
}
