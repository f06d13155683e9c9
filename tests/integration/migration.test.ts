import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { sql } from 'drizzle-orm';
import { afterAll, describe, expect, inject, it } from 'vitest';
import { type Db, openConnection } from '../../src/db/client';
import { migrateToLatest, NewerSchema } from '../../src/db/migrate';
import { people } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { depsOf, value } from '../builders/workspace';

const server = openConnection(inject('serverUrl'), 1);
const opened: (() => Promise<void>)[] = [];
afterAll(async () => {
  for (const end of opened) await end();
  await server.pool.end();
});

async function emptyDatabase(): Promise<{ db: Db; url: string }> {
  const name = `m_${randomUUID().replaceAll('-', '')}`;
  await server.db.execute(sql.raw(`create database ${name}`));
  const url = inject('serverUrl').replace(/\/[^/]*$/, `/${name}`);
  const { db, pool } = openConnection(url, 4);
  opened.push(async () => {
    await pool.end();
    await server.db.execute(sql.raw(`drop database ${name} with (force)`));
  });
  return { db, url };
}

async function counts(db: Db): Promise<Record<string, number>> {
  const { rows } = await db.execute<{ name: string }>(
    sql`select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'`,
  );
  const found: Record<string, number> = {};
  for (const { name } of rows)
    found[name] = Number((await db.execute(sql`select count(*)::int as n from ${sql.identifier(name)}`)).rows[0]?.n);
  return found;
}

/** Tables of the schema as it stood, by the names that they have now. */
const RENAMED: Readonly<Record<string, string>> = {
  standings: 'due_status',
  weighings: 'due_runs',
  vehicle_status: 'due_inputs',
  unsettled_groups: 'stale_groups',
  work_order_sites: 'task_places',
};

describe('a database of an earlier build, with the demo scenario', () => {
  it('goes up with nothing lost: every row is there, and every due date stands', async () => {
    const { db, url } = await emptyDatabase();
    const dump = gunzipSync(readFileSync('tests/migrations/demo-at-0020.sql.gz'));
    expect(spawnSync('psql', ['-qX', '-v', 'ON_ERROR_STOP=1', url], { input: dump }).status).toBe(0);
    const before = await counts(db);
    const dueBefore = await db.execute(
      sql`select vehicle_id, state, life_used, due_p_10, due_p_50, due_p_90, pressure from standings order by vehicle_id`,
    );
    await migrateToLatest(db);
    const after = await counts(db);
    // It says what was worked out last: all is worked out anew.
    expect(after.due_runs).toBe(0);
    for (const [table, n] of Object.entries(before).filter(([table]) => table !== 'weighings'))
      expect([table, after[RENAMED[table] ?? table]]).toEqual([table, n]);
    const dueAfter = await db.execute(
      sql`select vehicle_id, state, life_used, due_p_10, due_p_50, due_p_90, pressure from due_status order by vehicle_id`,
    );
    expect(dueAfter.rows).toEqual(dueBefore.rows);
    expect(dueAfter.rows).toHaveLength(72);

    const [person] = await db.select().from(people).where(sql`role = 'supervisor'`);
    const actor = { ...person, personId: person?.id } as unknown as Actor;
    const deps = depsOf(db);
    // Computed anew by this build, the plugs of each vehicle stand where they stood.
    const items = value(await listDue(deps, actor, dueFilter.parse({ component: 'plug' }))).items;
    expect(items.map(({ vehicleId, state, due }) => [vehicleId, state, due?.p50 ?? null]).sort()).toEqual(
      dueBefore.rows.map((row) => [row.vehicle_id, row.state, row.due_p_50]).sort(),
    );
    const { rows: orders } = await db.execute<{ id: string }>(sql`select id from work_orders`);
    expect(orders.length).toBeGreaterThan(5);
    for (const { id } of orders) expect((await viewWorkOrder(deps, actor, id)).ok).toBe(true);
  });
});

describe('migrating', () => {
  it('by several processes at once is done once, and none of them fails', async () => {
    const { url } = await emptyDatabase();
    const all = Array.from({ length: 4 }, () => openConnection(url, 2));
    await Promise.all(all.map(({ db }) => migrateToLatest(db)));
    await Promise.all(all.map(({ pool }) => pool.end()));
  });

  it('is refused in words where a newer build has been at the database', async () => {
    const { db } = await emptyDatabase();
    await migrateToLatest(db);
    await db.execute(
      sql`insert into drizzle.__drizzle_migrations (hash, created_at) select 'newer', max(created_at) + 1 from drizzle.__drizzle_migrations`,
    );
    await expect(migrateToLatest(db)).rejects.toThrow(NewerSchema);
  });
});
