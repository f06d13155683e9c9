import { and, desc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { lockKey } from '@/db/locks';
import { people, readingLoads } from '@/db/schema';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** Loads of this fleet, the latest first. One whose process is gone is told as stopped. */
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
          load.state === 'running' && !running && !justBegun(load.startedAt, deps.now())
            ? ('stopped' as const)
            : load.state,
      })),
    );
  },
});

/** Between its first word and its lock a load is not stopped. */
const justBegun = (startedAt: Date, now: Date): boolean => now.getTime() - startedAt.getTime() < 5000;

/** Asks a running load to stop: it ends at its next step and writes nothing. */
export const cancelLoad = useCase({
  permission: 'import data',
  input: z.object({ loadId: z.uuid() }),
  async run(deps, actor, { loadId }): Promise<Outcome<null>> {
    const asked = await deps.db
      .update(readingLoads)
      .set({ cancelAsked: true })
      .where(
        and(
          eq(readingLoads.fleetId, actor.fleetId),
          sql`${readingLoads.id}::text = ${loadId}`,
          eq(readingLoads.state, 'running'),
        ),
      )
      .returning({ id: readingLoads.id });
    return asked.length > 0 ? ok(null) : notFound('running load');
  },
});
