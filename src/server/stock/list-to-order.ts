import { z } from 'zod';
import { addDays } from '@/core/calendar/plain-date';
import { partKey } from '@/core/catalogue/match';
import { layoutOf } from '@/core/engine/layout';
import { quantityOf } from '@/core/engine/quantities';
import { groupBy } from '@/core/shared/group-by';
import type { Day, FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { type OrderLine, orderLine, type PartNeed } from '@/core/stock/to-order';
import { partsAhead } from '@/core/work/procedure/parts-ahead';
import type { Querier } from '@/db/client';
import { loadFamilies, loadParts } from '@/db/queries/catalogue';
import { loadComing } from '@/db/queries/due';
import { loadItemsAhead } from '@/db/queries/work-entries';
import { loadNumbers } from '../catalogue/fitment-of';
import { loadCosts } from '../due/costs';
import { ensureDueStatus } from '../due/ensure-due-status';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';
import { openWaits } from '../work-orders/list-waiting';

/** How far ahead work may fall due and be ordered for, weeks. */
export const ORDER_WEEKS = [2, 4, 8, 13] as const;
export const USUAL_ORDER_WEEKS = 4;

export interface LineToOrder extends OrderLine {
  /** The current number. */
  readonly number: string;
  readonly what: string;
  readonly maker: string | null;
  /** Approved sellers. */
  readonly sources: readonly string[];
  readonly onHand: number | null;
  readonly packSize: number;
  readonly leadDays: number | null;
  /** Of one; null: not known. */
  readonly price: number | null;
}

interface ToOrder {
  /** What is to be ordered first stands first; what the shelf has enough of, last. */
  readonly lines: readonly LineToOrder[];
  readonly currency: string;
}

interface Wanted extends PartNeed {
  readonly number: string;
  readonly what: string | null;
}

/** What stopped jobs wait for, what open orders will want, and what falls due within some weeks, as one list to order. */
export const listToOrder = useCase({
  permission: 'read the fleet',
  input: z.object({ weeks: z.coerce.number().int().min(1).max(52) }),
  async run({ db, today }, { fleetId }, { weeks }): Promise<Outcome<ToOrder>> {
    const day = today();
    await ensureDueStatus(db, fleetId, day);
    const [waits, ahead, coming, stock, costs, graph] = await Promise.all([
      waitingNeeds(db, fleetId),
      aheadNeeds(db, fleetId),
      comingNeeds(db, fleetId, addDays(day, 7 * weeks)),
      loadParts(db, fleetId),
      loadCosts(db, fleetId),
      loadNumbers(db, fleetId),
    ]);
    const currentKey = (number: string): string => {
      const end = graph.current(partKey(number));
      return end.kind === 'current' ? end.part : partKey(number);
    };
    const parts = new Map(stock.map((part) => [part.numberKey, part]));
    const lines = [...groupBy([...waits, ...ahead, ...coming], ({ number }) => currentKey(number))].map(
      ([key, needs]): LineToOrder => {
        const part = parts.get(key);
        const { onHand = null, packSize = null, leadDays = null } = part ?? {};
        return {
          ...orderLine(needs, { onHand, packSize, leadDays }, day),
          number: part?.number ?? needs[0]?.number ?? '',
          what: part?.name ?? needs.find(({ what }) => what)?.what ?? part?.kind.replaceAll('_', ' ') ?? '',
          maker: part?.maker ?? null,
          sources: part?.approvedSources ?? [],
          onHand,
          packSize: packSize ?? 1,
          leadDays,
          price: part?.price ?? null,
        };
      },
    );
    const last = '9999';
    return ok({
      lines: lines.sort(
        (a, b) => (a.orderBy ?? last).localeCompare(b.orderBy ?? last) || a.number.localeCompare(b.number),
      ),
      currency: costs.currency,
    });
  },
});

async function waitingNeeds(q: Querier, fleetId: FleetId): Promise<readonly Wanted[]> {
  return (await openWaits(q, fleetId)).flatMap(({ wait: { partNumber, partWhat, quantity }, order }) =>
    partNumber && quantity
      ? [{ number: partNumber, what: partWhat, quantity, why: 'waits', orders: [order.number], on: null }]
      : [],
  );
}

/** What the open orders will want for the access to their plugs. */
async function aheadNeeds(q: Querier, fleetId: FleetId): Promise<readonly Wanted[]> {
  const rows = await loadItemsAhead(q, fleetId);
  const families = await loadFamilies(q, fleetId, [...new Set(rows.map(({ familyId }) => familyId))]);
  const ahead = partsAhead(
    rows.flatMap(({ order, familyId, item: key, isDefect, isOn }) => {
      const item = families.find(({ id }) => id === familyId)?.accessItems?.find((entry) => entry.key === key);
      return item ? [{ order, item, isDefect, isOn }] : [];
    }),
  );
  return ahead.map((part) => ({ ...part, on: null }));
}

/** What the vehicles want that are likely due by a day. */
async function comingNeeds(q: Querier, fleetId: FleetId, until: Day): Promise<readonly Wanted[]> {
  const rows = (await loadComing(q, fleetId, until)).filter(
    ({ p50, partNumber }) => partNumber !== null && p50 <= until,
  );
  const families = await loadFamilies(q, fleetId, [...new Set(rows.map(({ engineFamilyId }) => engineFamilyId))]);
  const layouts = new Map(families.map(({ id, model }) => [id, layoutOf(model)]));
  return rows.flatMap(({ engineFamilyId, component, partNumber, p50 }): Wanted[] => {
    const layout = layouts.get(engineFamilyId);
    const quantity = layout ? quantityOf(layout, component) : 0;
    if (!partNumber || quantity === 0) return [];
    return [{ number: partNumber, what: null, quantity, why: 'falls_due', orders: [], on: p50 as Day }];
  });
}
