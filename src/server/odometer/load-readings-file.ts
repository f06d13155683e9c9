import { Readable } from 'node:stream';
import { eq } from 'drizzle-orm';
import type { PoolClient } from 'pg';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { onOneConnection } from '@/db/client';
import { violation } from '@/db/constraint-error';
import { lockOne } from '@/db/locks';
import { writeAudit } from '@/db/queries/audit';
import { dueInputMarks } from '@/db/queries/due-inputs';
import { readingLoads } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { refreshOdometers, saveOdometers } from '../due/refresh-due';
import { fail, type Outcome } from '../failure';
import { log } from '../log';
import { useCase } from '../use-case';
import { judgeAndCopy } from './judge-and-copy';
import { Fault, stageFile } from './stage-file';

/* Large files of readings: streamed into a staging table by COPY, checked in sets, judged by the core and written by COPY.
   All that is kept is written in one transaction: whatever stops it, nothing is half-written. */

/** A file of this kind may be so large, bytes. */
export const MAX_LOAD_BYTES = 4 * 1024 ** 3;
/** So often it is tried again where somebody records one of the same readings meanwhile. */
const ATTEMPTS = 3;

class Stopped extends Error {}

interface LoadResult {
  readonly loadId: string;
  readonly added: number;
  readonly suspect: number;
  readonly known: number;
  readonly refused: number;
}

/** Loads a CSV of readings as a stream. @param file its bytes, UTF-8, with a head line that names its columns */
export const loadReadingsFile = useCase({
  permission: 'import data',
  input: z.object({ fileName: z.string(), file: z.instanceof(Readable) }),
  async run(deps, actor, { fileName, file }): Promise<Outcome<LoadResult>> {
    const [load] = await deps.db
      .insert(readingLoads)
      .values({
        fleetId: actor.fleetId,
        fileName: fileName.slice(0, 200),
        startedBy: actor.personId,
        startedAt: deps.now(),
        state: 'running',
        step: 'reading the file',
      })
      .returning({ id: readingLoads.id });
    if (!load) throw new Error('the load was not written');
    const watch = new Watch(deps, load.id);
    try {
      const counts = await onOneConnection(deps.db, async (tx, staging) => {
        await lockOne(tx, 'load', load.id);
        const lines = await stageFile(staging, file, deps.today(), (rowsRead) =>
          watch.now('reading the file', { rowsRead }),
        );
        await watch.step('putting in order', { rowsRead: lines });
        return writing(deps, actor, watch, staging, { loadId: load.id, fileName });
      });
      return ok({ loadId: load.id, ...counts });
    } catch (error) {
      const cancelled = error instanceof Stopped;
      const message = cancelled ? 'Cancelled: nothing was written.' : `Nothing was written. ${wordsOf(error)}`;
      await watch.end({ state: cancelled ? 'cancelled' : 'failed', step: 'stopped', message });
      file.destroy();
      return fail(cancelled ? 'conflict' : 'invalid', message);
    }
  },
});

type Counts = Omit<LoadResult, 'loadId'>;

/** All that is kept, in one transaction. */
async function writing(
  deps: Deps,
  actor: Actor,
  watch: Watch,
  staging: PoolClient,
  { loadId, fileName }: { loadId: string; fileName: string },
): Promise<Counts> {
  const { fleetId, personId } = actor;
  for (let attempt = 1; ; attempt++) {
    try {
      return await onOneConnection(deps.db, async (tx, client) => {
        const before = await dueInputMarks(tx, fleetId, null);
        const merged = await judgeAndCopy(staging, client, actor, deps.today(), (rowsJudged) =>
          watch.now('judging and writing', { rowsJudged }),
        );
        const { odometers, refusals, ...counts } = merged;
        await watch.step('working out what is due');
        const ids = odometers.map(({ vehicleId }) => vehicleId);
        const now = await dueInputMarks(tx, fleetId, ids);
        const others = ids.filter((id) => now.get(id) !== before.get(id));
        const touched = new Set(others);
        await saveOdometers(
          tx,
          fleetId,
          deps.today(),
          odometers.filter(({ vehicleId }) => !touched.has(vehicleId)),
        );
        // Somebody recorded something of these while the file was written: their odometers are worked out from what is there.
        await refreshOdometers(tx, fleetId, deps.today(), others);
        await watch.step('finishing');
        await writeAudit(
          tx,
          { fleetId, personId },
          { action: 'import', entity: 'reading-load', entityId: loadId, changes: { fileName, ...counts } },
        );
        // In the same transaction: a load is done when its rows are there.
        await tx
          .update(readingLoads)
          .set({ state: 'done', step: 'done', ...counts, refusals: [...refusals], endedAt: deps.now() })
          .where(eq(readingLoads.id, loadId));
        return counts;
      });
    } catch (error) {
      if (
        attempt === ATTEMPTS ||
        violation(error)?.constraint !== 'odometer_readings_vehicle_id_read_on_odometer_km_pk'
      )
        throw error;
    }
  }
}

/** Tells how far a load has come, on a connection of its own, and hears whether it is to stop. */
class Watch {
  private at = 0;

  constructor(
    private readonly deps: Deps,
    private readonly id: string,
  ) {}

  /** @throws Stopped when somebody asked for it */
  async step(step: string, counts: { rowsRead?: number; rowsJudged?: number } = {}): Promise<void> {
    const [row] = await this.deps.db
      .update(readingLoads)
      .set({ step, ...counts })
      .where(eq(readingLoads.id, this.id))
      .returning({ cancelAsked: readingLoads.cancelAsked });
    if (row?.cancelAsked) throw new Stopped();
  }

  /** The same at most twice a second. */
  async now(step: string, counts: { rowsRead?: number; rowsJudged?: number }): Promise<void> {
    if (Date.now() - this.at < 500) return;
    this.at = Date.now();
    await this.step(step, counts);
  }

  async end(values: Partial<typeof readingLoads.$inferInsert>): Promise<void> {
    await this.deps.db
      .update(readingLoads)
      .set({ ...values, endedAt: this.deps.now() })
      .where(eq(readingLoads.id, this.id));
  }
}

/** What went wrong, without what only a programmer could read. */
function wordsOf(error: unknown): string {
  if (error instanceof Fault) return error.message;
  const { code, where } = error as { code?: string; where?: string };
  const line = /line (\d+)/.exec(where ?? '')?.[1];
  if (code === '22P04')
    return `Line ${line ? Number(line) + 1 : '?'} has more or fewer cells than the head line, or a quote that is never closed.`;
  if (code === '22021') return 'The file is not in UTF-8. Save it as CSV UTF-8.';
  log.error({ err: error }, 'a load failed');
  return 'The file could not be read to its end. Send it again; if it stays so, see the server log.';
}
