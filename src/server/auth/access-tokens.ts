import { randomBytes } from 'node:crypto';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { apiTokens } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { notFound, type Outcome } from '../failure';
import { hashToken } from './find-actor';

export const tokenInput = z.object({ name: z.string().trim().min(1, 'Say what it is for.').max(80) });

/** Makes a bearer token. The only time it can be seen is in this answer: its hash is what is kept. */
export async function makeToken(
  deps: Deps,
  actor: Actor,
  input: z.output<typeof tokenInput>,
): Promise<Outcome<{ token: string }>> {
  const refused = refusal(actor, 'make access tokens');
  if (refused) return refused;
  const token = `isobar_${randomBytes(24).toString('base64url')}`;
  await deps.db.transaction(async (tx) => {
    const [row] = await tx
      .insert(apiTokens)
      .values({ fleetId: actor.fleetId, personId: actor.personId, name: input.name, tokenSha256: hashToken(token) })
      .returning();
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'create',
      entity: 'api-token',
      entityId: row?.id ?? '',
      changes: { name: input.name },
    });
  });
  return ok({ token });
}

export async function listTokens(deps: Deps, actor: Actor) {
  const refused = refusal(actor, 'change own settings');
  if (refused) return refused;
  const rows = await deps.db
    .select({ id: apiTokens.id, name: apiTokens.name, createdAt: apiTokens.createdAt })
    .from(apiTokens)
    .where(
      and(eq(apiTokens.fleetId, actor.fleetId), eq(apiTokens.personId, actor.personId), isNull(apiTokens.revokedAt)),
    )
    .orderBy(asc(apiTokens.createdAt));
  return ok(rows);
}

export async function revokeToken(deps: Deps, actor: Actor, tokenId: string): Promise<Outcome<null>> {
  const refused = refusal(actor, 'make access tokens');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const done = await tx
      .update(apiTokens)
      .set({ revokedAt: deps.now() })
      .where(and(eq(apiTokens.fleetId, actor.fleetId), eq(apiTokens.id, tokenId), isNull(apiTokens.revokedAt)))
      .returning({ id: apiTokens.id });
    if (done.length === 0) return notFound('access token');
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'revoke',
      entity: 'api-token',
      entityId: tokenId,
      changes: {},
    });
    return ok(null);
  });
}
