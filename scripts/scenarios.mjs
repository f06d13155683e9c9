import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { startCluster } from './lib/cluster.mjs';
import { nodeArgs } from './lib/command.mjs';
import { say } from './lib/say.mjs';

/* Runs the browser tests, each file on a copy of one of two databases that are prepared here: an empty workspace, and the demo scenario. */

const MAX_SEEN = 6000;

const folder = path.join(os.tmpdir(), `isobar-scenarios-${process.pid}`);
const cluster = await startCluster(folder, { durable: false });
const databases = { empty: cluster.url, demo: cluster.url.replace(/\/isobar$/, '/demo') };
const node = (args, env) =>
  spawnSync(process.execPath, args, { stdio: 'inherit', env: { ...process.env, ...env } }).status ?? 1;

/** An empty workspace, and a copy of it with the demo scenario. */
async function prepare() {
  for (const script of ['scripts/migrate.ts', 'tests/builders/make-queue.ts']) {
    const made = node([nodeArgs.tsx, script], { DATABASE_URL: databases.empty });
    if (made !== 0) return made;
  }
  const admin = new pg.Client({ connectionString: databases.empty.replace(/\/isobar$/, '/postgres') });
  await admin.connect();
  await admin.query('create database demo template isobar');
  await admin.end();
  return node([nodeArgs.tsx, 'scripts/load-demo.ts'], {
    DATABASE_URL: databases.demo,
    ISOBAR_DATA_DIR: folder,
    ISOBAR_DEMO_PAST: 'no',
  });
}

/** What each failed test had before it: whoever reads only the log sees the page too. */
function tellWhatWasSeen() {
  const results = path.resolve('test-results');
  if (!existsSync(results)) return;
  for (const test of readdirSync(results)) {
    const page = path.join(results, test, 'error-context.md');
    if (existsSync(page)) say(`what ${test} had before it:\n${readFileSync(page, 'utf8').slice(0, MAX_SEEN)}`);
  }
}

let status = await prepare();
if (status === 0)
  status = node(['node_modules/@playwright/test/cli.js', 'test', ...process.argv.slice(2)], {
    E2E_EMPTY_URL: databases.empty,
    E2E_DEMO_URL: databases.demo,
    E2E_TOKEN_FILE: path.join(folder, 'demo-token'),
  });
if (status !== 0) tellWhatWasSeen();
cluster.stop();
rmSync(folder, { recursive: true, force: true });
process.exit(status);
