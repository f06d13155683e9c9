import { median } from './theil-sen';

/** The median of values in any order; null of none. */
export const medianOf = (values: readonly number[]): number | null =>
  values.length === 0 ? null : median([...values].sort((a, b) => a - b));
