import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/plain-date';
import type { Day } from '../shared/kinds';
import { orderLine, type PartNeed } from './to-order';

const TODAY = '2026-11-16' as Day;
const due = (quantity: number, inDays: number): PartNeed => ({
  quantity,
  why: 'falls_due',
  orders: [],
  on: addDays(TODAY, inDays),
});
const waiting = (quantity: number, order = 1001): PartNeed => ({ quantity, why: 'waits', orders: [order], on: null });
const STOCK = { onHand: 4, packSize: 4, leadDays: 7 };

describe('what to order of a part', () => {
  it('is nothing where the shelf has enough', () => {
    expect(orderLine([due(3, 10), waiting(1)], STOCK, TODAY)).toMatchObject({ needed: 4, quantity: 0, orderBy: null });
  });

  it('is ordered by the lead time before the first work that the shelf cannot serve', () => {
    const line = orderLine([due(6, 30), due(4, 10)], STOCK, TODAY);
    expect(line).toMatchObject({ needed: 10, quantity: 8, orderBy: addDays(TODAY, 23) });
  });

  it('is ordered today where a job waits, or the lead time is over already', () => {
    expect(orderLine([waiting(5)], STOCK, TODAY).orderBy).toBe(TODAY);
    expect(orderLine([due(5, 3)], STOCK, TODAY).orderBy).toBe(TODAY);
    expect(orderLine([due(5, -40)], STOCK, TODAY).orderBy).toBe(TODAY);
  });

  it('takes nothing for there that nobody counts, and a part without a pack singly', () => {
    expect(orderLine([due(3, 10)], { onHand: null, packSize: null, leadDays: null }, TODAY)).toMatchObject({
      quantity: 3,
      orderBy: addDays(TODAY, 10),
    });
  });

  it('says each reason and order once, the most pressing first', () => {
    const line = orderLine([due(1, 5), waiting(1, 1007), waiting(1, 1007)], STOCK, TODAY);
    expect(line.whys).toEqual(['waits', 'falls_due']);
    expect(line.orders).toEqual([1007]);
  });

  it('covers every need in whole packs, and never with a pack too many', () => {
    const need = fc.record({ quantity: fc.integer({ min: 1, max: 20 }), inDays: fc.integer({ min: -30, max: 90 }) });
    fc.assert(
      fc.property(
        fc.array(need, { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 1, max: 12 }),
        (needs, onHand, packSize) => {
          const line = orderLine(
            needs.map(({ quantity, inDays }) => due(quantity, inDays)),
            { onHand, packSize, leadDays: 3 },
            TODAY,
          );
          expect(line.quantity % packSize).toBe(0);
          expect(onHand + line.quantity).toBeGreaterThanOrEqual(line.needed);
          expect(line.quantity === 0 || onHand + line.quantity - packSize < line.needed).toBe(true);
          expect(line.orderBy === null).toBe(line.quantity === 0);
        },
      ),
    );
  });
});
