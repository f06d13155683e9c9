import type { AccessClass } from '../../engine/access';
import { medianOf } from '../../stats/median';
import { Z_80 } from '../../stats/theil-sen';

/* What a shop's own visits took, against what was computed for them. */

/** One closed visit of an engine family. */
export interface TimeRatio {
  /** The hardest access of the banks that it opened. */
  readonly access: AccessClass;
  /** Minutes worked over minutes computed. */
  readonly ratio: number;
}

/** By what computed minutes are corrected, with the range in which four of five visits end. */
export interface Learned {
  readonly factor: number;
  readonly low: number;
  readonly high: number;
  /** Visits of the family, and of those the ones with this access. */
  readonly jobs: number;
  readonly alike: number;
}

/** A shop is taken to work as computed until about so many visits say otherwise. */
const PRIOR_JOBS = 4;
/** How far visits spread by themselves, as a share, until a shop's own say. Source: trade guidance, coarse. */
const PRIOR_SPREAD = 0.2;
/** What lies farther from what was computed than this is a clock that was forgotten. */
const MOST = 4;

/** The logarithm of a factor, drawn to another by so many visits. */
const shrunk = (observed: number, jobs: number, to: number): number =>
  (jobs * observed + PRIOR_JOBS * to) / (jobs + PRIOR_JOBS);

/**
 * The median of actual over computed, by family and access: with few visits of this access drawn to that of the family, and
 * with few of the family to 1. The range is drawn the same way to a usual spread.
 *
 * @param ratios of the closed visits of one family; what is not above 0, or beyond belief, is left out
 * @param access of the visit asked for
 */
export function learntMinutes(ratios: readonly TimeRatio[], access: AccessClass): Learned {
  const usable = ratios.filter(({ ratio }) => ratio > 1 / MOST && ratio < MOST);
  const logs = usable.map(({ ratio }) => Math.log(ratio));
  const alike = usable.filter((job) => job.access === access).map(({ ratio }) => Math.log(ratio));
  const family = shrunk(medianOf(logs) ?? 0, logs.length, 0);
  const ownRatio = shrunk(medianOf(alike) ?? 0, alike.length, family);
  const spread = alike.reduce((sum, log) => sum + (log - ownRatio) ** 2, 0);
  const sd = Math.sqrt((spread + PRIOR_JOBS * PRIOR_SPREAD ** 2) / (alike.length + PRIOR_JOBS));
  return {
    factor: Math.exp(ownRatio),
    low: Math.exp(ownRatio - Z_80 * sd),
    high: Math.exp(ownRatio + Z_80 * sd),
    jobs: logs.length,
    alike: alike.length,
  };
}
