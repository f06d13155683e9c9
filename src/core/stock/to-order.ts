import { addDays } from '../calendar/plain-date';
import type { Day } from '../shared/kinds';

/** Why a part is wanted: a stopped job waits for it, an open order will want it, or work falls due. */
export type NeedWhy = 'waits' | 'found_broken' | 'new_seal' | 'likely_to_break' | 'falls_due';

/** Parts of one number that one job wants. */
export interface PartNeed {
  readonly quantity: number;
  readonly why: NeedWhy;
  /** Numbers of the open orders that want it. */
  readonly orders: readonly number[];
  /** When the work is likely to be done; null: as soon as the part is there. */
  readonly on: Day | null;
}

interface Stocked {
  /** Null: nobody counts it, so nothing is taken for there. */
  readonly onHand: number | null;
  /** Parts in a pack; null: sold singly. */
  readonly packSize: number | null;
  /** Calendar days from order to shelf; null: not known. */
  readonly leadDays: number | null;
}

export interface OrderLine {
  readonly needed: number;
  /** What is short, in whole packs; 0: the shelf has enough. */
  readonly quantity: number;
  /** The latest day to order it, never before today; null: nothing to order. */
  readonly orderBy: Day | null;
  readonly whys: readonly NeedWhy[];
  readonly orders: readonly number[];
}

/**
 * What to order of one part, and by when: the shelf serves the earliest needs, and the first one that it cannot serve sets the day.
 *
 * @param needs at least one
 * @param today orders are never late by more than today
 * @example orderLine([{ quantity: 3, why: 'waits', orders: [1001], on: null }], { onHand: 2, packSize: 4, leadDays: 3 }, today)
 * // { needed: 3, quantity: 4, orderBy: today, whys: ['waits'], orders: [1001] }
 */
export function orderLine(needs: readonly PartNeed[], { onHand, packSize, leadDays }: Stocked, today: Day): OrderLine {
  const sorted = [...needs].sort((a, b) => dayOf(a, today).localeCompare(dayOf(b, today)));
  let left = onHand ?? 0;
  const unserved = sorted.find(({ quantity }) => {
    left -= quantity;
    return left < 0;
  });
  const needed = needs.reduce((sum, { quantity }) => sum + quantity, 0);
  const pack = packSize ?? 1;
  return {
    needed,
    quantity: Math.ceil(Math.max(0, needed - (onHand ?? 0)) / pack) * pack,
    orderBy: unserved ? notBefore(today, addDays(dayOf(unserved, today), -(leadDays ?? 0))) : null,
    whys: [...new Set(sorted.map(({ why }) => why))],
    orders: [...new Set(sorted.flatMap(({ orders }) => orders))],
  };
}

const notBefore = (today: Day, day: Day): Day => (day < today ? today : day);
const dayOf = ({ on }: PartNeed, today: Day): Day => notBefore(today, on ?? today);
