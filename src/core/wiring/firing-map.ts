import type { Distributor } from '../engine/model';

export interface Tower {
  /** Clockwise seen from above, from 1. */
  readonly tower: number;
  readonly cylinder: number;
}

/**
 * Which cylinder's lead sits in which tower of the cap: the rotor passes them in firing order, in its own direction.
 *
 * @param firingOrder each cylinder once, any of them first
 * @returns in order of tower, from 1
 * @throws RangeError when cylinder 1 is not in the firing order
 */
export function towerMap(firingOrder: readonly number[], distributor: Distributor): readonly Tower[] {
  const n = firingOrder.length;
  const first = firingOrder.indexOf(1);
  if (first < 0) throw new RangeError('towerMap: cylinder 1 is not in the firing order');
  const turn = distributor.rotation === 'clockwise' ? 1 : -1;
  return firingOrder
    .map((cylinder, i) => ({ tower: mod(distributor.towerOfCylinder1 - 1 + turn * (i - first), n) + 1, cylinder }))
    .sort((a, b) => a.tower - b.tower);
}

const mod = (value: number, n: number): number => ((value % n) + n) % n;

type Indexing =
  | { readonly kind: 'as-recorded' }
  /** The distributor was set back turned by this many towers, clockwise. */
  | { readonly kind: 'turned'; readonly towers: number; readonly towerOfCylinder1: number }
  /** The leads seen agree with no turn of the cap: two are swapped, or the rotor turns the other way. */
  | { readonly kind: 'contradiction' };

/**
 * Whether a distributor was set back turned: two leads traced by hand decide, one alone cannot.
 *
 * @param seen at least two towers with the cylinder their lead runs to
 */
export function checkIndexing(
  firingOrder: readonly number[],
  distributor: Distributor,
  seen: readonly Tower[],
): Indexing {
  const map = new Map(towerMap(firingOrder, distributor).map(({ tower, cylinder }) => [cylinder, tower]));
  const n = firingOrder.length;
  const turns = new Set(seen.map(({ tower, cylinder }) => mod(tower - (map.get(cylinder) ?? Number.NaN), n)));
  const [turn] = turns;
  if (turn === undefined || seen.length < 2 || turns.size > 1 || Number.isNaN(turn)) return { kind: 'contradiction' };
  if (turn === 0) return { kind: 'as-recorded' };
  return { kind: 'turned', towers: turn, towerOfCylinder1: mod(distributor.towerOfCylinder1 - 1 + turn, n) + 1 };
}

type SwapEffect = 'none' | 'polarity-only' | 'both-misfire';

/**
 * What swapping the leads of two cylinders does. Companions of a waste-spark coil fire at once, so there it changes
 * nothing; anywhere else both cylinders are fired at the wrong moment.
 */
export function leadSwapEffect(pairs: readonly (readonly [number, number])[], a: number, b: number): SwapEffect {
  if (a === b) return 'none';
  return pairs.some((pair) => pair.includes(a) && pair.includes(b)) ? 'polarity-only' : 'both-misfire';
}

interface SparkPolarity {
  readonly cylinder: number;
  /** The electrode that wears more: the one the spark leaves as the negative one. */
  readonly wearsMore: 'centre' | 'ground';
}

/** With waste spark the two plugs of a coil are fired in opposite directions: expected, not a finding. */
export const wastePolarity = (pairs: readonly (readonly [number, number])[]): readonly SparkPolarity[] =>
  pairs.flatMap(([a, b]) => [
    { cylinder: a, wearsMore: 'centre' as const },
    { cylinder: b, wearsMore: 'ground' as const },
  ]);
