import { and, eq } from 'drizzle-orm';
import { ok } from '@/core/shared/result';
import { idempotencyAnswers } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import type { Outcome } from '../failure';

/**
 * Runs a write once for a key: a repeated key gets the first answer. Without a key it is just run. A refusal is not
 * kept, so that it can be sent again once mended.
 */
export async function once<T>(
  { db }: Deps,
  actor: Actor,
  key: string | null,
  run: () => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  if (key === null) return run();
  const ours = and(eq(idempotencyAnswers.fleetId, actor.fleetId), eq(idempotencyAnswers.key, key));
  const [before] = await db.select().from(idempotencyAnswers).where(ours);
  if (before) return ok(before.answer as T);
  const outcome = await run();
  if (!outcome.ok) return outcome;
  await db
    .insert(idempotencyAnswers)
    .values({ fleetId: actor.fleetId, key, answer: outcome.value })
    .onConflictDoNothing();
  const [first] = await db.select().from(idempotencyAnswers).where(ours);
  return ok((first?.answer ?? outcome.value) as T);
}
