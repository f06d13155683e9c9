import type { WeakPoint } from '../../engine/weak-points';
import type { BreakawayFeel } from '../../inspection/vocabulary';

/** How the plugs of one engine are loosened. */
export const REMOVALS = ['usual', 'short', 'long'] as const;
export type Removal = (typeof REMOVALS)[number];

/** Whether a family is known for seized plugs. */
export const isSeizing = (weakPoints: readonly WeakPoint[]): boolean =>
  weakPoints.some(({ kind }) => kind === 'seizing');

/** The last time that the plugs of this very engine were out, by the record. */
export interface EarlierRemoval {
  /** ISO day. */
  readonly on: string;
  /** The hardest of its sites; null: nobody noted it. */
  readonly feel: BreakawayFeel | null;
  /** What went on the threads of the plugs that are in now; null: nothing, or nobody noted it. */
  readonly compound: string | null;
}

/**
 * The long method (back off, penetrant, soak, to and fro), a short one or the usual, by what this engine did the last time.
 * An engine known to seize gets the long method until its plugs have been out on record, came out easily and went in with a
 * compound.
 *
 * Source: general trade practice for plugs that seize; the manufacturer's service information comes first.
 *
 * @param seizes the family is known for seized plugs
 * @param earlier null: no earlier removal is on record
 */
export function removalOf(
  seizes: boolean,
  earlier: EarlierRemoval | null,
): { readonly removal: Removal; readonly because: string } {
  if (earlier?.feel === 'seized')
    return { removal: 'long', because: `Plugs of this engine were seized on ${earlier.on}.` };
  if (earlier?.feel === 'tight')
    return { removal: seizes ? 'long' : 'short', because: `Plugs of this engine came out tight on ${earlier.on}.` };
  if (!seizes) return { removal: 'usual', because: 'Nothing on record says that these plugs seize.' };
  if (!earlier)
    return { removal: 'long', because: 'This engine is known for seized plugs, and no earlier removal is on record.' };
  const easy = earlier.feel === 'normal' || earlier.feel === 'loose';
  return easy && earlier.compound
    ? {
        removal: 'short',
        because: `This engine is known for seized plugs; they came out easily on ${earlier.on}, and ${earlier.compound} went on the threads.`,
      }
    : {
        removal: 'long',
        because: `This engine is known for seized plugs; they were out on ${earlier.on}, but ${easy ? 'no compound is on record' : 'nobody noted how they came loose'}.`,
      };
}
