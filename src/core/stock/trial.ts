import type { Km } from '../shared/kinds';
import { medianOf } from '../stats/median';

/** What one part did in service, over all sites that had it. */
export interface Service {
  readonly sites: number;
  readonly vehicles: number;
  /** Distance that all its sites ran together, km. */
  readonly siteKm: Km;
  /** Those that came out before half of their interval. */
  readonly early: number;
  /** Growth of the gap where it was measured both times, µm per 1,000 km. */
  readonly growth: readonly number[];
}

export interface TrialComparison {
  readonly verdict: 'too-little' | 'no-difference' | 'worse' | 'better';
  /** Chance of a split at least this uneven if the two parts were alike; null without any early removal. */
  readonly chance: number | null;
  readonly trialGrowth: number | null;
  readonly controlGrowth: number | null;
}

/** Below this chance two parts are called different. */
const DIFFERENT_BELOW = 0.05;
/** A verdict of "no difference" needs so much distance on trial, km: else it is too little to tell. */
export const MIN_SITE_KM = 100_000;

/**
 * The part on trial against the usual one, by early removals over distance.
 *
 * Given all early removals of both, each falls on the trial with the share of distance that the trial ran, if the two
 * are alike: an exact two-sided binomial test. Source: the conditional test of two Poisson rates (Przyborowski and
 * Wilenski 1940).
 */
export function compareTrial(trial: Service, control: Service): TrialComparison {
  const growths = { trialGrowth: medianOf(trial.growth), controlGrowth: medianOf(control.growth) };
  const all = trial.early + control.early;
  const km = trial.siteKm + control.siteKm;
  if (all === 0 || km <= 0) {
    const enough = trial.siteKm >= MIN_SITE_KM && control.siteKm >= MIN_SITE_KM;
    return { verdict: enough ? 'no-difference' : 'too-little', chance: null, ...growths };
  }
  const share = trial.siteKm / km;
  const chance = twoSided(trial.early, all, share);
  if (chance < DIFFERENT_BELOW) return { verdict: trial.early > all * share ? 'worse' : 'better', chance, ...growths };
  return { verdict: trial.siteKm >= MIN_SITE_KM ? 'no-difference' : 'too-little', chance, ...growths };
}

/** Chance of all counts that are no likelier than the one seen. */
function twoSided(seen: number, total: number, share: number): number {
  const chances = Array.from({ length: total + 1 }, (_, k) => binomial(k, total, share));
  const here = chances[seen] ?? 0;
  return Math.min(
    1,
    chances.reduce((sum, p) => (p <= here * (1 + 1e-9) ? sum + p : sum), 0),
  );
}

function binomial(k: number, n: number, p: number): number {
  if (p <= 0) return k === 0 ? 1 : 0;
  if (p >= 1) return k === n ? 1 : 0;
  let log = k * Math.log(p) + (n - k) * Math.log(1 - p);
  for (let i = 1; i <= k; i++) log += Math.log(n - k + i) - Math.log(i);
  return Math.exp(log);
}
