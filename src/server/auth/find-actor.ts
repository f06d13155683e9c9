import { createHash } from 'node:crypto';
import { and, eq, isNull } from 'drizzle-orm';
import { apiTokens, people } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { auth } from './sign-in';

export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex');

/** The person behind a request: its bearer token, else its session cookie. Null: nobody we know, or no longer active. */
export async function findActor({ db }: Deps, headers: Headers): Promise<Actor | null> {
  const bearer = /^Bearer\s+(\S+)$/i.exec(headers.get('authorization') ?? '')?.[1];
  if (bearer) return actorOfToken(db, bearer);
  const session = await auth(db).api.getSession({ headers });
  return session ? actorWhere(db, eq(people.userId, session.user.id)) : null;
}

async function actorOfToken(db: Deps['db'], token: string): Promise<Actor | null> {
  const [row] = await db
    .select({ personId: apiTokens.personId })
    .from(apiTokens)
    .where(and(eq(apiTokens.tokenSha256, hashToken(token)), isNull(apiTokens.revokedAt)));
  return row ? actorWhere(db, eq(people.id, row.personId)) : null;
}

async function actorWhere(db: Deps['db'], condition: ReturnType<typeof eq>): Promise<Actor | null> {
  const [person] = await db
    .select({
      personId: people.id,
      fleetId: people.fleetId,
      name: people.name,
      role: people.role,
      unitSystem: people.unitSystem,
    })
    .from(people)
    .where(and(condition, eq(people.active, true)));
  return person ?? null;
}
