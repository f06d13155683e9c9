import { spawnSync } from 'node:child_process';
import { createReadStream, createWriteStream, statSync, unlinkSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { eq } from 'drizzle-orm';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { importSamples } from '../demo/load';
import { DUE_SORTS } from '../src/core/due/due-item';
import { openConnection } from '../src/db/client';
import { migrateToLatest } from '../src/db/migrate';
import { engineFamilies } from '../src/db/schema';
import type { Actor } from '../src/server/access';
import { enterRow } from '../src/server/catalogue/enter-row';
import type { Deps } from '../src/server/deps';
import { dueFilter, listDue } from '../src/server/due/list-due';
import { refreshDue } from '../src/server/due/refresh-due';
import { refreshFamilies } from '../src/server/due/refresh-families';
import { createFirstSupervisor } from '../src/server/fleet/first-run';
import { confirmImport, uploadFile } from '../src/server/imports/import-file';
import { recordReadings } from '../src/server/odometer/record-readings';
import { openQueue, queueOf } from '../src/server/queue';
import { generateFleet, streamReadings } from './generate-fleet';

/* A large fleet: loading its readings beside a raw COPY of the same rows, one reading, the due list, a rebuild. */

const TODAY = '2026-11-16';
const [url = ''] = process.argv.slice(2);
const VEHICLES = Number(process.env.BENCH_VEHICLES ?? 50_000);
/** Single readings that are timed. */
const CALLS = Number(process.env.BENCH_CALLS ?? 100);
const READINGS = Number(process.env.BENCH_READINGS ?? 200);
/** A long one makes a file of a gigabyte. */
const SOURCE = process.env.BENCH_SOURCE ?? 'feed';
const say = (text: string) => process.stdout.write(`${text}\n`);
const COLUMNS =
  'fleet_id, vehicle_id, read_on, odometer_km, as_typed, unit, source, state, doubt, suggested_km, entered_by, created_at';

const { db, pool } = openConnection(url, 4);
await migrateToLatest(db);
const boss = openQueue(url, false);
const deps: Deps = { db, now: () => new Date(), today: () => TODAY, jobs: queueOf(boss) };
const made = await createFirstSupervisor(deps, {
  fleetName: 'Generated',
  name: 'Bench',
  email: 'bench@example.org',
  password: 'bench bench bench',
});
if (!made.ok) throw new Error(made.error.message);
const actor: Actor = made.value;
await importSamples(deps, actor);
const files = generateFleet(VEHICLES, 1, TODAY);
for (const kind of ['vehicles', 'service-history'] as const) {
  const text = kind === 'vehicles' ? files.vehicles : files.history;
  const bytes = new TextEncoder().encode(text);
  const uploaded = await uploadFile(deps, actor, { fileName: `${kind}.csv`, bytes, kind });
  if (!uploaded.ok) throw new Error(uploaded.error.message);
  const done = await confirmImport(deps, actor, { importId: uploaded.value.importId });
  if (!done.ok) throw new Error(done.error.message);
}

const sorted = (times: number[]) => times.sort((a, b) => a - b);
const percentile = (times: readonly number[], p: number) =>
  times[Math.min(times.length - 1, Math.floor(p * times.length))] ?? 0;
const spread = (times: number[]) => {
  const own = sorted(times);
  return `median ${percentile(own, 0.5).toFixed(1)} ms, p95 ${percentile(own, 0.95).toFixed(1)} ms over ${own.length}`;
};
async function timed<T>(work: () => Promise<T>): Promise<[T, number]> {
  const from = performance.now();
  return [await work(), (performance.now() - from) / 1000];
}

const file = path.join(os.tmpdir(), `isobar-readings-${process.pid}.csv`);
await pipeline(Readable.from(streamReadings(VEHICLES, READINGS, TODAY, SOURCE)), createWriteStream(file));
const megabytes = statSync(file).size / 1e6;
await pool.query('delete from odometer_readings');
await pool.query('checkpoint');
const child = spawnSync(process.execPath, ['--import', 'tsx', 'bench/load-file.ts', url, file, TODAY], {
  encoding: 'utf8',
  stdio: ['ignore', 'pipe', 'inherit'],
});
const { added, suspect, seconds: loading, receiving, megabytes: memory } = JSON.parse(child.stdout);
say(
  `Load of ${added.toLocaleString('en')} readings (${megabytes.toFixed(0)} MB) of ${VEHICLES.toLocaleString('en')} vehicles, all checks and every due status: ${loading.toFixed(1)} s, the first ${receiving.toFixed(1)} of them to take it in, ${Math.round(added / loading).toLocaleString('en')} rows a second, ${suspect.toLocaleString('en')} suspect; the process at most ${memory.toFixed(0)} MB`,
);

const client = await pool.connect();
await pipeline(
  client.query(copyTo(`copy (select ${COLUMNS} from odometer_readings order by ctid) to stdout with (format csv)`)),
  createWriteStream(file),
);
await client.query('truncate odometer_readings');
await client.query('checkpoint');
const [, copying] = await timed(() =>
  pipeline(
    createReadStream(file),
    client.query(copyFrom(`copy odometer_readings (${COLUMNS}) from stdin with (format csv)`)),
  ),
);
unlinkSync(file);
say(
  `Raw COPY of the same rows into the same table with its keys and indexes: ${copying.toFixed(1)} s; the load reaches ${((100 * copying) / loading).toFixed(0)} % of its rate`,
);
// As the server does by itself after a while.
await client.query('vacuum analyze');
client.release();

const [, rebuilding] = await timed(() => db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null)));
say(`Full rebuild of every due status: ${rebuilding.toFixed(1)} s`);

