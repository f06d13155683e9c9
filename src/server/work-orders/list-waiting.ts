import type { FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Querier } from '@/db/client';
import { loadWaits } from '@/db/queries/work-entries';
import { listWorkOrderRows } from '@/db/queries/work-orders';
import { useCase } from '../use-case';

/** What stops open orders, each with its order. */
export async function openWaits(q: Querier, fleetId: FleetId) {
  const rows = await listWorkOrderRows(q, fleetId, { open: true });
  const orders = new Map(rows.map((row) => [row.id, row]));
  return (await loadWaits(q, fleetId, { open: true })).flatMap(({ wait, who }) => {
    const order = orders.get(wait.workOrderId);
    return order ? [{ wait, who, order }] : [];
  });
}

/** What open orders wait for. */
export const listWaiting = useCase({
  permission: 'read the fleet',
  run: async ({ db }, { fleetId }) => ok(await openWaits(db, fleetId)),
});
