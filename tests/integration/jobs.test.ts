import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { Readable } from 'node:stream';
import { eq, sql } from 'drizzle-orm';
import type PgBoss from 'pg-boss';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { generateFleet } from '../../bench/generate-fleet';
import { JOB_WORKER } from '../../scripts/lib/command.mjs';
import { odometerReadings, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { enterRow } from '../../src/server/catalogue/enter-row';
import type { Deps } from '../../src/server/deps';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { refreshDue } from '../../src/server/due/refresh-due';
import { MAX_AT_ONCE } from '../../src/server/due/refresh-families';
import { confirmImport, uploadFile } from '../../src/server/imports/import-file';
import { listJobs, retryJob } from '../../src/server/jobs/list-jobs';
import { listLoads } from '../../src/server/odometer/list-loads';
import { awaitLoad, receiveReadingsFile } from '../../src/server/odometer/receive-readings-file';
import { openQueue, queueOf } from '../../src/server/queue';
import { demoWorkspace, inRole, lockWaiters, TODAY, value, type Workspace } from '../builders/workspace';

/* Two apps and two workers on one database: the apps ask, the workers do, one of them is killed in the middle. */

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
let apps: readonly Deps[];
const bosses: PgBoss[] = [];
let workers: ChildProcess[] = [];

const startWorker = (): ChildProcess => {
  const worker = spawn(process.execPath, [JOB_WORKER], {
    env: {
      ...process.env,
      DATABASE_URL: w.url,
      ISOBAR_TODAY: TODAY,
      VITEST: '',
      ISOBAR_LOG_LEVEL: 'error',
      ISOBAR_SUPERVISED: '1',
    },
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  workers.push(worker);
  return worker;
};

beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
  apps = await Promise.all(
    [1, 2].map(async () => {
      const boss = await openQueue(w.url, false);
      bosses.push(boss);
      return { ...w.deps, jobs: queueOf(Promise.resolve(boss)) };
    }),
  );
  // More vehicles of one engine than a request renews by itself.
  const [header = '', ...rows] = generateFleet(9 * (MAX_AT_ONCE + 20), 1, TODAY).vehicles.split('\n');
  const alike = rows.filter((row) => row.includes('AG-18')).slice(0, MAX_AT_ONCE + 20);
  expect(alike).toHaveLength(MAX_AT_ONCE + 20);
  const bytes = new TextEncoder().encode([header, ...alike].join('\n'));
  const { importId } = value(await uploadFile(w.deps, actor, { fileName: 'vehicles.csv', bytes, kind: 'vehicles' }));
  value(await confirmImport(w.deps, actor, { importId }));
});

afterAll(async () => {
  for (const worker of workers) worker.kill('SIGKILL');
  await Promise.all(bosses.map((boss) => boss.stop({ graceful: false, wait: true })));
});

const sheet = (revision: number, interval: number) => ({
  kind: 'spec-sheets',
  fields: {
    engine_family: 'AG-18',
    part_number: 'KM-4180',
    gap: '1.00 to 1.10 mm',
    torque: '22 to 28 N·m',
    interval: String(interval),
    interval_unit: 'km',
    source_kind: 'service_information',
    source_document: 'Demo data: Ardgowan engine book 18',
    source_dated: '2026-10-01',
    revision: String(revision),
    entered_by: 'R. Tolland',
  },
});
const states = async () => value(await listJobs(w.deps, actor)).map(({ state }) => state);
const limits = async () =>
  (
    await w.deps.db.execute<{ km: number; n: number }>(sql`
      select limit_km::float8 as km, count(*)::int as n from due_status i
      join vehicles v on v.id = i.vehicle_id join engine_families f on f.id = v.engine_family_id
      where i.component = 'plug' and f.code = 'AG-18' and not v.severe_duty group by 1`)
  ).rows;

describe('a sheet that concerns many vehicles', () => {
  it('is entered at once, and its vehicles wait for a worker', async () => {
    const [app] = apps;
    if (!app) throw new Error('no app');
    value(await enterRow(app, actor, sheet(31, 41_000)));
    expect(await states()).toEqual(['queued']);
    expect((await limits()).every(({ km }) => km !== 41_000)).toBe(true);
  });

  it('is asked for with its cause or not at all', async () => {
    const [app] = apps;
    const before = (await states()).length;
    await app?.db
      .transaction(async (tx) => {
        await app.jobs.send(tx, 'due-run', { fleetId: actor.fleetId });
        throw new Error('undone');
      })
      .catch(() => undefined);
    expect(await states()).toHaveLength(before);
  });

  it('is done by either of two workers, whichever app asked, each job once', async () => {
    startWorker();
    startWorker();
    await Promise.all(apps.map((app, i) => enterRow(app, actor, sheet(40 + i, 42_000 + i)).then(value)));
    await expect.poll(states).toEqual(['done', 'done', 'done']);
    expect(await limits()).toEqual([{ km: 42_001, n: expect.any(Number) }]);
    const step = value(await listDue(w.deps, actor, dueFilter.parse({ sort: 'unit' }))).items;
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    expect(value(await listDue(w.deps, actor, dueFilter.parse({ sort: 'unit' }))).items).toEqual(step);
  });

  it('is taken again when its worker is killed in the middle, and nothing is half done', async () => {
    const [app] = apps;
    if (!app) throw new Error('no app');
    // Somebody holds a vehicle, so that the job stands in the middle of its work.
    const holder = await w.pool.connect();
    await holder.query('begin');
    await holder.query(
      `select 1 from due_inputs where vehicle_id = (select max(v.id::text)::uuid from vehicles v join engine_families f on f.id = v.engine_family_id where f.code = 'AG-18') for update`,
    );
    value(await enterRow(app, actor, sheet(50, 43_000)));
    await expect.poll(async () => (await states()).includes('running')).toBe(true);
    await expect.poll(() => lockWaiters(w)).toBe(1);
    for (const worker of workers) worker.kill('SIGKILL');
    workers = [];
    await holder.query('rollback');
    holder.release();
    expect((await limits()).map(({ km }) => km)).toEqual([42_001]);
    startWorker();
    await expect.poll(states).toEqual(['done', 'done', 'done', 'done']);
    expect((await limits()).map(({ km }) => km)).toEqual([43_000]);
  });

  it('takes a large file of readings again when its worker is killed in the middle, and writes it once', async () => {
    const [app] = apps;
    if (!app) throw new Error('no app');
    const rows = ['11', '12', '14'].map((unit, i) => `${unit},2026-11-1${i},${90_000 + i},km,file`);
    const text = ['unit_number,read_on,odometer,unit,source', ...rows, ''].join('\n');
    const added = () => w.deps.db.$count(odometerReadings, eq(odometerReadings.source, 'file'));
    const holder = await w.pool.connect();
    await holder.query('begin');
    await holder.query('lock table odometer_readings in share mode');
    const file = Readable.from([Buffer.from(text)]);
    const { loadId } = value(await receiveReadingsFile(app, actor, { fileName: 'file.csv', file }));
    const load = async () => value(await listLoads(w.deps, actor)).find(({ id }) => id === loadId);
    await expect.poll(async () => (await load())?.step).toBe('putting in order');
    await expect.poll(() => lockWaiters(w)).toBe(1);
    for (const worker of workers) worker.kill('SIGKILL');
    workers = [];
    await holder.query('rollback');
    holder.release();
    expect([(await load())?.state, await added()]).toEqual(['running', 0]);
    startWorker();
    expect(value(await awaitLoad(w.deps, actor, { loadId }))).toMatchObject({ added: 3, refused: 0 });
    expect(await added()).toBe(3);
  });

  it('that fails says why, and is asked for again by those who may; after a due run come its notices', async () => {
    const [app] = apps;
    await w.deps.db.execute(
      sql`insert into pgboss.job (name, data, state, output, retry_count, retry_limit, completed_on)
          values ('due-run', ${JSON.stringify({ fleetId: actor.fleetId })}::jsonb, 'failed', '{"message":"no room on the disk"}', 3, 3, now())`,
    );
    const failed = value(await listJobs(w.deps, actor)).find(({ state }) => state === 'failed');
    expect(failed).toMatchObject({ why: 'no room on the disk', tries: 3 });
    const input = { jobId: failed?.id ?? '' };
    if (!app) throw new Error('no app');
    expect(await retryJob(app, inRole(actor, 'viewer'), input)).toMatchObject({ error: { kind: 'forbidden' } });
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(await retryJob(app, stranger, input)).toMatchObject({ error: { kind: 'not-found' } });
    value(await retryJob(app, actor, input));
    await expect.poll(states).toEqual(Array(7).fill('done'));
  });

  it('ends its worker in good order when it is told to', async () => {
    const [worker] = workers;
    const ended = once(worker as ChildProcess, 'exit');
    (worker as ChildProcess).kill('SIGTERM');
    expect((await ended)[0]).toBe(0);
    expect(await w.deps.db.$count(vehicles)).toBeGreaterThan(MAX_AT_ONCE);
  });
});
