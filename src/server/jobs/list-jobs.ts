import { z } from 'zod';
import { JOB_NAMES, JOBS } from '@/contracts/jobs';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { dropJob, listJobRows, lockJob } from '@/db/queries/jobs';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** `failed`: given up after its retries; it can be asked for again. */
const JOB_STATES = ['queued', 'running', 'retrying', 'failed', 'done'] as const;

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

/** The fleet's background work, the latest first. */
export const listJobs = useCase({
  permission: 'read the fleet',
  async run(deps, actor): Promise<Outcome<readonly JobItem[]>> {
    const rows = await listJobRows(deps.db, actor.fleetId, JOB_NAMES);
    return ok(
      rows.map(({ id, name, state, createdOn, completedOn, tries, why }) => ({
        id,
        name,
        state: STATE_OF[state] ?? 'failed',
        askedAt: new Date(createdOn),
        endedAt: completedOn === null ? null : new Date(completedOn),
        tries,
        why: state === 'completed' ? null : why,
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
      const job = await lockJob(tx, actor.fleetId, jobId);
      const name = JOB_NAMES.find((known) => known === job?.name);
      if (!job || !name) return notFound('job');
      if (STATE_OF[job.state] !== 'failed')
        return fail('conflict', 'This job is not given up: it is tried again by itself.');
      await dropJob(tx, jobId);
      await deps.jobs.send(tx, name, JOBS[name].parse(job.data) as never);
      await writeAudit(tx, actor, { action: 'retry', entity: 'job', entityId: jobId, changes: { name } });
      return ok(null);
    });
  },
});
