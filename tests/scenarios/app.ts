import { type ChildProcess, spawn } from 'node:child_process';
import path from 'node:path';
import { test as base, type Cookie, expect } from '@playwright/test';
import pg from 'pg';
import { freePort } from '../../scripts/lib/cluster.mjs';
import { JOB_WORKER } from '../../scripts/lib/command.mjs';

/*
 * Each test file has a database of its own, a fresh copy of one that scripts/scenarios.mjs prepared: files run in any order, at
 * once and alone. The app of a process goes on from file to file, as it does when its database is restored.
 */

type Workspace = 'demo' | 'empty';

interface App {
  readonly url: string;
  readonly databaseUrl: string;
  /** Of who has signed in: the next test of the file goes on with them. */
  readonly sessions: Map<string, Cookie[]>;
}

interface RunningApp extends App {
  readonly file: string;
  readonly workspace: Workspace;
  readonly server: ChildProcess;
  readonly worker: ChildProcess;
}

const TODAY = '2026-11-16';

let running: RunningApp | null = null;
let starting: Promise<RunningApp> | null = null;

const needed = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set: run npm run scenarios`);
  return value;
};

/** The app of a test file, with its database anew when another file asks. @param workspace what its database is a copy of */
export async function appFor(file: string, workspace: Workspace = 'demo'): Promise<App> {
  await starting;
  if (running?.file === file) return running;
  starting = startApp(file, workspace);
  running = await starting;
  return running;
}

/** Who has signed in to the app of the test file at work. */
export const sessionsNow = (): App['sessions'] => {
  if (!running) throw new Error('no app is running');
  return running.sessions;
};

async function startApp(file: string, workspace: Workspace): Promise<RunningApp> {
  const before = running;
  if (before) await end(before.worker);
  const keeps = before !== null && before.workspace === workspace;
  if (before && !keeps) await end(before.server);
  const databaseUrl = await freshCopy(workspace);
  const url = keeps ? before.url : `http://127.0.0.1:${await freePort()}`;
  const env = {
    ...process.env,
    DATABASE_URL: databaseUrl,
    ISOBAR_SECRET: 'only-for-tests-0123456789abcdef0123',
    ISOBAR_TODAY: TODAY,
    ISOBAR_URL: url,
    ISOBAR_LOG_LEVEL: 'error',
    ISOBAR_SUPERVISED: '1',
    NEXT_TELEMETRY_DISABLED: '1',
  };
  // Node on the files themselves, not npm or npx: the signal then reaches them.
  const start = (...args: string[]): ChildProcess =>
    spawn(process.execPath, args, { env, stdio: ['ignore', 'ignore', 'inherit'] });
  const { hostname, port } = new URL(url);
  const server = keeps ? before.server : start('scripts/serve.mjs', '-H', hostname, '-p', port);
  const worker = start(JOB_WORKER);
  await untilAnswers(url);
  return { url, databaseUrl, sessions: new Map(), file, workspace, server, worker };
}

async function end(program: ChildProcess): Promise<void> {
  if (program.exitCode !== null || program.signalCode !== null) return;
  const ended = new Promise((resolve) => program.once('exit', resolve));
  program.kill('SIGTERM');
  await ended;
}

async function freshCopy(workspace: Workspace): Promise<string> {
  const template = needed(workspace === 'demo' ? 'E2E_DEMO_URL' : 'E2E_EMPTY_URL');
  const name = `scenario_${process.pid}`;
  const admin = new pg.Client({ connectionString: template.replace(/\/\w+$/, '/postgres') });
  await admin.connect();
  await admin.query(`drop database if exists ${name} with (force)`);
  await admin.query(`create database ${name} template ${path.basename(template)}`);
  await admin.end();
  return template.replace(/\/\w+$/, `/${name}`);
}

/** Until the app at an address answers. */
export const untilAnswers = (url: string): Promise<void> =>
  expect
    .poll(
      () =>
        fetch(`${url}/api/v1/health`).then(
          ({ status }) => status,
          () => 0,
        ),
      { timeout: 60_000 },
    )
    .toBe(200);

/** Tests whose addresses are those of their file's app. */
export const test = base.extend<{ workspace: Workspace }, { endApp: undefined }>({
  workspace: ['demo', { option: true }],
  baseURL: async ({ workspace }, use, { file }) => use((await appFor(file, workspace)).url),
  endApp: [
    // biome-ignore lint/correctness/noEmptyPattern: what a fixture needs is read from its first argument.
    async ({}, use) => {
      await use(undefined);
      if (running) await Promise.all([end(running.server), end(running.worker)]);
      running = null;
    },
    { scope: 'worker', auto: true },
  ],
});
