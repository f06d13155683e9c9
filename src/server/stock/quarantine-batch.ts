import { and, eq, sql } from 'drizzle-orm';
import { quarantineForm } from '@/contracts/forms/parts';
import { partKey } from '@/core/catalogue/match';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { lockDelivery } from '@/db/queries/deliveries';
import { deliveries, parts } from '@/db/schema';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** Takes an accepted batch off the shelf again, as far as it still lies there: doubt can come late. */
export const quarantineBatch = useCase({
  permission: 'resolve quarantined parts',
  input: quarantineForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ readonly taken: number }>> {
    return deps.db.transaction(async (tx) => {
      const row = await lockDelivery(tx, actor.fleetId, input.deliveryId);
      if (!row) return notFound('delivery');
      if (row.verdict !== 'accepted') return fail('conflict', 'This delivery is not on the shelf.');
      if (row.version !== input.version) return editedMeanwhile();
      const [part] = await tx
        .select()
        .from(parts)
        .where(and(eq(parts.fleetId, actor.fleetId), eq(parts.numberKey, partKey(row.deliveredNumber))))
        .for('update');
      const taken = Math.min(part?.onHand ?? 0, row.quantity - row.setAside);
      if (part)
        await tx
          .update(parts)
          .set({ onHand: sql`${parts.onHand} - ${taken}`, version: part.version + 1 })
          .where(eq(parts.id, part.id));
      await tx
        .update(deliveries)
        .set({
          verdict: 'quarantined',
          // What is gone from the shelf has been fitted: only the rest can be returned or put back.
          quantity: taken,
          setAside: 0,
          reasons: [
            ...row.reasons,
            { code: 'quarantined_later', message: `Quarantined on ${deps.today()}: ${input.reason}` },
          ],
          version: row.version + 1,
        })
        .where(eq(deliveries.id, row.id));
      await writeAudit(tx, actor, {
        action: 'quarantine',
        entity: 'delivery',
        entityId: row.id,
        changes: { reason: input.reason, taken, of: row.quantity },
      });
      return ok({ taken });
    });
  },
});
