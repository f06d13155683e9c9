import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { freePort, startCluster } from './lib/cluster.mjs';
import { nodeArgs, run, together } from './lib/command.mjs';
import { giveUp } from './lib/say.mjs';
import { ensureBuild, ensureDebian, ensurePackages } from './lib/setup.mjs';

/* Prints the figures that performance claims rest on. Nothing here is a test; with --small every benchmark runs once on very
   little, so that one that no longer fits the app is noticed. */

const small = process.argv.includes('--small');
if (small)
  Object.assign(process.env, {
    BENCH_VEHICLES: '60',
    BENCH_READINGS: '20',
    BENCH_SHEETS: '50',
    BENCH_CURVES: '5',
    BENCH_TRAYS: '50',
    BENCH_BANDS: '5',
    BENCH_FLEET: '4',
    BENCH_DASH: '40',
    BENCH_CALLS: '8',
    BENCH_SECONDS: '0.2',
    BENCH_CASES: '10',
    BENCH_PAGES: '2',
    BENCH_MOVES: '1',
    ISOBAR_DEMO_PAST: 'no',
  });
const CALLS = Number(process.env.BENCH_CALLS ?? 100);

ensureDebian('postgresql', 'chromium-headless-shell');
ensurePackages();
ensureBuild();
const folder = mkdtempSync(path.join(os.tmpdir(), 'isobar-bench-'));
// As postgres must reach it when this runs as root.
spawnSync('chmod', ['755', folder]);

/** Starts the demo, and gives the seconds until it answers. */
async function timeDemo(port) {
  const began = performance.now();
  const demo = spawn(process.execPath, ['scripts/demo.mjs'], {
    env: { ...process.env, PORT: String(port), ISOBAR_DATA_DIR: path.join(folder, 'demo') },
    stdio: 'ignore',
  });
  // Where a benchmark fails, this program ends, and the demo with it.
  process.once('exit', () => demo.kill('SIGTERM'));
  for (;;) {
    const ok = await fetch(`http://127.0.0.1:${port}/api/v1/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (ok) break;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  const seconds = (performance.now() - began) / 1000;
  const stop = () => new Promise((resolve) => demo.once('exit', resolve) && demo.kill('SIGTERM'));
  return { seconds, stop };
}

const port = await freePort();
const cold = await timeDemo(port);
if (!small) await cold.stop();
const warm = small ? cold : await timeDemo(port);
process.stdout.write(
  `npm run demo, packages and build at hand: ${cold.seconds.toFixed(1)} s with a new database, ${warm.seconds.toFixed(1)} s the second time\n`,
);
await benches(
  ['bench/page-weight.ts', 'bench/views.ts', 'bench/at-the-vehicle.ts', 'bench/what-if-page.ts'].map((file) => [
    file,
    `http://127.0.0.1:${port}`,
  ]),
);
await warm.stop();
await benches([
  ['bench/plan.ts', ...(small ? ['--small'] : [])],
  ...['misfire', 'fitment', 'curves', 'reading', 'reading-classes', 'due-band', 'fleet-band', 'dash', 'quantities'].map(
    (judged) => [`bench/${judged}.ts`],
  ),
]);

const cluster = await startCluster(path.join(folder, 'cluster'));
const demoUrl = madeDatabase('bench_demo');
const tokenFile = path.join(folder, 'token');
run(process.execPath, [nodeArgs.tsx, 'bench/server.ts', demoUrl, cluster.url, tokenFile]);
await timeHttp(cluster.url, readFileSync(tokenFile, 'utf8'));
run(process.execPath, [nodeArgs.tsx, 'bench/scale.ts', madeDatabase('bench_scale')]);
if (!small) run(process.execPath, [nodeArgs.tsx, 'bench/minutes.ts', madeDatabase('bench_minutes')]);
cluster.stop();
rmSync(folder, { recursive: true, force: true });

/** One after the other, so that each has the machine to itself; where nothing is measured, side by side. */
async function benches(files) {
  const programs = files.map((args) => ({ program: process.execPath, args: [nodeArgs.tsx, ...args] }));
  const groups = small ? [programs] : programs.map((program) => [program]);
  for (const group of groups) if (!(await together(group))) giveUp('a benchmark failed. The lines above say why.');
}

/** @returns the address of a new database of this name */
function madeDatabase(name) {
  run(process.execPath, [
    '-e',
    `const {Client}=require('pg');(async()=>{const c=new Client(process.argv[1]);await c.connect();await c.query('create database ${name}');await c.end()})()`,
    cluster.url,
  ]);
  return cluster.url.replace(/\/isobar$/, `/${name}`);
}

/** The same list from the built app over HTTP: sign-in, query, sums and JSON of a page of 100. */
async function timeHttp(url, token) {
  const httpPort = await freePort();
  const app = spawn(process.execPath, ['scripts/serve.mjs', '-H', '127.0.0.1', '-p', String(httpPort)], {
    env: { ...process.env, DATABASE_URL: url, ISOBAR_SECRET: token, ISOBAR_TODAY: '2026-11-16' },
    stdio: 'ignore',
  });
  const call = (query) =>
    fetch(`http://127.0.0.1:${httpPort}/api/v1/due?${query}`, { headers: { Authorization: `Bearer ${token}` } }).then(
      (r) => (r.ok ? r.text() : Promise.reject(r.status)),
    );
  const queries = ['limit=100', 'limit=100&depot=Eastlight', 'limit=100&min_life=0.9', 'limit=100&before=2026-12-31'];
  for (let i = 0; i < 100; i++)
    if (
      await call('limit=1').then(
        () => true,
        () => new Promise((resolve) => setTimeout(() => resolve(false), 200)),
      )
    )
      break;
  for (let i = 0; i < CALLS / 5; i++) await call(queries[i % 4]);
  const times = [];
  for (let i = 0; i < CALLS; i++) {
    const from = performance.now();
    await call(queries[i % 4]);
    times.push(performance.now() - from);
  }
  times.sort((a, b) => a - b);
  process.stdout.write(
    `Due of that fleet over HTTP from the built app: median ${times[Math.floor(0.5 * CALLS)].toFixed(0)} ms, p95 ${times[Math.floor(0.95 * CALLS)].toFixed(0)} ms over ${CALLS} calls\n`,
  );
  await new Promise((resolve) => app.once('exit', resolve) && app.kill('SIGTERM'));
}
