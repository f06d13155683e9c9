import type { UseRate } from './use-rate';

/** A vehicle that was watched for half a year and goes 100 km a day, with usual weeks. */
export const steadyRate = (over: Partial<UseRate> = {}): UseRate => ({
  kmPerDay: 100,
  used: 12,
  borrowed: false,
  weeklySpread: 0.4,
  drift: 0.018,
  observedDays: 180,
  groupSpread: 0,
  ...over,
});
