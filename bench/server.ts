import { writeFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { from as copyFrom } from 'pg-copy-streams';
import { importSamples, loadDemo } from '../demo/load';
import { DUE_SORTS } from '../src/core/due/due-item';
import { openConnection } from '../src/db/client';
import { migrateToLatest } from '../src/db/migrate';
import type { Actor } from '../src/server/access';
import { makeToken } from '../src/server/auth/access-tokens';
import type { Deps } from '../src/server/deps';
import { dueFilter, listDue } from '../src/server/due/list-due';
import { createFirstSupervisor } from '../src/server/fleet/first-run';
import { confirmImport, uploadFile } from '../src/server/imports/import-file';
import type { ImportKindName } from '../src/server/imports/kind';
import { NO_QUEUE } from '../src/server/queue';
import { generateFleet } from './generate-fleet';

/* Server times: Due for the demo and for a large fleet, and the import beside a raw COPY of the same rows. */

const TODAY = '2026-11-16';
const [demoUrl = '', largeUrl = '', tokenFile = ''] = process.argv.slice(2);
/** Calls that are timed. */
const CALLS = Number(process.env.BENCH_CALLS ?? 100);
const say = (text: string) => process.stdout.write(`${text}\n`);

async function workspace(url: string): Promise<{ deps: Deps; pool: ReturnType<typeof openConnection>['pool'] }> {
  const { db, pool } = openConnection(url, 4);
  await migrateToLatest(db);
  return { pool, deps: { db, now: () => new Date(), today: () => TODAY, jobs: NO_QUEUE } };
}

function percentile(sorted: readonly number[], p: number): number {
  return sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))] ?? Number.NaN;
}

async function timeDue(name: string, deps: Deps, actor: Actor, runs: number): Promise<void> {
  const filters = DUE_SORTS.flatMap((sort) => [
    { sort },
    { sort, depot: 'Eastlight' },
    { sort, state: 'past' },
    { sort, search: '1' },
  ]);
  for (const filter of filters)
    await listDue(deps, actor, { ...dueFilter.parse(filter), page: { from: 0, limit: 100 } });
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const began = performance.now();
    await listDue(deps, actor, { ...dueFilter.parse(filters[i % filters.length]), page: { from: 0, limit: 100 } });
    times.push(performance.now() - began);
  }
  times.sort((a, b) => a - b);
  say(
    `Due, ${name}: median ${percentile(times, 0.5).toFixed(1)} ms, p95 ${percentile(times, 0.95).toFixed(1)} ms over ${runs} calls of every sort and filter`,
  );
}

async function importText(deps: Deps, actor: Actor, kind: ImportKindName, text: string): Promise<number> {
  const began = performance.now();
  const uploaded = await uploadFile(deps, actor, {
    fileName: `${kind}.csv`,
    bytes: new TextEncoder().encode(text),
    kind,
  });
  if (!uploaded.ok) throw new Error(uploaded.error.message);
  const done = await confirmImport(deps, actor, { importId: uploaded.value.importId });
  if (!done.ok) throw new Error(done.error.message);
  if (done.value.counts.refuse > 0) throw new Error(`${done.value.counts.refuse} refused`);
  return performance.now() - began;
}

const demo = await workspace(demoUrl);
const { actor: demoActor } = await loadDemo(demo.deps);
await timeDue('demo fleet', demo.deps, demoActor, 2 * CALLS);
await demo.pool.end();

const VEHICLES = Number(process.env.BENCH_VEHICLES ?? 5000);
const READINGS = Number(process.env.BENCH_READINGS ?? 100);
const large = await workspace(largeUrl);
const made = await createFirstSupervisor(large.deps, {
  fleetName: 'Generated',
  name: 'Bench',
  email: 'bench@example.org',
  password: 'bench bench bench',
});
if (!made.ok) throw new Error(made.error.message);
await importSamples(large.deps, made.value);
const files = generateFleet(VEHICLES, READINGS, TODAY);
await importText(large.deps, made.value, 'vehicles', files.vehicles);
await importText(large.deps, made.value, 'service-history', files.history);
const rows = VEHICLES * READINGS;
const imported = await importText(large.deps, made.value, 'odometer', files.odometer);
say(
  `Import, ${rows.toLocaleString('en')} readings, check and all: ${(imported / 1000).toFixed(1)} s, ${Math.round(rows / (imported / 1000)).toLocaleString('en')} rows a second`,
);

const client = await large.pool.connect();
const { rows: kept } = await client.query(
  `select fleet_id, vehicle_id, read_on::text, odometer_km, as_typed, unit, source, state from odometer_readings where source = 'feed'`,
);
await client.query(`delete from odometer_readings where source = 'feed'`);
const lines = kept.map(
  (r) => `${r.fleet_id},${r.vehicle_id},${r.read_on},${r.odometer_km},${r.as_typed},${r.unit},${r.source},${r.state}\n`,
);
const began = performance.now();
await pipeline(
  Readable.from(lines),
  client.query(
    copyFrom(
      'copy odometer_readings (fleet_id, vehicle_id, read_on, odometer_km, as_typed, unit, source, state) from stdin with (format csv)',
    ),
  ),
);
const copied = performance.now() - began;
await client.query('analyze');
client.release();
say(
  `Raw COPY of the same rows into the same table: ${(copied / 1000).toFixed(1)} s; the import takes ${(imported / copied).toFixed(1)} times as long`,
);
await timeDue(
  `${VEHICLES.toLocaleString('en')} vehicles, ${rows.toLocaleString('en')} readings`,
  large.deps,
  made.value,
  CALLS,
);
const token = await makeToken(large.deps, made.value, { name: 'bench' });
if (token.ok) writeFileSync(tokenFile, token.value.token);
await large.pool.end();
