import { inArray } from 'drizzle-orm';
import { partKey } from '@/core/catalogue/match';
import { ok } from '@/core/shared/result';
import { loadWaits } from '@/db/queries/work-entries';
import { listWorkOrderRows } from '@/db/queries/work-orders';
import { parts } from '@/db/schema';
import { loadNumbers } from '../catalogue/fitment-of';
import { useCase } from '../use-case';

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
    const needed = new Map<string, { asked: string; what: string | null; quantity: number; orders: number[] }>();
    for (const { wait, order } of waits) {
      if (!wait.partNumber || !wait.quantity) continue;
      const key = currentKey(wait.partNumber);
      const line = needed.get(key) ?? { asked: wait.partNumber, what: wait.partWhat, quantity: 0, orders: [] };
      needed.set(key, { ...line, quantity: line.quantity + wait.quantity, orders: [...line.orders, order.number] });
    }
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
      };
    });
    return ok({ waits, draft });
  },
});
