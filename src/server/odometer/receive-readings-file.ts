import { createReadStream, createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as setTimer } from 'node:timers';
import { setTimeout } from 'node:timers/promises';
import { and, eq, gt } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { onOneConnection } from '@/db/client';
import { lockOne } from '@/db/locks';
import { keepFile } from '@/db/queries/reading-loads';
import { readingLoads } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome } from '../failure';
import { log } from '../log';
import { useCase } from '../use-case';
import { CANCELLED, IDLE_MS, LoadProgress, Stopped } from './load-progress';

/* A large file of readings is taken in whole and left to a worker, which loads it whatever becomes of the one who sent it. */

/** A file of this kind may be so large, bytes. */
export const MAX_LOAD_BYTES = 4 * 1024 ** 3;

/** Files of one person that may arrive at the same time. */
const MAX_ARRIVING = 2;

/**
 * Takes in a CSV of readings as a stream: first to a file of this machine, so that a sender who stalls holds nothing that others
 * need, then to the database in one go. @param file its bytes, with a head line that names its columns
 */
export const receiveReadingsFile = useCase({
  permission: 'import data',
  input: z.object({
    fileName: z.string(),
    file: z.instanceof(Readable),
    /** So long the next bytes are waited for, ms. */
    idleMs: z.number().default(IDLE_MS),
  }),
  async run(deps, actor, { fileName, file, idleMs }): Promise<Outcome<{ readonly loadId: string }>> {
    const load = await begun(deps, actor, fileName);
    if (!load.ok) {
      file.destroy();
      return load;
    }
    const { id } = load.value;
    const progress = new LoadProgress(deps, id);
    const spool = path.join(os.tmpdir(), `isobar-load-${id}`);
    try {
      await pipeline(unlessIdle(told(file, progress, deps), idleMs), createWriteStream(spool, { mode: 0o600 }));
      await onOneConnection(deps.db, async (tx) => {
        // While it is held the one who takes it in lives.
        await lockOne(tx, 'load', id);
        await keepFile(tx, id, createReadStream(spool), () => progress.now({ step: 'saving the file' }));
        await progress.tell({ step: 'saving the file' });
        await tx
          .update(readingLoads)
          .set({ state: 'queued', step: 'waiting for a worker' })
          .where(eq(readingLoads.id, id));
        await deps.jobs.send(tx, 'load-readings', { fleetId: actor.fleetId, loadId: id });
      });
      return ok({ loadId: id });
    } catch (error) {
      file.destroy();
      const stopped = error instanceof Stopped;
      if (!stopped) log.error({ err: error }, 'a file did not arrive');
      const message = stopped ? CANCELLED : whyNot(error, idleMs);
      await progress.end(stopped ? 'cancelled' : 'failed', message);
      return fail(stopped ? 'conflict' : 'invalid', message);
    } finally {
      await rm(spool, { force: true });
    }
  },
});

/** The load of a file that begins to arrive; a person has only so many at a time. */
async function begun(deps: Deps, { fleetId, personId }: Actor, fileName: string): Promise<Outcome<{ id: string }>> {
  return deps.db.transaction(async (tx): Promise<Outcome<{ id: string }>> => {
    await lockOne(tx, 'sender', personId);
    const since = new Date(deps.now().getTime() - IDLE_MS);
    const arriving = await tx
      .select({ id: readingLoads.id })
      .from(readingLoads)
      .where(
        and(eq(readingLoads.startedBy, personId), eq(readingLoads.state, 'receiving'), gt(readingLoads.heardAt, since)),
      );
    if (arriving.length >= MAX_ARRIVING)
      return fail(
        'conflict',
        `${MAX_ARRIVING} files of yours are arriving already. Send this one when they have come.`,
      );
    const [load] = await tx
      .insert(readingLoads)
      .values({
        fleetId,
        fileName: fileName.slice(0, 200),
        startedBy: personId,
        startedAt: deps.now(),
        heardAt: deps.now(),
        state: 'receiving',
        step: 'receiving the file',
      })
      .returning({ id: readingLoads.id });
    if (!load) throw new Error('the load was not written');
    return ok(load);
  });
}

/** The next bytes did not come. */
class Idle extends Error {}

const whyNot = (error: unknown, idleMs: number): string =>
  error instanceof Idle
    ? `Nothing was written. Nothing came for ${Math.round(idleMs / 1000)} seconds: send the file again.`
    : 'Nothing was written. The file did not arrive whole: send it again.';

/** The same bytes, told as they come. */
async function* told(file: AsyncIterable<Uint8Array>, progress: LoadProgress, deps: Deps): AsyncGenerator<Uint8Array> {
  let bytes = 0;
  for await (const piece of file) {
    bytes += piece.length;
    await progress.now({
      step: `receiving the file, ${Math.round(bytes / 1024 ** 2)} MiB so far`,
      heardAt: deps.now(),
    });
    yield piece;
  }
  await progress.tell({ step: 'receiving the file', heardAt: deps.now() });
}

/** The same bytes as long as they keep coming. @throws Idle when the next ones take too long */
async function* unlessIdle(file: AsyncGenerator<Uint8Array>, idleMs: number): AsyncGenerator<Uint8Array> {
  for (;;) {
    let timer: NodeJS.Timeout | undefined;
    const idle = new Promise<never>((_, reject) => {
      timer = setTimer(() => reject(new Idle('no bytes')), idleMs);
    });
    const next = await Promise.race([file.next(), idle]).finally(() => clearTimeout(timer));
    if (next.done) return;
    yield next.value;
  }
}

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
