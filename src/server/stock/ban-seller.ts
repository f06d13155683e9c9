import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { violation } from '@/db/constraint-error';
import { writeAudit } from '@/db/queries/audit';
import { bannedSellers, people } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome } from '../failure';

export const banInput = z.object({
  name: z.string().trim().min(1, 'Say who.').max(120),
  reason: z.string().trim().min(3, 'Say why, in a few words.').max(300),
});

/** Nothing is taken from this seller any more: what comes from it is set aside. */
export async function banSeller(deps: Deps, actor: Actor, input: z.output<typeof banInput>): Promise<Outcome<null>> {
  const refused = refusal(actor, 'ban sellers');
  if (refused) return refused;
  try {
    return await deps.db.transaction(async (tx) => {
      const [ban] = await tx
        .insert(bannedSellers)
        .values({ fleetId: actor.fleetId, ...input, bannedBy: actor.personId, bannedOn: deps.today() })
        .returning({ id: bannedSellers.id });
      await writeAudit(tx, {
        fleetId: actor.fleetId,
        personId: actor.personId,
        action: 'ban',
        entity: 'seller',
        entityId: ban?.id ?? '',
        changes: input,
      });
      return ok(null);
    });
  } catch (error) {
    if (violation(error)?.code === 'unique') return fail('conflict', `${input.name} is banned already.`);
    throw error;
  }
}

/** Lifts a ban; it stays in the history. */
export async function liftBan(deps: Deps, actor: Actor, { banId }: { banId: string }): Promise<Outcome<null>> {
  const refused = refusal(actor, 'ban sellers');
  if (refused) return refused;
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
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'lift ban',
      entity: 'seller',
      entityId: banId,
      changes: { name: lifted[0]?.name },
    });
    return ok(null);
  });
}

/** Sellers from whom nothing is taken now. */
export async function listBans(deps: Deps, actor: Actor) {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const rows = await deps.db
    .select({ ban: bannedSellers, who: people.name })
    .from(bannedSellers)
    .leftJoin(people, eq(people.id, bannedSellers.bannedBy))
    .where(and(eq(bannedSellers.fleetId, actor.fleetId), isNull(bannedSellers.liftedOn)))
    .orderBy(desc(bannedSellers.bannedOn));
  return ok(rows);
}
