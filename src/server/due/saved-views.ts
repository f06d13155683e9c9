import { and, asc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { saveViewForm } from '@/contracts/forms/due';
import { ok } from '@/core/shared/result';
import { savedViews } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

const MAX_VIEWS = 30;

/** Keeps the due list as it is filtered, sorted and laid out, under a name of one's own; the same name is kept anew. */
export const saveView = useCase({
  permission: 'change own settings',
  input: saveViewForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const saved = await tx.select().from(savedViews).where(eq(savedViews.personId, actor.personId));
      if (saved.length >= MAX_VIEWS && !saved.some((view) => view.name === input.name))
        return fail('conflict', `You have ${MAX_VIEWS} views. Remove one first.`);
      await tx
        .insert(savedViews)
        .values({ fleetId: actor.fleetId, personId: actor.personId, ...input })
        .onConflictDoUpdate({ target: [savedViews.personId, savedViews.name], set: { query: input.query } });
      return ok(null);
    });
  },
});

export const removeView = useCase({
  permission: 'change own settings',
  input: z.object({ viewId: z.uuid() }),
  async run(deps, actor, { viewId }): Promise<Outcome<null>> {
    const removed = await deps.db
      .delete(savedViews)
      .where(and(eq(savedViews.personId, actor.personId), sql`${savedViews.id}::text = ${viewId}`))
      .returning({ id: savedViews.id });
    return removed.length > 0 ? ok(null) : notFound('view');
  },
});

export const listViews = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const rows = await deps.db
      .select()
      .from(savedViews)
      .where(and(eq(savedViews.fleetId, actor.fleetId), eq(savedViews.personId, actor.personId)))
      .orderBy(asc(savedViews.name));
    return ok(rows);
  },
});
