import type { JobRecord } from './entry';
import { placeIn } from './order-model';
import { crackedRegion } from './place-fields';
import type { NamedPlace } from './say-places';

/* A job that stands still: who stopped it, why, and what whoever goes on should know. */

/** Why a job stops, as it is chosen; more is said in a note. */
export const STOP_REASONS = [
  'A boot is torn',
  'A gasket is missing',
  'A new plug is not right',
  'A connector tab is broken',
  'A plug is seized or broken',
  'A plug is cracked',
  'Penetrant has to soak',
  'End of the shift',
  'Another fault comes first',
  'Something else',
] as const;

export interface Stop {
  readonly id: string;
  readonly reason: string;
  /** Who stopped it. */
  readonly by: string;
  /** An instant, ISO 8601. */
  readonly at: string;
  readonly note: string | null;
  /** Who goes on. */
  readonly next: string | null;
  /** The place that it is about, as screens name it; null: the whole job. */
  readonly place: string | null;
  /** "2 × KM-4180". */
  readonly part: string | null;
}

/**
 * Why a job stands, in a sentence.
 *
 * @example stopText({ by: 'M. Vane', reason: 'A boot is torn', place: '5', … }) // "Stopped by M. Vane because: a boot is torn (5)."
 */
export function stopText({ by, reason, place, part }: Pick<Stop, 'by' | 'reason' | 'place' | 'part'>): string {
  const why = reason.slice(0, 1).toLowerCase() + reason.slice(1).replace(/[.\s]+$/, '');
  const waits = part === null ? '' : ` It waits for ${part}.`;
  return `Stopped by ${by} because: ${why}${place === null ? '' : ` (${place})`}.${waits}`;
}

/** What whoever goes on has to know before anything is turned. */
interface LeftOpen<P extends NamedPlace> {
  /** Seized plugs with penetrant in their wells that are still in. */
  readonly soaking: readonly P[];
  /** Plugs whose insulator is cracked. */
  readonly cracked: readonly P[];
}

export function leftOpenOf<P extends NamedPlace & { readonly target: string }>(
  places: readonly P[],
  record: JobRecord,
): LeftOpen<P> {
  const plugs = places.filter(({ component }) => component === 'plug');
  return {
    soaking: plugs.filter(({ target }) => {
      const { soakedAt, removedGap, done } = placeIn(record, target);
      return soakedAt !== null && !removedGap && !done;
    }),
    cracked: plugs.filter(({ target }) => crackedRegion(placeIn(record, target).seen) !== undefined),
  };
}
