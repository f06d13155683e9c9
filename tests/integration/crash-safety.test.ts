import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { generateFleet } from '../../bench/generate-fleet';
import { importSamples } from '../../demo/load';
import { startCluster } from '../../scripts/lib/cluster.mjs';
import { type Connection, openConnection } from '../../src/db/client';
import { migrateToLatest } from '../../src/db/migrate';
import { odometerReadings } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { createFirstSupervisor } from '../../src/server/fleet/first-run';
import { confirmImport, uploadFile } from '../../src/server/imports/import-file';
import { listLoads } from '../../src/server/odometer/list-loads';
import { loadReadingsFile } from '../../src/server/odometer/load-readings-file';
import { NO_QUEUE } from '../../src/server/queue';
import { killServer } from '../builders/kill-server';
import { TODAY, value } from '../builders/workspace';

/* A load whose process, or whose database server, is killed with -9 in the midst of writing. A server of its own. */

const folder = mkdtempSync(path.join(os.tmpdir(), 'isobar-killed-'));
const file = path.join(folder, 'feed.csv');
let cluster: Awaited<ReturnType<typeof startCluster>>;
let connection: Connection;
let actor: Actor;
const deps = () => ({
  db: connection.db,
  now: () => new Date(Date.now() + 10_000),
  today: () => TODAY,
  jobs: NO_QUEUE,
});

beforeAll(async () => {
  cluster = await startCluster(folder);
  connection = openConnection(cluster.url, 6);
  await migrateToLatest(connection.db);
  actor = value(
    await createFirstSupervisor(deps(), {
      fleetName: 'Test',
      name: 'T. Ester',
      email: 't@example.org',
      password: 'long enough pw',
    }),
  );
  await importSamples(deps(), actor);
  const files = generateFleet(20, 30, TODAY);
  const bytes = new TextEncoder().encode(files.vehicles);
  const { importId } = value(await uploadFile(deps(), actor, { fileName: 'vehicles.csv', bytes, kind: 'vehicles' }));
  value(await confirmImport(deps(), actor, { importId }));
  writeFileSync(file, files.odometer);
});

afterAll(async () => {
  await connection.pool.end();
  cluster.stop();
  rmSync(folder, { recursive: true, force: true });
});

const kept = () => connection.db.$count(odometerReadings, eq(odometerReadings.source, 'feed'));
const lines = () => readFileSync(file, 'utf8').trim().split('\n').length - 1;

function startLoading(): ChildProcess {
  return spawn(process.execPath, ['--import', 'tsx', 'bench/load-file.ts', cluster.url, file, TODAY], {
    stdio: ['ignore', 'ignore', 'ignore'],
  });
}

/** Starts a load that gets stuck in the middle of its rows, on one that somebody else holds. */
async function loadingHalfway(): Promise<{ child: ChildProcess; letGo: () => Promise<void> }> {
  const rows = readFileSync(file, 'utf8').trim().split('\n');
  const [unit, on, km] = (rows[Math.floor(rows.length / 2)] ?? '').split(',');
  const holder = await connection.pool.connect();
  holder.on('error', () => undefined);
  await holder.query('begin');
  await holder.query(
    `insert into odometer_readings (fleet_id, vehicle_id, read_on, odometer_km, as_typed, unit, source, state)
     select fleet_id, id, $2, $3::numeric, $3::text, 'km', 'yard walk', 'accepted' from vehicles where unit_number = $1`,
    [unit, on, km],
  );
  const child = startLoading();
  const waiting = 'select 1 from pg_locks where not granted';
  await expect.poll(async () => (await connection.pool.query(waiting)).rowCount).toBeGreaterThan(0);
  return {
    child,
    letGo: async () => {
      await holder.query('rollback').catch(() => undefined);
      holder.release(true);
    },
  };
}

/** What a worker does when it takes the same load again. */
async function isTakenAgain(): Promise<void> {
  const [load] = value(await listLoads(deps(), actor));
  expect(load?.state).toBe('running');
  const job = { fleetId: actor.fleetId, loadId: load?.id ?? '' };
  await loadReadingsFile(deps(), job);
  expect(value(await listLoads(deps(), actor))[0]).toMatchObject({ id: job.loadId, state: 'done', added: lines() });
  expect(await kept()).toBe(lines());
  await loadReadingsFile(deps(), job);
  expect(await kept()).toBe(lines());
  await connection.db.delete(odometerReadings).where(eq(odometerReadings.source, 'feed'));
}

it('leaves nothing behind when its process is killed, and is then taken again, once', async () => {
  const { child, letGo } = await loadingHalfway();
  child.kill('SIGKILL');
  await once(child, 'exit');
  await letGo();
  expect(await kept()).toBe(0);
  await isTakenAgain();
});

it('leaves nothing behind when the database server is killed, and is then taken again, once', async () => {
  const { child, letGo } = await loadingHalfway();
  const living = killServer(cluster.folder);
  const [code] = await once(child, 'exit');
  expect(code).not.toBe(0);
  await letGo();
  await connection.pool.end();
  await expect.poll(living).toBe(0);
  cluster = await startCluster(folder);
  connection = openConnection(cluster.url, 6);
  expect(await kept()).toBe(0);
  await isTakenAgain();
});
