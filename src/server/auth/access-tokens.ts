import { randomBytes } from 'node:crypto';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { tokenForm } from '@/contracts/forms/people';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { apiTokens } from '@/db/schema';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { hashToken } from './find-actor';

/** Makes a bearer token. The only time it can be seen is in this answer: its hash is what is kept. */
export const makeToken = useCase({
  permission: 'make access tokens',
  input: tokenForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ token: string }>> {
    const token = `isobar_${randomBytes(24).toString('base64url')}`;
    await deps.db.transaction(async (tx) => {
      const [row] = await tx
        .insert(apiTokens)
        .values({ fleetId: actor.fleetId, personId: actor.personId, name: input.name, tokenSha256: hashToken(token) })
        .returning();
      await writeAudit(tx, actor, {
        action: 'create',
        entity: 'api-token',
        entityId: row?.id ?? '',
        changes: { name: input.name },
      });
    });
    return ok({ token });
  },
});

export const listTokens = useCase({
  permission: 'change own settings',
  async run(deps, actor) {
    const rows = await deps.db
      .select({ id: apiTokens.id, name: apiTokens.name, createdAt: apiTokens.createdAt })
      .from(apiTokens)
      .where(
        and(eq(apiTokens.fleetId, actor.fleetId), eq(apiTokens.personId, actor.personId), isNull(apiTokens.revokedAt)),
      )
      .orderBy(asc(apiTokens.createdAt));
    return ok(rows);
  },
});

export const revokeToken = useCase({
  permission: 'make access tokens',
  input: z.uuid(),
  async run(deps, actor, tokenId): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const done = await tx
        .update(apiTokens)
        .set({ revokedAt: deps.now() })
        .where(and(eq(apiTokens.fleetId, actor.fleetId), eq(apiTokens.id, tokenId), isNull(apiTokens.revokedAt)))
        .returning({ id: apiTokens.id });
      if (done.length === 0) return notFound('access token');
      await writeAudit(tx, actor, { action: 'revoke', entity: 'api-token', entityId: tokenId, changes: {} });
      return ok(null);
    });
  },
});
