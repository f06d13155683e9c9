import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { escapeLiteral, type PoolClient } from 'pg';
import { afterAll, inject } from 'vitest';
import { loadDemo } from '../../demo/load';
import type { VehicleId } from '../../src/core/shared/kinds';
import type { Role } from '../../src/core/shared/role';
import { type Connection, openConnection } from '../../src/db/client';
import { migrateToLatest } from '../../src/db/migrate';
import { vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import type { Deps } from '../../src/server/deps';
import type { Outcome } from '../../src/server/failure';
import { NO_QUEUE } from '../../src/server/queue';

export const TODAY = '2026-11-16';

export interface Workspace {
  readonly deps: Deps;
  readonly url: string;
  readonly pool: Connection['pool'];
}

/** What use-cases of a test run with: the day and the hour stand still, and nobody does background work. */
export const depsOf = (db: Deps['db']): Deps => ({
  db,
  now: () => new Date(`${TODAY}T09:00:00Z`),
  today: () => TODAY,
  jobs: NO_QUEUE,
});

const addressOf = (database: string): string => inject('serverUrl').replace(/\/[^/]*$/, `/${database}`);

/** What a database that others are copied from is filled with, and what the filling gives its copies, as JSON. */
type Fill<T> = (deps: Deps) => Promise<T>;

/** Makes such a database under another name, and gives it its name when it is whole. */
async function makeTemplate<T>(server: PoolClient, name: string, fill: Fill<T>): Promise<T> {
  await server.query(`drop database if exists ${name}_begun with (force)`);
  await server.query(`create database ${name}_begun`);
  const { db, pool } = openConnection(addressOf(`${name}_begun`), 4);
  await migrateToLatest(db);
  const filled = await fill(depsOf(db));
  await pool.end();
  await server.query(`comment on database ${name}_begun is ${escapeLiteral(JSON.stringify(filled))}`);
  await server.query(`alter database ${name}_begun rename to ${name}`);
  return filled;
}

/** A copy, of this test file's own, of a database that the first who asks fills; dropped when the file ends. */
export async function copyOf<T>(
  template: string,
  fill: Fill<T>,
): Promise<Workspace & { readonly filled: T; readonly close: () => Promise<void> }> {
  const server = openConnection(inject('serverUrl'), 1);
  const name = `t_${randomUUID().replaceAll('-', '')}`;
  const client = await server.pool.connect();
  // Two files at once must not both fill it.
  await client.query('select pg_advisory_lock(1)');
  const { rows } = await client.query(
    "select shobj_description(oid, 'pg_database') as filled from pg_database where datname = $1",
    [template],
  );
  const filled: T = rows[0] ? JSON.parse(rows[0].filled) : await makeTemplate(client, template, fill);
  await client.query(`create database ${name} template ${template}`);
  await client.query('select pg_advisory_unlock(1)');
  client.release();
  await server.pool.end();
  const url = addressOf(name);
  const { db, pool } = openConnection(url, 4);
  /** Once: a file that makes a copy for each of its tests would take every connection that the server has. */
  const close = async (): Promise<void> => {
    if (pool.ended) return;
    await pool.end();
    const last = openConnection(inject('serverUrl'), 1);
    await last.db.execute(sql.raw(`drop database ${name} with (force)`));
    await last.pool.end();
  };
  afterAll(close);
  return { deps: depsOf(db), url, pool, filled, close };
}

/** An empty, migrated database of this test file's own. */
export const emptyWorkspace = (): Promise<Workspace> => copyOf('empty', async () => null);

/** A workspace with the demo scenario. */
export async function demoWorkspace(): Promise<Workspace & { readonly supervisor: Actor }> {
  const { filled, ...workspace } = await copyOf('demo', async (deps) => (await loadDemo(deps)).actor);
  return { ...workspace, supervisor: filled };
}

/** How many connections to a workspace's database wait for a lock of somebody else. */
export async function lockWaiters({ pool }: Workspace): Promise<number> {
  const { rows } = await pool.query<{ n: number }>(
    `select count(*)::int as n from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`,
  );
  return rows[0]?.n ?? 0;
}

/** The vehicle that the fleet knows by a number. */
export async function idOfUnit({ db }: Deps, unit: string): Promise<VehicleId> {
  const [vehicle] = await db.select({ id: vehicles.id }).from(vehicles).where(eq(vehicles.unitNumber, unit));
  if (!vehicle) throw new Error(`no unit ${unit}`);
  return vehicle.id;
}

export const inRole = (actor: Actor, role: Role): Actor => ({ ...actor, role });

/** The value of an outcome that must have succeeded. */
export function value<T>(outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  throw new Error(`${outcome.error.kind}: ${outcome.error.message} ${JSON.stringify(outcome.error.fields ?? {})}`);
}
