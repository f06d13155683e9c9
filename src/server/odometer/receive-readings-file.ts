import { Readable } from 'node:stream';
import { setTimeout } from 'node:timers/promises';
import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { onOneConnection } from '@/db/client';
import { lockOne } from '@/db/locks';
import { keepFile } from '@/db/queries/reading-loads';
import { readingLoads } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { log } from '../log';
import { useCase } from '../use-case';
import { CANCELLED, LoadProgress, Stopped } from './load-progress';

/* A large file of readings is taken in whole and left to a worker, which loads it whatever becomes of the one who sent it. */

/** A file of this kind may be so large, bytes. */
export const MAX_LOAD_BYTES = 4 * 1024 ** 3;

/** Takes in a CSV of readings as a stream. @param file its bytes, with a head line that names its columns */
export const receiveReadingsFile = useCase({
  permission: 'import data',
  input: z.object({ fileName: z.string(), file: z.instanceof(Readable) }),
  async run(deps, { fleetId, personId }, { fileName, file }): Promise<Outcome<{ readonly loadId: string }>> {
    const [load] = await deps.db
      .insert(readingLoads)
      .values({
        fleetId,
        fileName: fileName.slice(0, 200),
        startedBy: personId,
        startedAt: deps.now(),
        state: 'receiving',
        step: 'receiving the file',
      })
      .returning({ id: readingLoads.id });
    if (!load) throw new Error('the load was not written');
    const progress = new LoadProgress(deps, load.id);
    try {
      await onOneConnection(deps.db, async (tx) => {
        // While it is held the one who takes it in lives.
        await lockOne(tx, 'load', load.id);
        await keepFile(tx, load.id, file, (bytes) =>
          progress.now({ step: `receiving the file, ${Math.round(bytes / 1024 ** 2)} MiB so far` }),
        );
        await progress.tell({ step: 'receiving the file' });
        await tx
          .update(readingLoads)
          .set({ state: 'queued', step: 'waiting for a worker' })
          .where(eq(readingLoads.id, load.id));
        await deps.jobs.send(tx, 'load-readings', { fleetId, loadId: load.id });
      });
      return ok({ loadId: load.id });
    } catch (error) {
      file.destroy();
      const stopped = error instanceof Stopped;
      if (!stopped) log.error({ err: error }, 'a file did not arrive');
      const message = stopped ? CANCELLED : 'Nothing was written. The file did not arrive whole: send it again.';
      await progress.end(stopped ? 'cancelled' : 'failed', message);
      return fail(stopped ? 'conflict' : 'invalid', message);
    }
  },
});

/** So long somebody may wait for the sums of a load. */
const WAIT_MS = 10 * 60_000;
const LOOK_EVERY_MS = 250;

interface LoadSums {
  readonly added: number;
  readonly suspect: number;
  readonly known: number;
  readonly refused: number;
}

/** Waits until a load has ended, and gives its sums; null: it has not after ten minutes. */
export const awaitLoad = useCase({
  permission: 'import data',
  input: z.object({ loadId: z.uuid() }),
  async run(deps, { fleetId }, { loadId }): Promise<Outcome<LoadSums | null>> {
    for (let waited = 0; waited < WAIT_MS; waited += LOOK_EVERY_MS) {
      const [load] = await deps.db
        .select()
        .from(readingLoads)
        .where(and(eq(readingLoads.fleetId, fleetId), eq(readingLoads.id, loadId)));
      if (!load) return notFound('load');
      const { state, message, added, suspect, known, refused } = load;
      if (state === 'done')
        return ok({ added: added ?? 0, suspect: suspect ?? 0, known: known ?? 0, refused: refused ?? 0 });
      if (state === 'cancelled' || state === 'failed')
        return fail(state === 'failed' ? 'invalid' : 'conflict', message ?? 'Nothing was written.');
      await setTimeout(LOOK_EVERY_MS);
    }
    return ok(null);
  },
});
