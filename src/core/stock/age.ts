import type { PlainDate } from '../calendar/plain-date';

interface StockLayer {
  readonly receivedOn: PlainDate;
  readonly lot: string | null;
  readonly quantity: number;
}

interface StockAge {
  /** What still lies there of each delivery, the oldest first: it goes out first. */
  readonly layers: readonly StockLayer[];
  /** Pieces older than every delivery on record. */
  readonly undatedQuantity: number;
}

/**
 * How old the shelf is when the oldest goes out first: what lies there is then what came last.
 *
 * @param onHand pieces on the shelf
 * @param deliveries accepted ones, any order
 */
export function stockAge(onHand: number, deliveries: readonly StockLayer[]): StockAge {
  const newestFirst = [...deliveries].sort((a, b) => (a.receivedOn < b.receivedOn ? 1 : -1));
  const layers: StockLayer[] = [];
  let left = onHand;
  for (const delivery of newestFirst) {
    const quantity = Math.min(left, delivery.quantity);
    if (quantity <= 0) continue;
    layers.unshift({ ...delivery, quantity });
    left -= quantity;
  }
  return { layers, undatedQuantity: left };
}
