import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { freePort, startCluster } from './lib/cluster.mjs';
import { nodeArgs, run } from './lib/command.mjs';
import { ensureBuild, ensureDebian, ensurePackages } from './lib/setup.mjs';

/* Prints the figures that performance claims rest on. Nothing here is a test. */

ensureDebian('postgresql', 'chromium');
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
await cold.stop();
const warm = await timeDemo(port);
process.stdout.write(
  `npm run demo, packages and build at hand: ${cold.seconds.toFixed(1)} s with a new database, ${warm.seconds.toFixed(1)} s the second time\n`,
);
run(process.execPath, [nodeArgs.tsx, 'bench/page-weight.ts', `http://127.0.0.1:${port}`]);
await warm.stop();

const cluster = await startCluster(path.join(folder, 'cluster'));
const demoUrl = cluster.url.replace(/\/isobar$/, '/bench_demo');
run(process.execPath, [
  '-e',
  `const {Client}=require('pg');(async()=>{const c=new Client(process.argv[1]);await c.connect();await c.query('create database bench_demo');await c.end()})()`,
  cluster.url,
]);
run(process.execPath, [nodeArgs.tsx, 'bench/server.ts', demoUrl, cluster.url]);
cluster.stop();
rmSync(folder, { recursive: true, force: true });
