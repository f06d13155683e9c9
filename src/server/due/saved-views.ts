import { and, asc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { savedViews } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome } from '../failure';

const MOST_VIEWS = 30;

export const viewInput = z.object({
  name: z.string().trim().min(1, 'Give it a name.').max(60),
  query: z.string().max(1000),
});

/** Keeps the due list as it is filtered, sorted and laid out, under a name of one's own; the same name is kept anew. */
export async function saveView(deps: Deps, actor: Actor, input: z.output<typeof viewInput>): Promise<Outcome<null>> {
  const refused = refusal(actor, 'change own settings');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const own = await tx.select().from(savedViews).where(eq(savedViews.personId, actor.personId));
    if (own.length >= MOST_VIEWS && !own.some((view) => view.name === input.name))
      return fail('conflict', `You have ${MOST_VIEWS} views. Remove one first.`);
    await tx
      .insert(savedViews)
      .values({ fleetId: actor.fleetId, personId: actor.personId, ...input })
      .onConflictDoUpdate({ target: [savedViews.personId, savedViews.name], set: { query: input.query } });
    return ok(null);
  });
}

export async function removeView(deps: Deps, actor: Actor, { viewId }: { viewId: string }): Promise<Outcome<null>> {
  const refused = refusal(actor, 'change own settings');
  if (refused) return refused;
  const removed = await deps.db
    .delete(savedViews)
    .where(and(eq(savedViews.personId, actor.personId), sql`${savedViews.id}::text = ${viewId}`))
    .returning({ id: savedViews.id });
  return removed.length > 0 ? ok(null) : notFound('view');
}

export async function listViews(deps: Deps, actor: Actor) {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const rows = await deps.db
    .select()
    .from(savedViews)
    .where(and(eq(savedViews.fleetId, actor.fleetId), eq(savedViews.personId, actor.personId)))
    .orderBy(asc(savedViews.name));
  return ok(rows);
}
