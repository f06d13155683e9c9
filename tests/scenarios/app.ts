import { type ChildProcess, spawn } from 'node:child_process';
import path from 'node:path';
import { test as base } from '@playwright/test';
import pg from 'pg';
import { freePort } from '../../scripts/lib/cluster.mjs';
import { nodeArgs } from '../../scripts/lib/command.mjs';

/*
 * Each test file has an app with its worker on a database of its own, copied from one that scripts/scenarios.mjs prepared: files
 * run in any order, at once and alone.
 */

interface App {
  readonly url: string;
  readonly databaseUrl: string;
}

interface RunningApp extends App {
  readonly file: string;
  readonly stop: () => Promise<void>;
}

const TODAY = '2026-11-16';

let running: Promise<RunningApp> | null = null;
let count = 0;

const needed = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set: run npm run scenarios`);
  return value;
};

/** The app of a test file, started when its first test asks. @param workspace what its database is a copy of */
export async function appFor(file: string, workspace: 'demo' | 'empty' = 'demo'): Promise<App> {
  const now = await running;
  if (now?.file === file) return now;
  await now?.stop();
  running = startApp(file, workspace);
  return running;
}

async function startApp(file: string, workspace: 'demo' | 'empty'): Promise<RunningApp> {
  const databaseUrl = await copyOf(workspace);
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
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
  const processes = [
    start('scripts/serve.mjs', '-H', '127.0.0.1', '-p', String(port)),
    start(nodeArgs.tsx, 'scripts/worker.ts'),
  ];
  const stop = async (): Promise<void> => {
    running = null;
    await Promise.all(
      processes.map(async (one) => {
        if (one.exitCode !== null || one.signalCode !== null) return;
        const ended = new Promise((resolve) => one.once('exit', resolve));
        one.kill('SIGTERM');
        await ended;
      }),
    );
  };
  await untilAnswers(`${url}/api/v1/health`);
  return { url, databaseUrl, file, stop };
}

async function copyOf(workspace: 'demo' | 'empty'): Promise<string> {
  const template = needed(workspace === 'demo' ? 'E2E_DEMO_URL' : 'E2E_EMPTY_URL');
  count += 1;
  const name = `scenario_${process.pid}_${count}`;
  const admin = new pg.Client({ connectionString: template.replace(/\/\w+$/, '/postgres') });
  await admin.connect();
  await admin.query(`create database ${name} template ${path.basename(template)}`);
  await admin.end();
  return template.replace(/\/\w+$/, `/${name}`);
}

async function untilAnswers(url: string): Promise<void> {
  for (let tries = 0; tries < 600; tries += 1) {
    const isUp = await fetch(url).then(
      (answer) => answer.ok,
      () => false,
    );
    if (isUp) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`${url} does not answer`);
}

/** Tests whose addresses are those of their file's app. */
export const test = base.extend<{ workspace: 'demo' | 'empty' }, { endApp: undefined }>({
  workspace: ['demo', { option: true }],
  baseURL: async ({ workspace }, use, { file }) => use((await appFor(file, workspace)).url),
  endApp: [
    // biome-ignore lint/correctness/noEmptyPattern: what a fixture needs is read from its first argument.
    async ({}, use) => {
      await use(undefined);
      await (await running)?.stop();
    },
    { scope: 'worker', auto: true },
  ],
});
