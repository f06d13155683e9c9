import type { Driving } from '../misfire/driving';

/* What a vehicle costs each week that its work waits: one figure, wherever it is shown. */

/**
 * Chance that a misfire leaves the vehicle on the road within a week, by whether it may be driven. Assumed: no fleet has recorded
 * enough of them yet.
 */
const CHANCE_OF_MISFIRE: Readonly<Record<Driving, number>> = { free: 0.02, to_the_shop: 0.05, stop: 0.25 };
/** The same of a finding that is followed up. Assumed. */
const CHANCE_OF_FINDING = 0.02;

/** What is wrong with a vehicle besides life used. */
interface OpenTrouble {
  /** Of its open misfire, whether it may be driven; null: it has none, or one that is believed cured. */
  readonly misfire: Driving | null;
  /** Findings of removed parts that are followed up. */
  readonly findings: number;
}

/** Money a week. */
export interface WeekCost {
  /** Of all components; null: of none is known how far its life is used. */
  readonly components: number | null;
  readonly misfire: number;
  readonly findings: number;
  /** Null: nothing is known. */
  readonly total: number | null;
}

/**
 * What another week of waiting costs: the service pressure of all components, an open misfire, and findings.
 *
 * @param failureCost of a failure on the road, for this vehicle
 * @example weekCost([{ pressure: 3 }, { pressure: null }], { misfire: 'stop', findings: 0 }, 400).total // 103
 */
export function weekCost(
  components: readonly { readonly pressure: number | null }[],
  { misfire, findings }: OpenTrouble,
  failureCost: number,
): WeekCost {
  const known = components.flatMap(({ pressure }) => pressure ?? []);
  const ofComponents = known.length === 0 ? null : known.reduce((sum, each) => sum + each, 0);
  const ofMisfire = misfire === null ? 0 : CHANCE_OF_MISFIRE[misfire] * failureCost;
  const ofFindings = findings * CHANCE_OF_FINDING * failureCost;
  const trouble = ofMisfire + ofFindings;
  return {
    components: ofComponents,
    misfire: ofMisfire,
    findings: ofFindings,
    total: ofComponents === null && trouble === 0 ? null : (ofComponents ?? 0) + trouble,
  };
}
