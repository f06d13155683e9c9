import { sql } from 'drizzle-orm';
import PgBoss from 'pg-boss';
import { JOB_NAMES, type JobData, type JobName } from '@/contracts/jobs';
import { onOneConnection, openConnection, type Querier } from '@/db/client';
import { lock } from '@/db/locks';

/* The queue stands in PostgreSQL beside the data, so that a job is asked for in the same transaction as its cause. */

/** Connections that a process's side of the queue may hold. */
const MAX_CONNECTIONS = 2;
const RETRIES = { retryLimit: 3, retryDelay: 5, retryBackoff: true } as const;
/** A job that is not done by then is taken for dead, seconds. One whose worker has died is noticed long before. */
const EXPIRES = { expireInSeconds: 60 * 60 } as const;

/** Asks for background work. */
export interface JobQueue {
  /** @param q the transaction of its cause: the job is there when that is, and not otherwise */
  readonly send: <N extends JobName>(q: Querier, name: N, data: JobData<N>) => Promise<void>;
}

/** The queue of a database, with its tables made where they are missing. @param works true in a worker: it also keeps order */
export async function openQueue(url: string, works: boolean): Promise<PgBoss> {
  const boss = new PgBoss({
    connectionString: url,
    max: MAX_CONNECTIONS,
    application_name: works ? 'isobar worker' : 'isobar app',
    supervise: works,
    schedule: works,
  });
  // A server that restarts is told by the next call; without a listener it would end the process.
  boss.on('error', () => undefined);
  // Making the same queue at the same time ends in a deadlock: one process after the other.
  const { db, pool } = openConnection(url, 1);
  try {
    await onOneConnection(db, async (tx) => {
      await lock(tx, 'queue');
      await boss.start();
      for (const name of JOB_NAMES) await boss.createQueue(name, { name, policy: 'standard', ...RETRIES, ...EXPIRES });
    });
  } finally {
    await pool.end();
  }
  return boss;
}

/** Sends through a connection of ours, so that it belongs to a transaction of ours. */
export const queueOf = (boss: Promise<PgBoss>): JobQueue => ({
  async send(q, name, data) {
    const db = {
      executeSql: async (text: string, values: unknown[]) => {
        const { rows } = await q.execute(withValues(text, values));
        return { rows };
      },
    };
    await (await boss).send(name, data, { db });
  },
});

/** A query with numbered places as one that Drizzle can run within its transaction. */
function withValues(text: string, values: readonly unknown[]) {
  const pieces = text.split(/\$(\d+)/);
  return sql.join(
    pieces.map((piece, i) => (i % 2 === 0 ? sql.raw(piece) : sql`${sql.param(values[Number(piece) - 1])}`)),
  );
}

/** For what asks for no background work, such as a script that does all of it itself. */
export const NO_QUEUE: JobQueue = {
  send: async (_, name) => {
    throw new Error(`no queue is open here, and ${name} was asked for`);
  },
};
