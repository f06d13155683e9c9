import { and, desc, eq } from 'drizzle-orm';
import type { EarlierRemoval } from '@/core/procedure/removal';
import type { BreakawayFeel } from '@/core/reading/vocabulary';
import type { Querier } from '@/db/client';
import { workOrderSites, workOrders } from '@/db/schema';

/** The last time the plugs of a vehicle were out by a closed order: the hardest of them speaks for the engine. */
export async function earlierRemoval(q: Querier, vehicleId: string): Promise<EarlierRemoval | null> {
  const [last] = await q
    .select({ id: workOrders.id, on: workOrders.closedOn })
    .from(workOrders)
    .where(and(eq(workOrders.vehicleId, vehicleId), eq(workOrders.component, 'plug'), eq(workOrders.state, 'closed')))
    .orderBy(desc(workOrders.closedOn), desc(workOrders.number))
    .limit(1);
  if (!last?.on) return null;
  const sites = await q
    .select({ feel: workOrderSites.breakawayFeel, compound: workOrderSites.compound })
    .from(workOrderSites)
    .where(eq(workOrderSites.workOrderId, last.id));
  const hardest = ['seized', 'tight', 'normal', 'loose'] as const satisfies readonly BreakawayFeel[];
  return {
    on: last.on,
    feel: hardest.find((feel) => sites.some((site) => site.feel === feel)) ?? null,
    // One dry thread is enough to seize.
    compound: sites.every(({ compound }) => compound !== null) ? (sites[0]?.compound ?? null) : null,
  };
}
