import { addMonths, type PlainDate } from '../calendar/plain-date';
import type { Km } from '../shared/kinds';
import { ageOf, type RemovalReason, type Stay } from './history';

/** How long the maker answers for a part; null: no such limit is known. */
export interface Warranty {
  readonly months: number | null;
  readonly km: Km | null;
}

interface Claim {
  /** It failed before either limit. */
  readonly isWithin: boolean;
  /** Until when it is claimed; null: no limit of time. */
  readonly until: PlainDate | null;
  /** How old it was when it came out. */
  readonly ageKm: Km;
  /** A reading at either end is only about so much: the maker may ask for a better one. */
  readonly isAbout: boolean;
}

const FAULT_OF_THE_PART: readonly RemovalReason[] = ['failed', 'found_damaged'];

/**
 * Whether a part that came out is its maker's to answer for. A part that changed cylinders is as old as its first place.
 *
 * @param stays of one part, oldest first
 * @returns null: it sits there still, came out for no fault of its own, or nobody knows a limit
 */
export function claimOf(stays: readonly Stay[], { months, km }: Warranty): Claim | null {
  const [first, last, age] = [stays[0], stays.at(-1), ageOf(stays)];
  if (!first || !last?.removedOn || !age) return null;
  if (!FAULT_OF_THE_PART.includes(last.removalReason ?? 'unknown') || (months === null && km === null)) return null;
  const until = months === null ? null : addMonths(first.installedOn, months);
  const isWithin = (until === null || last.removedOn <= until) && (km === null || age.km <= km);
  return { until, ageKm: age.km, isAbout: age.isAbout, isWithin };
}
