/* The normal distribution, as far as plans need it. */

const density = (z: number): number => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);

/**
 * Chance that a standard normal value lies below `z`, to within 1e-7.
 *
 * Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 26.2.17.
 */
export function normalBelow(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    density(z) * t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z < 0 ? tail : 1 - tail;
}

/** How much a normal value is above a limit, on average, counting nothing where it is below. @param sd 0: it is no chance */
export function expectedExcess(mean: number, sd: number, limit: number): number {
  if (sd <= 0) return Math.max(0, mean - limit);
  const z = (mean - limit) / sd;
  return Math.max(0, (mean - limit) * normalBelow(z) + sd * density(z));
}
