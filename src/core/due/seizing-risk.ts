import { daysBetween, type PlainDate } from '../calendar/plain-date';
import type { Shell } from '../policy/apply';
import type { Km } from '../shared/kinds';
import type { Head } from '../torque/plan';

/** Plugs that were never out, as far as anyone knows, and the metals that they sit in. */
export interface SeizingFacts {
  readonly today: PlainDate;
  /** When the plug that has been in for longest went in, and at how much; null: nothing is known. */
  readonly fittedOn: PlainDate | null;
  readonly fittedKm: Km | null;
  readonly odometerKm: Km | null;
  readonly head: Head;
  /** Null: nobody has said. */
  readonly shell: Shell | null;
  /** Its engine family is known for it. */
  readonly isKnownFor: boolean;
}

export interface SeizingRisk {
  readonly years: number;
  readonly km: Km | null;
  readonly shell: 'bare' | 'unknown';
  readonly isKnownFor: boolean;
}

/** Source: general trade guidance, coarse. An engine that is known for it is worth a look at half of either. */
const LONG_YEARS = 8;
const LONG_KM = 130_000;
const YEAR_DAYS = 365.25;
/** So far a vehicle has gone before its first owner has it. */
const AS_NEW_KM = 200;

/** Steel that may grow fast to aluminium, in since the vehicle was new. */
export const mayGrowFast = ({ fittedKm, head, shell }: Pick<SeizingFacts, 'fittedKm' | 'head' | 'shell'>): boolean =>
  fittedKm !== null && fittedKm <= AS_NEW_KM && head === 'aluminium' && shell !== 'plated';

/**
 * Whether plugs may be seized, with the reasons: never out, long in, a steel shell in an aluminium head.
 *
 * @returns null: nothing speaks for it
 */
export function seizingRisk(facts: SeizingFacts): SeizingRisk | null {
  const { today, fittedOn, fittedKm, odometerKm, shell, isKnownFor } = facts;
  if (!mayGrowFast(facts) || fittedOn === null || shell === 'plated') return null;
  const share = isKnownFor ? 0.5 : 1;
  const years = daysBetween(fittedOn, today) / YEAR_DAYS;
  const km = odometerKm === null ? null : odometerKm - (fittedKm ?? 0);
  if (years < LONG_YEARS * share && (km ?? 0) < LONG_KM * share) return null;
  return { years: Math.floor(years), km, shell: shell ?? 'unknown', isKnownFor };
}
