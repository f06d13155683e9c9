import { and, desc, eq, lt, sql } from 'drizzle-orm';
import type { BreakawayFeel } from '@/core/inspection/vocabulary';
import type { VehicleId } from '@/core/shared/kinds';
import type { EarlierRemoval } from '@/core/work/procedure/removal';
import type { Querier } from '@/db/client';
import { loadPhotos } from '@/db/queries/work-entries';
import { loadPlugPlaces } from '@/db/queries/work-orders';
import { taskPlaces, workOrders } from '@/db/schema';

/** The order by which the plugs of a vehicle were out the last time, before the one of a number; null: none is on record. */
async function lastClosed(q: Querier, vehicleId: VehicleId, before: number | null) {
  const [last] = await q
    .select({ id: workOrders.id, number: workOrders.number, on: workOrders.closedOn, note: workOrders.note })
    .from(workOrders)
    .where(
      and(
        eq(workOrders.vehicleId, vehicleId),
        sql`exists (select 1 from ${taskPlaces} where ${taskPlaces.workOrderId} = ${workOrders.id}
          and ${taskPlaces.component} = 'plug' and ${taskPlaces.movedToId} is null and ${taskPlaces.leftWhy} is null)`,
        eq(workOrders.state, 'closed'),
        before === null ? undefined : lt(workOrders.number, before),
      ),
    )
    .orderBy(desc(workOrders.closedOn), desc(workOrders.number))
    .limit(1);
  return last?.on ? { ...last, on: last.on } : null;
}

const HARDEST_FIRST: readonly BreakawayFeel[] = ['seized', 'tight', 'normal', 'loose'];

/** How the plugs came out the last time: the hardest of them speaks for the engine. */
export async function earlierRemoval(q: Querier, vehicleId: VehicleId): Promise<EarlierRemoval | null> {
  const last = await lastClosed(q, vehicleId, null);
  if (!last) return null;
  const places = await loadPlugPlaces(q, last.id);
  return {
    on: last.on,
    feel: HARDEST_FIRST.find((feel) => places.some(({ breakawayFeel }) => breakawayFeel === feel)) ?? null,
    // One dry thread is enough to seize.
    compound: places.every(({ compound }) => compound !== null) ? (places[0]?.compound ?? null) : null,
  };
}

/** What was recorded and photographed of the set before this one, to be held beside it. */
export async function previousSet(q: Querier, order: { readonly number: number; readonly vehicleId: VehicleId }) {
  const last = await lastClosed(q, order.vehicleId, order.number);
  return last && { ...last, places: await loadPlugPlaces(q, last.id), photos: await loadPhotos(q, last.id) };
}
