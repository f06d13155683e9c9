import { and, desc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { lockKey } from '@/db/locks';
import { endLoad, isOpenLoad } from '@/db/queries/reading-loads';
import { people, readingLoads } from '@/db/schema';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { CANCELLED, IDLE_MS } from './load-progress';

/** Loads of this fleet, the latest first. One whose file no longer arrives is told as stopped. */
export const listLoads = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const alive = sql<boolean>`not pg_try_advisory_xact_lock(${lockKey('load', sql`${readingLoads.id}`)})`;
    const rows = await deps.db
      .select({ load: readingLoads, who: people.name, alive })
      .from(readingLoads)
      .leftJoin(people, eq(people.id, readingLoads.startedBy))
      .where(eq(readingLoads.fleetId, actor.fleetId))
      .orderBy(desc(readingLoads.startedAt))
      .limit(20);
    return ok(
      rows.map(({ load, who, alive: running }) => ({
        ...load,
        who,
        state:
          load.state === 'receiving' && !running && !isArriving(load, deps.now()) ? ('stopped' as const) : load.state,
      })),
    );
  },
});

/** Something of its file came lately: longer nobody waits for the next bytes. */
const isArriving = ({ startedAt, heardAt }: typeof readingLoads.$inferSelect, now: Date): boolean =>
  now.getTime() - (heardAt ?? startedAt).getTime() < IDLE_MS + 5000;

/** Asks a load to stop: it ends at its next step, or at once where no worker has begun it, and writes nothing. */
export const cancelLoad = useCase({
  permission: 'import data',
  input: z.object({ loadId: z.uuid() }),
  async run(deps, actor, { loadId }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [asked] = await tx
        .update(readingLoads)
        .set({ cancelAsked: true })
        .where(and(eq(readingLoads.fleetId, actor.fleetId), eq(readingLoads.id, loadId), isOpenLoad))
        .returning();
      if (!asked) return notFound('running load');
      if (asked.state === 'queued')
        await endLoad(tx, loadId, { state: 'cancelled', message: CANCELLED, endedAt: deps.now() });
      return ok(null);
    });
  },
});
