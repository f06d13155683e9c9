import { desc, eq } from 'drizzle-orm';
import { resolveDeliveryForm } from '@/contracts/forms/parts';
import { partKey } from '@/core/catalogue/match';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { lockDelivery } from '@/db/queries/deliveries';
import { deliveries, parts, people } from '@/db/schema';
import { loadGraph } from '../catalogue/fitment-of';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { putOnShelf } from './check-delivery';

/** Decides what becomes of a delivery in quarantine; with the reason. */
export const resolveDelivery = useCase({
  permission: 'resolve quarantined parts',
  input: resolveDeliveryForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const row = await lockDelivery(tx, actor.fleetId, input.deliveryId);
      if (!row) return notFound('delivery');
      if (row.verdict === 'accepted' || row.resolved)
        return fail('conflict', 'This delivery is no longer in quarantine.');
      if (row.version !== input.version) return editedMeanwhile();
      const delivered = (await loadGraph(tx, actor.fleetId)).byKey.get(partKey(row.deliveredNumber));
      if (input.resolved === 'accepted' && !delivered)
        return fail(
          'conflict',
          `${row.deliveredNumber} is not in the catalogue: enter the part before it goes on the shelf.`,
        );
      await tx
        .update(deliveries)
        .set({
          resolved: input.resolved,
          resolvedReason: input.reason,
          resolvedBy: actor.personId,
          version: row.version + 1,
        })
        .where(eq(deliveries.id, row.id));
      if (input.resolved === 'accepted' && delivered) await putOnShelf(tx, delivered.id, row.quantity - row.setAside);
      await writeAudit(tx, actor, {
        action: 'resolve',
        entity: 'delivery',
        entityId: row.id,
        changes: { resolved: input.resolved, reason: input.reason, despite: row.reasons },
      });
      return ok(null);
    });
  },
});

/** Deliveries, the newest first. */
export const listDeliveries = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const rows = await deps.db
      .select({ delivery: deliveries, number: parts.number, partId: parts.id, who: people.name })
      .from(deliveries)
      .innerJoin(parts, eq(parts.id, deliveries.partId))
      .leftJoin(people, eq(people.id, deliveries.checkedBy))
      .where(eq(deliveries.fleetId, actor.fleetId))
      .orderBy(desc(deliveries.receivedOn), desc(deliveries.createdAt))
      .limit(200);
    return ok(rows);
  },
});
