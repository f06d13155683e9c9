import { and, eq } from 'drizzle-orm';
import type { FleetId } from '@/core/shared/kinds';
import type { Tx } from '../client';
import { deliveries } from '../schema';

/** Takes the row until the transaction ends, so that two people deciding on it do so one after the other. */
export async function lockDelivery(tx: Tx, fleetId: FleetId, id: string) {
  const [row] = await tx
    .select()
    .from(deliveries)
    .where(and(eq(deliveries.fleetId, fleetId), eq(deliveries.id, id)))
    .for('update');
  return row ?? null;
}
