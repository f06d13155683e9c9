import { setTimeout } from 'node:timers/promises';
import type PgBoss from 'pg-boss';
import { JOB_NAMES, type JobName } from '@/contracts/jobs';
import { onOneConnection, openConnection } from '@/db/client';
import { lockOne } from '@/db/locks';
import { orphanedJobs } from '@/db/queries/jobs';
import { type Deps, today } from '@/server/deps';
import { log } from '@/server/log';
import { openQueue, queueOf } from '@/server/queue';
import { handle, SCHEDULE } from './handlers';

/* A process that does background work: npm run worker. Any number of them share one database. */

const POLL_SECONDS = 0.5;
/** Each job holds its lock on one connection and works on up to three others; one looks for lost jobs. Few are open at a time. */
const MAX_CONNECTIONS = 4 * JOB_NAMES.length + 1;
const SWEEP_MS = 2000;

/** Works until the signal says stop; what is begun then is finished. */
export async function work(url: string, stop: AbortSignal): Promise<void> {
  const { db, pool } = openConnection(url, MAX_CONNECTIONS);
  const boss = await openQueue(url, true);
  const deps: Deps = { db, now: () => new Date(), today, jobs: queueOf(Promise.resolve(boss)) };
  for (const [name, cron] of SCHEDULE) await boss.schedule(name, cron, {});
  for (const name of JOB_NAMES)
    await boss.work<object>(name, { batchSize: 1, pollingIntervalSeconds: POLL_SECONDS }, async ([job]) => {
      if (job) await doJob(deps, name, job);
    });
  log.info({ event: 'worker ready' });
  while (!stop.aborted) {
    await sweep(deps, boss).catch((err: unknown) => log.warn({ err }, 'looking for lost jobs failed'));
    await setTimeout(SWEEP_MS, undefined, { signal: stop }).catch(() => undefined);
  }
  await boss.stop({ graceful: true, wait: true, timeout: 20_000 });
  await pool.end();
}

/** While it is worked on its lock is held on a connection of its own: when the worker dies, the database lets it go. */
async function doJob(deps: Deps, name: JobName, { id, data }: PgBoss.Job<object>): Promise<void> {
  const from = performance.now();
  try {
    await onOneConnection(deps.db, async (tx) => {
      await lockOne(tx, 'job', id);
      await handle(deps, name, data);
    });
    log.info({ event: 'job done', job: name, id, ms: Math.round(performance.now() - from) });
  } catch (err) {
    log.error({ err, event: 'job failed', job: name, id });
    throw err;
  }
}

/** Gives jobs whose worker has died back to the queue. */
async function sweep(deps: Deps, boss: PgBoss): Promise<void> {
  for (const { name, id } of await deps.db.transaction(orphanedJobs)) {
    log.warn({ event: 'job taken again', job: name, id });
    await boss.fail(name, id, { message: 'Its worker ended while it was at it.' });
  }
}
