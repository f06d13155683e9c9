import type { SiteKey } from '../engine/model';
import { siteId } from '../engine/model';
import type { Km, Mm } from '../shared/kinds';
import { median } from '../stats/theil-sen';
import { gapGrowth } from './check';

/** A gap when it was fitted and when it came out, and the distance between the two. */
export interface Wear {
  readonly fittedMm: Mm;
  readonly removedMm: Mm;
  /** km, above 0. */
  readonly sinceKm: Km;
}

/** µm per 1,000 km. */
export const wearRate = ({ fittedMm, removedMm, sinceKm }: Wear): number =>
  gapGrowth(fittedMm, removedMm, sinceKm) ?? 0;

/** Over this times the others a gap has worn faster. Source: the fleet's choice; half as much again is seen at a glance. */
const FAST_WEAR = 1.5;
/** And by more than wire gauges tell apart, mm. */
const GAUGE_STEP_MM = 0.05;
/** Fewer than this cannot be compared. */
const MIN_MEASURED = 3;

/**
 * The sites of one engine whose gaps have worn faster than those of the others, with their rate and that of the others, µm per
 * 1,000 km. The others are the slower half, so that a whole bank can be fast beside another.
 *
 * @returns by site; empty where fewer than three were measured both times
 */
export function fastWear(
  sites: readonly (SiteKey & { readonly wear: Wear | null })[],
): ReadonlyMap<string, { readonly rate: number; readonly others: number }> {
  const measured = sites.flatMap((site) =>
    site.wear ? [{ id: siteId(site), wear: site.wear, rate: wearRate(site.wear) }] : [],
  );
  if (measured.length < MIN_MEASURED) return new Map();
  const rates = measured.map(({ rate }) => rate).sort((a, b) => a - b);
  const others = Math.max(0, median(rates.slice(0, Math.ceil(rates.length / 2))));
  return new Map(
    measured.flatMap(({ id, wear, rate }) => {
      const moreMm = ((rate - others) * wear.sinceKm) / 1e6;
      return rate > FAST_WEAR * others && moreMm > GAUGE_STEP_MM ? [[id, { rate, others }] as const] : [];
    }),
  );
}
