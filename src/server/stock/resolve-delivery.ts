import { desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { partKey } from '@/core/catalogue/match';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { lockDelivery } from '@/db/queries/deliveries';
import { deliveries, parts, people } from '@/db/schema';
import { type Actor, refusal } from '../access';
import { loadGraph } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import { putOnShelf } from './check-delivery';

export const settleInput = z.object({
  deliveryId: z.uuid(),
  version: z.number().int(),
  settled: z.enum(['accepted', 'returned']),
  reason: z.string().trim().min(3, 'Say why, in a few words.').max(300),
});

/** Decides what becomes of a delivery that was held; with the reason. */
export async function settleDelivery(
  deps: Deps,
  actor: Actor,
  input: z.output<typeof settleInput>,
): Promise<Outcome<null>> {
  const refused = refusal(actor, 'settle held parts');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const row = await lockDelivery(tx, actor.fleetId, input.deliveryId);
    if (!row) return notFound('delivery');
    if (row.verdict === 'accepted' || row.settled) return fail('conflict', 'This delivery is not held any more.');
    if (row.version !== input.version) return editedMeanwhile();
    const delivered = (await loadGraph(tx, actor.fleetId)).byKey.get(partKey(row.deliveredNumber));
    if (input.settled === 'accepted' && !delivered)
      return fail(
        'conflict',
        `${row.deliveredNumber} is not in the catalogue: enter the part before it goes on the shelf.`,
      );
    await tx
      .update(deliveries)
      .set({ settled: input.settled, settledReason: input.reason, settledBy: actor.personId, version: row.version + 1 })
      .where(eq(deliveries.id, row.id));
    if (input.settled === 'accepted' && delivered) await putOnShelf(tx, delivered.id, row.quantity);
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'settle',
      entity: 'delivery',
      entityId: row.id,
      changes: { settled: input.settled, reason: input.reason, despite: row.reasons },
    });
    return ok(null);
  });
}

/** Deliveries, the newest first. */
export async function listDeliveries(deps: Deps, actor: Actor) {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const rows = await deps.db
    .select({ delivery: deliveries, number: parts.number, partId: parts.id, who: people.name })
    .from(deliveries)
    .innerJoin(parts, eq(parts.id, deliveries.partId))
    .leftJoin(people, eq(people.id, deliveries.checkedBy))
    .where(eq(deliveries.fleetId, actor.fleetId))
    .orderBy(desc(deliveries.receivedOn), desc(deliveries.createdAt))
    .limit(200);
  return ok(rows);
}
