import { randomBytes } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { addDays } from '@/core/calendar/plain-date';
import { FEED_OF, type FeedOf } from '@/core/planning/absence-of';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { calendarFeeds } from '@/db/schema';
import { hashToken } from '../auth/find-actor';
import type { Deps } from '../deps';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { namesOf } from './absences';
import { planCalendar } from './export-plan';
import { plannedJobs } from './list-plan';

/* Addresses at which a calendar program reads a plan without signing in: whoever has the address may read, so it can be replaced. */

const target = z.object({ of: z.enum(FEED_OF, 'Say whose plan.'), ofId: z.uuid('Choose which one.') });

/** Makes the address of a feed, and ends the one before. It can be seen in this answer alone: its hash is what is kept. */
export const makeFeed = useCase({
  permission: 'plan work orders',
  input: target,
  async run(deps, actor, { of, ofId }): Promise<Outcome<{ secret: string; name: string }>> {
    return deps.db.transaction(async (tx) => {
      const name = (await namesOf(tx, actor.fleetId)).get(`${of} ${ofId}`);
      if (name === undefined) return notFound(of);
      const secret = randomBytes(24).toString('base64url');
      const values = { secretSha256: hashToken(secret), madeBy: actor.personId, createdAt: deps.now() };
      const [row] = await tx
        .insert(calendarFeeds)
        .values({ fleetId: actor.fleetId, of, ofId, ...values })
        .onConflictDoUpdate({ target: [calendarFeeds.fleetId, calendarFeeds.of, calendarFeeds.ofId], set: values })
        .returning({ id: calendarFeeds.id });
      await writeAudit(tx, actor, {
        action: 'create',
        entity: 'calendar-feed',
        entityId: row?.id ?? '',
        changes: { of: `${of} ${name}` },
      });
      return ok({ secret, name });
    });
  },
});

/** Ends the address of a feed. */
export const removeFeed = useCase({
  permission: 'plan work orders',
  input: target,
  async run(deps, actor, { of, ofId }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [gone] = await tx
        .delete(calendarFeeds)
        .where(and(eq(calendarFeeds.fleetId, actor.fleetId), eq(calendarFeeds.of, of), eq(calendarFeeds.ofId, ofId)))
        .returning();
      if (!gone) return notFound('calendar feed');
      await writeAudit(tx, actor, { action: 'remove', entity: 'calendar-feed', entityId: gone.id, changes: { of } });
      return ok(null);
    });
  },
});

/** Depots, bays and people, with when the address of each was made; null: it has none. */
export const listFeeds = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const names = await namesOf(deps.db, actor.fleetId);
    const made = await deps.db.select().from(calendarFeeds).where(eq(calendarFeeds.fleetId, actor.fleetId));
    const madeAt = new Map(made.map(({ of, ofId, createdAt }) => [`${of} ${ofId}`, createdAt]));
    return ok(
      [...names].flatMap(([key, name]) => {
        const [kind, ofId = ''] = key.split(' ');
        const target = FEED_OF.find((known) => known === kind);
        return target ? [{ of: target, ofId, name, madeAt: madeAt.get(key) ?? null }] : [];
      }),
    );
  },
});

/** What a feed tells of the past, and of what is to come. */
const BACK_DAYS = 28;
const AHEAD_DAYS = 180;

/** The calendar behind an address, whoever asks; null: no such address, or it was replaced. */
export async function readFeed(deps: Deps, secret: string): Promise<string | null> {
  const [feed] = await deps.db
    .select()
    .from(calendarFeeds)
    .where(eq(calendarFeeds.secretSha256, hashToken(secret)));
  if (!feed) return null;
  const today = deps.today();
  const all = await plannedJobs(deps.db, feed.fleetId, addDays(today, -BACK_DAYS), addDays(today, AHEAD_DAYS));
  const idOf: Readonly<Record<FeedOf, (job: (typeof all)[number]) => string>> = {
    depot: ({ depotId }) => depotId,
    bay: ({ bayId }) => bayId,
    person: ({ personId }) => personId,
  };
  const name = (await namesOf(deps.db, feed.fleetId)).get(`${feed.of} ${feed.ofId}`) ?? '';
  return planCalendar(
    `Isobar: ${name}`,
    all.filter((job) => idOf[feed.of](job) === feed.ofId),
    deps.now(),
  );
}
