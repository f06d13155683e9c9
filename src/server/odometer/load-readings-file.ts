import { Readable } from 'node:stream';
import { and, eq } from 'drizzle-orm';
import type { PoolClient } from 'pg';
import type { FleetId } from '@/core/shared/kinds';
import { onOneConnection } from '@/db/client';
import { violation } from '@/db/constraint-error';
import { lockOne } from '@/db/locks';
import { type Author, writeAudit } from '@/db/queries/audit';
import { dueInputMarks } from '@/db/queries/due-inputs';
import { loadMeters } from '@/db/queries/odometer';
import { dropFile, keptFile } from '@/db/queries/reading-loads';
import { readingLoads } from '@/db/schema';
import type { Deps } from '../deps';
import { refreshOdometers, saveOdometers } from '../due/refresh-due';
import { judgeAndCopy } from './judge-and-copy';
import { CANCELLED, LoadProgress, Stopped } from './load-progress';
import { Fault, stageFile } from './stage-file';

/* Large files of readings: streamed into a staging table by COPY, checked in sets, judged by the core and written by COPY.
   All that is kept is written in one transaction: whatever stops it, nothing is half-written, and a load that is done is not
   done again. */

/** So often it is tried again where somebody records one of the same readings meanwhile. */
const ATTEMPTS = 3;

/**
 * A worker's part: loads a file that has come.
 *
 * @throws what is not the file's fault, such as a server that goes away: it is then tried again
 */
export async function loadReadingsFile(
  deps: Deps,
  { fleetId, loadId }: { fleetId: FleetId; loadId: string },
): Promise<void> {
  const progress = new LoadProgress(deps, loadId);
  try {
    await onOneConnection(deps.db, async (tx, staging) => {
      // One worker at a time: whoever comes second finds it done.
      await lockOne(tx, 'load', loadId);
      const [load] = await deps.db
        .select()
        .from(readingLoads)
        .where(and(eq(readingLoads.fleetId, fleetId), eq(readingLoads.id, loadId)));
      if (load?.state !== 'queued' && load?.state !== 'running') return;
      await progress.tell({ state: 'running', step: 'reading the file', rowsRead: 0, rowsJudged: 0 });
      const file = Readable.from(keptFile(deps.db, loadId));
      const lines = await stageFile(staging, file, deps.today(), (rowsRead) =>
        progress.now({ step: 'reading the file', rowsRead }),
      );
      await progress.tell({ step: 'putting in order', rowsRead: lines });
      const author = { fleetId, personId: load.startedBy };
      await writing(deps, author, progress, staging, { loadId, fileName: load.fileName });
    });
  } catch (error) {
    if (error instanceof Stopped) return progress.end('cancelled', CANCELLED);
    const fault = faultOf(error);
    if (fault !== null) return progress.end('failed', `Nothing was written. ${fault}`);
    await progress.tell({ state: 'queued', step: 'broken off, to be tried again' }).catch(() => undefined);
    throw error;
  }
}

/** All that is kept, in one transaction. */
async function writing(
  deps: Deps,
  author: Author,
  progress: LoadProgress,
  staging: PoolClient,
  { loadId, fileName }: { loadId: string; fileName: string },
): Promise<void> {
  const { fleetId } = author;
  for (let attempt = 1; ; attempt++) {
    try {
      return await onOneConnection(deps.db, async (tx, client) => {
        const before = await dueInputMarks(tx, fleetId, null);
        const meters = await loadMeters(tx, fleetId, null);
        const merged = await judgeAndCopy(staging, client, author, deps.today(), meters, (rowsJudged) =>
          progress.now({ step: 'judging and writing', rowsJudged }),
        );
        const { odometers, refusals, ...counts } = merged;
        await progress.tell({ step: 'working out what is due' });
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
        await progress.tell({ step: 'finishing' });
        await writeAudit(tx, author, {
          action: 'import',
          entity: 'reading-load',
          entityId: loadId,
          changes: { fileName, ...counts },
        });
        // In the same transaction: a load is done when its rows are there.
        await tx
          .update(readingLoads)
          .set({ state: 'done', step: 'done', ...counts, refusals: [...refusals], endedAt: deps.now() })
          .where(eq(readingLoads.id, loadId));
        await dropFile(tx, loadId);
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

/** What is wrong with the file, without what only a programmer could read; null: it is not the file's fault. */
function faultOf(error: unknown): string | null {
  if (error instanceof Fault) return error.message;
  const { code, where } = error as { code?: string; where?: string };
  const line = /line (\d+)/.exec(where ?? '')?.[1];
  if (code === '22P04')
    return `Line ${line ? Number(line) + 1 : '?'} has more or fewer cells than the head line, or a quote that is never closed.`;
  if (code === '22021') return 'The file is not in UTF-8. Save it as CSV UTF-8.';
  return null;
}
