import { lt } from 'drizzle-orm';
import type { Querier } from '@/db/client';
import { idempotencyAnswers, session, signInFailures } from '@/db/schema';

const DAY_MS = 86_400_000;
/** A program that sends the same write again does so within this time. */
const ANSWERS_KEPT_MS = 30 * DAY_MS;

/** Lets go of sessions that are over, sign-ins that failed long ago, and answers that nobody asks for again. */
export async function tidy(q: Querier, now: Date): Promise<void> {
  await q.delete(idempotencyAnswers).where(lt(idempotencyAnswers.createdAt, new Date(now.getTime() - ANSWERS_KEPT_MS)));
  await q.delete(signInFailures).where(lt(signInFailures.at, new Date(now.getTime() - DAY_MS)));
  await q.delete(session).where(lt(session.expiresAt, new Date(now.getTime() - DAY_MS)));
}
