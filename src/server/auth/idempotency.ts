import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { ok } from '@/core/shared/result';
import { idempotencyAnswers } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { fail, type Outcome, orRefused, Refused } from '../failure';

/** A write as another program sent it. */
interface SentWrite {
  /** Null: none was sent, and the write is just done. */
  readonly key: string | null;
  /** Method and path. */
  readonly endpoint: string;
  readonly body: string;
}

/**
 * Does a write once for a key of a person at an endpoint: the key goes in first, in the write's own transaction, so that
 * the same key sent at the same time waits, and gets the first answer. A refusal undoes the key too: it can be sent again
 * once mended. Another body under a known key is refused.
 */
export async function once<T>(
  deps: Deps,
  actor: Actor,
  { key, endpoint, body }: SentWrite,
  run: (deps: Deps) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  if (key === null) return run(deps);
  const bodySha256 = createHash('sha256').update(body).digest('hex');
  const ours = and(
    eq(idempotencyAnswers.personId, actor.personId),
    eq(idempotencyAnswers.endpoint, endpoint),
    eq(idempotencyAnswers.key, key),
  );
  return orRefused(() =>
    deps.db.transaction(async (tx) => {
      const added = await tx
        .insert(idempotencyAnswers)
        .values({ fleetId: actor.fleetId, personId: actor.personId, endpoint, key, bodySha256, answer: null })
        .onConflictDoNothing()
        .returning({ id: idempotencyAnswers.id });
      if (added.length === 0) {
        const [first] = await tx.select().from(idempotencyAnswers).where(ours);
        if (first?.bodySha256 !== bodySha256)
          return fail(
            'invalid',
            'This Idempotency-Key was sent with another body before. Send a new key with a new write.',
          );
        return ok(first.answer as T);
      }
      const outcome = await run({ ...deps, db: tx });
      if (!outcome.ok) throw new Refused(outcome.error);
      await tx.update(idempotencyAnswers).set({ answer: outcome.value }).where(ours);
      return outcome;
    }),
  );
}
