import { sql } from 'drizzle-orm';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier, Tx } from '../client';
import { lockKey } from '../locks';

/* The queue's own table, which its library makes when it is first opened. */

interface JobRow extends Record<string, unknown> {
  readonly id: string;
  readonly name: string;
  readonly state: string;
  readonly createdOn: string;
  readonly completedOn: string | null;
  readonly tries: number;
  readonly why: string | null;
}

/** False: nobody has asked for any work yet. */
async function hasQueue(q: Querier): Promise<boolean> {
  const { rows } = await q.execute<{ there: string | null }>(sql`select to_regclass('pgboss.job')::text as there`);
  return rows[0]?.there !== null;
}

/** Jobs of a fleet by these names, the latest first. */
export async function listJobRows(q: Querier, fleetId: FleetId, names: readonly string[]): Promise<readonly JobRow[]> {
  if (!(await hasQueue(q))) return [];
  const { rows } = await q.execute<JobRow>(sql`
    select id::text, name, state::text, created_on as "createdOn", completed_on as "completedOn", retry_count as tries,
      output->>'message' as why
    from pgboss.job where data->>'fleetId' = ${fleetId} and name = any(${sql.param(names)}::text[])
    order by created_on desc limit 100`);
  return rows;
}

/** Takes a job of a fleet for the rest of the transaction. */
export async function lockJob(tx: Tx, fleetId: FleetId, id: string) {
  if (!(await hasQueue(tx))) return null;
  const { rows } = await tx.execute<{ name: string; data: unknown; state: string }>(
    sql`select name, data, state::text from pgboss.job where id = ${id} and data->>'fleetId' = ${fleetId} for update`,
  );
  return rows[0] ?? null;
}

export async function dropJob(tx: Tx, id: string): Promise<void> {
  await tx.execute(sql`delete from pgboss.job where id = ${id}`);
}

/** Jobs that are being worked on, although their worker is gone: nobody holds their lock any more. */
export async function orphanedJobs(tx: Tx): Promise<readonly { readonly name: string; readonly id: string }[]> {
  const { rows } = await tx.execute<{ name: string; id: string }>(sql`
    select name, id::text from pgboss.job
    where state = 'active' and started_on < now() - interval '3 seconds'
      and pg_try_advisory_xact_lock(${lockKey('job', sql`id`)})`);
  return rows;
}
