import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { banForm } from '@/contracts/forms/parts';
import { ok } from '@/core/shared/result';
import { violation } from '@/db/constraint-error';
import { writeAudit } from '@/db/queries/audit';
import { bannedSellers, people } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** Nothing is taken from this seller any more: what comes from it is set aside. */
export const banSeller = useCase({
  permission: 'ban sellers',
  input: banForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    try {
      return await deps.db.transaction(async (tx) => {
        const [ban] = await tx
          .insert(bannedSellers)
          .values({ fleetId: actor.fleetId, ...input, bannedBy: actor.personId, bannedOn: deps.today() })
          .returning({ id: bannedSellers.id });
        await writeAudit(tx, actor, { action: 'ban', entity: 'seller', entityId: ban?.id ?? '', changes: input });
        return ok(null);
      });
    } catch (error) {
      if (violation(error)?.code === 'unique') return fail('conflict', `${input.name} is banned already.`);
      throw error;
    }
  },
});

/** Lifts a ban; it stays in the history. */
export const liftBan = useCase({
  permission: 'ban sellers',
  input: z.object({ banId: z.uuid() }),
  async run(deps, actor, { banId }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const lifted = await tx
        .update(bannedSellers)
        .set({ liftedOn: deps.today() })
        .where(
          and(
            eq(bannedSellers.fleetId, actor.fleetId),
            sql`${bannedSellers.id}::text = ${banId}`,
            isNull(bannedSellers.liftedOn),
          ),
        )
        .returning({ name: bannedSellers.name });
      if (lifted.length === 0) return notFound('ban');
      await writeAudit(tx, actor, {
        action: 'lift ban',
        entity: 'seller',
        entityId: banId,
        changes: { name: lifted[0]?.name },
      });
      return ok(null);
    });
  },
});

/** Sellers from whom nothing is taken now. */
export const listBans = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const rows = await deps.db
      .select({ ban: bannedSellers, who: people.name })
      .from(bannedSellers)
      .leftJoin(people, eq(people.id, bannedSellers.bannedBy))
      .where(and(eq(bannedSellers.fleetId, actor.fleetId), isNull(bannedSellers.liftedOn)))
      .orderBy(desc(bannedSellers.bannedOn));
    return ok(rows);
  },
});
