import { and, eq, inArray } from 'drizzle-orm';
import type { Querier, Tx } from '../client';
import { readingLoadPieces, readingLoads } from '../schema';

/* The file of a load as it came, in pieces: one is in memory at a time. */

const PIECE_BYTES = 1024 * 1024;

/** Keeps a file. @param tell hears how many bytes have come */
export async function keepFile(
  q: Querier,
  loadId: string,
  file: AsyncIterable<Uint8Array>,
  tell: (bytes: number) => Promise<void>,
): Promise<void> {
  let n = 0;
  let total = 0;
  let gathered: Uint8Array[] = [];
  let size = 0;
  const keep = async () => {
    await q.insert(readingLoadPieces).values({ loadId, n, bytes: Buffer.concat(gathered) });
    [n, gathered, size] = [n + 1, [], 0];
    await tell(total);
  };
  for await (const chunk of file) {
    gathered.push(chunk);
    size += chunk.length;
    total += chunk.length;
    if (size >= PIECE_BYTES) await keep();
  }
  if (size > 0) await keep();
}

/** The file of a load from its beginning. */
export async function* keptFile(q: Querier, loadId: string): AsyncGenerator<Buffer> {
  for (let n = 0; ; n++) {
    const [piece] = await q
      .select({ bytes: readingLoadPieces.bytes })
      .from(readingLoadPieces)
      .where(and(eq(readingLoadPieces.loadId, loadId), eq(readingLoadPieces.n, n)));
    if (!piece) return;
    yield piece.bytes;
  }
}

/** Not ended yet: it can be cancelled. */
export const isOpenLoad = inArray(readingLoads.state, ['receiving', 'queued', 'running']);

/** A load ends without having written a reading. */
export async function endLoad(
  tx: Tx,
  loadId: string,
  values: { readonly state: 'failed' | 'cancelled'; readonly message: string; readonly endedAt: Date },
): Promise<void> {
  await tx
    .update(readingLoads)
    .set({ ...values, step: 'stopped' })
    .where(eq(readingLoads.id, loadId));
  await dropFile(tx, loadId);
}

/** Lets go of the file of a load. */
export async function dropFile(q: Querier, loadId: string): Promise<void> {
  await q.delete(readingLoadPieces).where(eq(readingLoadPieces.loadId, loadId));
}
