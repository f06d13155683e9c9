import { inArray } from 'drizzle-orm';
import { partKey } from '@/core/catalogue/match';
import type { FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { type PartAhead, partsAhead } from '@/core/work/procedure/parts-ahead';
import type { Querier } from '@/db/client';
import { loadFamilies } from '@/db/queries/catalogue';
import { loadItemsAhead, loadWaits } from '@/db/queries/work-entries';
import { listWorkOrderRows } from '@/db/queries/work-orders';
import { parts } from '@/db/schema';
import { loadNumbers } from '../catalogue/fitment-of';
import { useCase } from '../use-case';

type Why = 'waits' | PartAhead['why'];

interface Need {
  readonly asked: string;
  readonly what: string | null;
  readonly quantity: number;
  readonly orders: readonly number[];
  readonly whys: readonly Why[];
}

/** What the open orders will want for the way to their plugs. */
async function aheadOf(q: Querier, fleetId: FleetId): Promise<readonly PartAhead[]> {
  const rows = await loadItemsAhead(q, fleetId);
  const families = await loadFamilies(q, fleetId, [...new Set(rows.map(({ familyId }) => familyId))]);
  return partsAhead(
    rows.flatMap(({ order, familyId, item: key, isDefect, isOn }) => {
      const item = families.find(({ id }) => id === familyId)?.accessItems?.find((one) => one.key === key);
      return item ? [{ order, item, isDefect, isOn }] : [];
    }),
  );
}

/** What open orders wait for, and the order of parts that follows from it: current numbers, less what lies here, in packs. */
export const listWaiting = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const orders = new Map(
      (await listWorkOrderRows(deps.db, actor.fleetId, { open: true })).map((row) => [row.id, row]),
    );
    const waits = (await loadWaits(deps.db, actor.fleetId, { open: true })).flatMap(({ wait, who }) => {
      const order = orders.get(wait.workOrderId);
      return order ? [{ wait, who, order }] : [];
    });
    const graph = await loadNumbers(deps.db, actor.fleetId);
    const currentKey = (number: string): string => {
      const end = graph.current(partKey(number));
      return end.kind === 'current' ? end.part : partKey(number);
    };
    const needed = new Map<string, Need>();
    const need = (number: string, more: Omit<Need, 'asked' | 'whys'> & { readonly why: Why }): void => {
      const key = currentKey(number);
      const line = needed.get(key) ?? { asked: number, what: more.what, quantity: 0, orders: [], whys: [] };
      needed.set(key, {
        ...line,
        quantity: line.quantity + more.quantity,
        orders: [...new Set([...line.orders, ...more.orders])],
        whys: [...new Set([...line.whys, more.why])],
      });
    };
    for (const { wait, order } of waits)
      if (wait.partNumber && wait.quantity)
        need(wait.partNumber, {
          what: wait.partWhat,
          quantity: wait.quantity,
          orders: [order.number],
          why: 'waits',
        });
    for (const part of await aheadOf(deps.db, actor.fleetId)) need(part.number, part);
    const known = await deps.db
      .select()
      .from(parts)
      .where(inArray(parts.numberKey, needed.size > 0 ? [...needed.keys()] : ['']));
    const byKey = new Map(known.filter((part) => part.fleetId === actor.fleetId).map((part) => [part.numberKey, part]));
    const draft = [...needed].map(([key, line]) => {
      const part = byKey.get(key);
      const short = Math.max(0, line.quantity - (part?.onHand ?? 0));
      const pack = part?.packSize ?? 1;
      return {
        number: part?.number ?? line.asked,
        what: part?.name ?? line.what ?? part?.kind ?? '',
        maker: part?.maker ?? null,
        needed: line.quantity,
        onHand: part?.onHand ?? null,
        order: Math.ceil(short / pack) * pack,
        pack,
        leadDays: part?.leadDays ?? null,
        orders: line.orders,
        whys: line.whys,
      };
    });
    return ok({ waits, draft });
  },
});
