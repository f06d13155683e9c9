import { and, eq } from 'drizzle-orm';
import { endLoad, isOpenLoad } from '@/db/queries/reading-loads';
import { readingLoads } from '@/db/schema';
import type { Deps } from '../deps';

/** Somebody asked for the load to stop. */
export class Stopped extends Error {}

export const CANCELLED = 'Cancelled: nothing was written.';
/** So long the next bytes of a file are waited for. */
export const IDLE_MS = 15_000;
const TOLD_EVERY_MS = 500;

type Values = Partial<
  Pick<typeof readingLoads.$inferInsert, 'state' | 'step' | 'rowsRead' | 'rowsJudged' | 'message' | 'heardAt'>
>;

/** Tells how far a load has come, on a connection of its own, and hears whether it is to stop. */
export class LoadProgress {
  private at = 0;

  constructor(
    private readonly deps: Deps,
    private readonly id: string,
  ) {}

  /** @throws Stopped when somebody asked for it */
  async tell(values: Values): Promise<void> {
    const [row] = await this.deps.db
      .update(readingLoads)
      .set(values)
      .where(and(eq(readingLoads.id, this.id), isOpenLoad))
      .returning({ cancelAsked: readingLoads.cancelAsked });
    if (!row || row.cancelAsked) throw new Stopped();
  }

  /** The same at most twice a second. */
  async now(values: Values): Promise<void> {
    if (Date.now() - this.at < TOLD_EVERY_MS) return;
    this.at = Date.now();
    await this.tell(values);
  }

  /** It ends without having written a reading. */
  async end(state: 'failed' | 'cancelled', message: string): Promise<void> {
    const endedAt = this.deps.now();
    await this.deps.db.transaction((tx) => endLoad(tx, this.id, { state, message, endedAt }));
  }
}
