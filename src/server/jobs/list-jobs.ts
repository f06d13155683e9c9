import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { JOB_NAMES, JOBS } from '@/contracts/jobs';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** `failed`: given up after its retries; it can be asked for again. */
export const JOB_STATES = ['queued', 'running', 'retrying', 'failed', 'done'] as const;

const STATE_OF: Readonly<Record<string, JobItem['state']>> = {
  created: 'queued',
  retry: 'retrying',
  active: 'running',
  completed: 'done',
  cancelled: 'failed',
  failed: 'failed',
};

export interface JobItem {
  readonly id: string;
  readonly name: string;
  readonly state: (typeof JOB_STATES)[number];
  readonly askedAt: Date;
  readonly endedAt: Date | null;
  readonly tries: number;
  /** Why it failed, in words. */
  readonly why: string | null;
}

interface Row extends Record<string, unknown> {
  readonly id: string;
  readonly name: string;
  readonly state: string;
  readonly created_on: string;
  readonly completed_on: string | null;
  readonly retry_count: number;
  readonly why: string | null;
}

/** The fleet's background work, the latest first. */
export const listJobs = useCase({
  permission: 'read the fleet',
  async run(deps, actor): Promise<Outcome<readonly JobItem[]>> {
    const known = await deps.db.execute<{ there: string | null }>(sql`select to_regclass('pgboss.job')::text as there`);
    // Nobody has asked for any work yet.
    if (!known.rows[0]?.there) return ok([]);
    const { rows } = await deps.db.execute<Row>(sql`
      select id::text, name, state::text, created_on, completed_on, retry_count, output->>'message' as why
      from pgboss.job where data->>'fleetId' = ${actor.fleetId} and name = any(${sql.param(JOB_NAMES)}::text[])
      order by created_on desc limit 100`);
    return ok(
      rows.map((row) => ({
        id: row.id,
        name: row.name,
        state: STATE_OF[row.state] ?? 'failed',
        askedAt: new Date(row.created_on),
        endedAt: row.completed_on === null ? null : new Date(row.completed_on),
        tries: row.retry_count,
        why: row.state === 'completed' ? null : row.why,
      })),
    );
  },
});

/** Asks once more for work that was given up. */
export const retryJob = useCase({
  permission: 'import data',
  input: z.object({ jobId: z.uuid() }),
  async run(deps, actor, { jobId }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const { rows } = await tx.execute<{ name: string; data: unknown; state: string }>(sql`
        select name, data, state::text from pgboss.job
        where id = ${jobId} and data->>'fleetId' = ${actor.fleetId} for update`);
      const [job] = rows;
      const name = JOB_NAMES.find((known) => known === job?.name);
      if (!job || !name) return notFound('job');
      if (STATE_OF[job.state] !== 'failed')
        return fail('conflict', 'This job is not given up: it is tried again by itself.');
      await tx.execute(sql`delete from pgboss.job where id = ${jobId}`);
      await deps.jobs.send(tx, name, JOBS[name].parse(job.data) as never);
      await writeAudit(tx, {
        fleetId: actor.fleetId,
        personId: actor.personId,
        action: 'retry',
        entity: 'job',
        entityId: jobId,
        changes: { name },
      });
      return ok(null);
    });
  },
});
