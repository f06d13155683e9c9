import { copyFileSync, mkdirSync } from 'node:fs';
import { build } from 'esbuild';
import { JOB_WORKER } from './command.mjs';

const common = { bundle: true, minify: true, target: 'es2022', logLevel: 'warning' };

/** The service worker, in the one file that a browser asks for at the root: public/sw.js. */
const serviceWorker = () =>
  build({ ...common, entryPoints: ['src/workers/service-worker/service-worker.ts'], outfile: 'public/sw.js' });

/** The planner's thread of a server. The solver stays a package: it looks for its own file beside itself. */
export const buildPlannerThread = () =>
  build({
    ...common,
    entryPoints: ['src/workers/planner/node-thread.ts'],
    outfile: 'generated/planner-thread.mjs',
    platform: 'node',
    format: 'esm',
    external: ['highs'],
  });

/** The worker that does background work, whole at once: read file by file it takes seconds to start. */
export const buildJobWorker = () =>
  build({
    ...common,
    minify: false,
    entryPoints: ['scripts/worker.ts'],
    outfile: JOB_WORKER,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    sourcemap: 'inline',
  });

/** The planner's worker in a browser. The solver asks for files of Node only where it runs there. */
const plannerWorker = () =>
  build({
    ...common,
    entryPoints: ['src/workers/planner/browser-thread.ts'],
    outfile: 'public/planner.js',
    format: 'esm',
    external: ['node:*', 'fs', 'path', 'crypto', 'module', 'worker_threads'],
  });

/** The worker that works a misfire out in a browser. */
const misfireWorker = () =>
  build({ ...common, entryPoints: ['src/workers/misfire/browser-worker.ts'], outfile: 'public/misfire.js' });

/** The solver, where the planner's worker in a browser asks for it. */
function copySolver() {
  mkdirSync('public', { recursive: true });
  copyFileSync('node_modules/highs/build/highs.wasm', 'public/highs.wasm');
}

export async function buildWorkers() {
  await Promise.all([serviceWorker(), buildPlannerThread(), buildJobWorker(), plannerWorker(), misfireWorker()]);
  copySolver();
}
