/** Normal quantile at 0.9: half of an 80 % two-sided interval. */
export const Z_80 = 1.2815515655446004;

interface Slope {
  readonly slope: number;
  /** Sen's rank-based 80 % interval. */
  readonly ci80: readonly [number, number];
}

/**
 * Theil–Sen slope with Sen's rank-based 80 % confidence interval; resists outliers up to 29 % of the points.
 *
 * @param x abscissae, any order, ties allowed
 * @param y ordinates, same length
 * @returns null when no two abscissae differ (a slope cannot be told); not rounded
 *
 * Source: Sen, P. K. (1968), Estimates of the regression coefficient based on Kendall's tau, JASA 63, 1379–1389.
 * Cost: O(n² log n) in time and O(n²) in memory.
 */
export function theilSen(x: readonly number[], y: readonly number[]): Slope | null {
  if (x.length !== y.length) throw new RangeError(`theilSen: ${x.length} abscissae, ${y.length} ordinates`);
  const slopes = pairwiseSlopes(x, y);
  const count = slopes.length;
  if (count === 0) return null;
  const sigma = Math.sqrt(Math.max(0, (tieTerm(x.length) - sumOfTies(x) - sumOfTies(y)) / 18));
  const upper = Math.min(roundHalfEven((count + Z_80 * sigma) / 2), count - 1);
  const lower = Math.max(roundHalfEven((count - Z_80 * sigma) / 2) - 1, 0);
  return { slope: median(slopes), ci80: [slopes[lower] ?? 0, slopes[upper] ?? 0] };
}

function pairwiseSlopes(x: readonly number[], y: readonly number[]): Float64Array {
  const slopes = new Float64Array((x.length * (x.length - 1)) / 2);
  let count = 0;
  for (let i = 0; i < x.length; i++) {
    for (let j = i + 1; j < x.length; j++) {
      const dx = (x[j] ?? 0) - (x[i] ?? 0);
      if (dx !== 0) slopes[count++] = ((y[j] ?? 0) - (y[i] ?? 0)) / dx;
    }
  }
  return slopes.slice(0, count).sort();
}

const tieTerm = (n: number): number => n * (n - 1) * (2 * n + 5);

function sumOfTies(values: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts.values()].reduce((sum, n) => sum + (n > 1 ? tieTerm(n) : 0), 0);
}

function roundHalfEven(value: number): number {
  const floor = Math.floor(value);
  const rest = value - floor;
  if (rest !== 0.5) return Math.round(value);
  return floor % 2 === 0 ? floor : floor + 1;
}

/** @param sorted ascending, not empty */
export function median(sorted: ArrayLike<number>): number {
  const middle = sorted.length >> 1;
  const upper = sorted[middle] ?? Number.NaN;
  return sorted.length % 2 === 1 ? upper : (upper + (sorted[middle - 1] ?? Number.NaN)) / 2;
}

/** Linear-interpolated quantile. @param sorted ascending, not empty @param p in [0, 1] */
export function quantile(sorted: ArrayLike<number>, p: number): number {
  const at = p * (sorted.length - 1);
  const low = sorted[Math.floor(at)] ?? Number.NaN;
  const high = sorted[Math.ceil(at)] ?? Number.NaN;
  return low + (high - low) * (at - Math.floor(at));
}