await listDue(deps, actor, { ...dueFilter.parse({}), page: { from: 0, limit: 1 } });
const filters = DUE_SORTS.flatMap((sort) => [
  { sort },
  { sort, descending: true },
  { sort, depot: 'Eastlight' },
  { sort, state: 'past' },
  { sort, search: 'g12' },
  { sort, group: 'clinic vans', minLife: 0.5 },
  { sort, component: 'coil' },
]);
const due: number[] = [];
for (let i = 0; i < 5 * filters.length; i++) {
  const [, seconds] = await timed(() =>
    listDue(deps, actor, { ...dueFilter.parse(filters[i % filters.length]), page: { from: 0, limit: 100 } }),
  );
  if (i >= filters.length) due.push(1000 * seconds);
}
say(`Due, first page of 100 with every sort and filter: ${spread(due)} calls`);

for (const [what, query] of [
  [
    'its page by life used',
    `select vehicle_id from due_status where fleet_id = '${actor.fleetId}' and leads order by life_used desc nulls last, unit_order limit 100`,
  ],
  [
    'one depot by due date',
    `select vehicle_id from due_status where fleet_id = '${actor.fleetId}' and leads and depot = 'Eastlight' order by due_p_50 asc nulls last, unit_order limit 100`,
  ],
  [
    'the counts beside it',
    `select depot, duty_group, state, sum(n) from due_counts where fleet_id = '${actor.fleetId}' group by depot, duty_group, state`,
  ],
] as const) {
  const { rows } = await pool.query<{ 'QUERY PLAN': string }>(`explain (analyze, costs off, timing off) ${query}`);
  say(`EXPLAIN of ${what}:\n${rows.map((row) => `  ${row['QUERY PLAN']}`).join('\n')}`);
}

const one: number[] = [];
for (let i = 0; i < 20 + CALLS; i++) {
  const unitNumber = `G${1 + ((i * 7919) % VEHICLES)}`;
  const [, seconds] = await timed(() =>
    recordReadings(deps, actor, { readings: [{ unitNumber, on: TODAY, text: `${400_000 + i} km`, source: 'bench' }] }),
  );
  if (i >= 20) one.push(1000 * seconds);
}
say(`One reading, judged, kept and its due status renewed: ${spread(one)} readings`);

const entering: number[] = [];
for (let i = 0; i < 8; i++) {
  const [entered, seconds] = await timed(() =>
    enterRow(deps, actor, {
      kind: 'spec-sheets',
      fields: {
        engine_family: 'AG-18',
        part_number: 'KM-4180',
        gap: '1.00 to 1.10 mm',
        torque: '22 to 28 N·m',
        interval: String(41_000 + i),
        interval_unit: 'km',
        source_kind: 'service_information',
        source_document: 'Demo data: Ardgowan engine book 18',
        source_dated: '2026-10-01',
        revision: String(31 + i),
        entered_by: actor.name,
      },
    }),
  );
  if (!entered.ok) throw new Error(JSON.stringify(entered.error));
  entering.push(1000 * seconds);
}
say(
  `One spec sheet entered, its vehicles brought into step at once or asked for in the background: ${spread(entering)} sheets`,
);
const families = await db.select().from(engineFamilies).where(eq(engineFamilies.code, 'AG-18'));
const [, weighing] = await timed(() =>
  db.transaction((tx) =>
    refreshFamilies(
      tx,
      actor.fleetId,
      TODAY,
      families.map(({ id }) => id),
    ),
  ),
);
say(`The due status of that family’s vehicles, by the worker: ${weighing.toFixed(1)} s`);
await (await boss).stop({ graceful: false });
await pool.end();
