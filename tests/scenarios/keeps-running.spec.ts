import { type ChildProcess, execFileSync, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { freePort } from '../../scripts/lib/cluster.mjs';

/* npm start as an operator runs it: app and database are killed with -9, and come back by themselves. */

const folder = mkdtempSync(path.join(os.tmpdir(), 'isobar-keeps-'));
const env = () => ({
  ...process.env,
  ISOBAR_DATA_DIR: path.join(folder, 'data'),
  PORT: String(port),
  DATABASE_URL: '',
});
let port = 0;
let isobar: ChildProcess;
let said = '';

async function start(): Promise<void> {
  isobar = spawn(process.execPath, ['scripts/start.mjs'], { env: env(), stdio: ['ignore', 'pipe', 'pipe'] });
  for (const stream of [isobar.stdout, isobar.stderr]) stream?.on('data', (text) => (said += String(text)));
  await answers(200);
}
const health = () =>
  fetch(`http://127.0.0.1:${port}/api/v1/health`).then(
    ({ status }) => status,
    () => 0,
  );
const answers = (status: number) => expect.poll(health, { timeout: 60_000, intervals: [50] }).toBe(status);
const pidOf = (pattern: string): number =>
  Number(execFileSync('pgrep', ['-f', pattern], { encoding: 'utf8' }).trim().split('\n')[0]);
const isRunning = (pid: number): boolean => {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
};
const postmaster = (): number => {
  const inside = path.join(folder, 'data', 'postgres');
  const elsewhere = /the database stands in (\S+)/.exec(said)?.[1];
  const data = path.join(elsewhere ?? inside, 'data', 'postmaster.pid');
  return Number(readFileSync(data, 'utf8').split('\n')[0]);
};
const isobarRun = (script: string, ...args: string[]) =>
  spawnSync(process.execPath, [`scripts/${script}.mjs`, ...args], { env: env(), encoding: 'utf8' });

test.beforeAll(async () => {
  test.setTimeout(180_000);
  // As the server's own user must reach it when this runs as root.
  execFileSync('chmod', ['755', folder]);
  port = await freePort();
  await start();
});

test.afterAll(async () => {
  if (isobar.exitCode === null) {
    isobar.kill('SIGTERM');
    await once(isobar, 'exit');
  }
  rmSync(folder, { recursive: true, force: true });
});

test('an app that is killed is started again', async () => {
  const app = pidOf(`serve.mjs -H 127.0.0.1 -p ${port}`);
  process.kill(app, 'SIGKILL');
  await expect.poll(() => said, { timeout: 20_000 }).toContain('the app was ended by SIGKILL: starting it again');
  await answers(200);
  expect(pidOf(`serve.mjs -H 127.0.0.1 -p ${port}`)).not.toBe(app);
});

test('a database that is killed is started again, and meanwhile a page says so', async ({ page }) => {
  await page.goto(`http://127.0.0.1:${port}/`);
  await expect(page.getByRole('heading', { name: 'This workspace is empty' })).toBeVisible();
  process.kill(postmaster(), 'SIGKILL');
  await answers(503);
  const away = await page.goto(`http://127.0.0.1:${port}/`);
  if (away?.status() === 503) await expect(page.getByText('The database is being started')).toBeVisible();
  // The page comes back by itself: nobody has to load it again.
  await expect(page.getByRole('heading', { name: 'This workspace is empty' })).toBeVisible({ timeout: 30_000 });
  expect(said).toContain('PostgreSQL is gone: starting it again');
});

test('a body of somebody unknown is not read beyond its limit', async () => {
  const send = (headers: Record<string, string>, body: BodyInit) =>
    fetch(`http://127.0.0.1:${port}/api/v1/odometer-readings`, {
      method: 'POST',
      headers,
      body,
      duplex: 'half',
    } as RequestInit).then(({ status }) => status);
  expect(await send({ 'Content-Type': 'application/json' }, 'x'.repeat(100_000))).toBe(413);
  let left = 3;
  const stream = new ReadableStream({
    pull: (controller) => (left-- > 0 ? controller.enqueue(new Uint8Array(1000)) : controller.close()),
  });
  expect(await send({ 'Content-Type': 'application/json' }, stream)).toBe(411);
});

test('a backup is restored into a new folder, whole', async () => {
  const dump = path.join(folder, 'isobar.dump');
  const made = isobarRun('backup', dump);
  expect([made.stderr, made.status]).toEqual(['', 0]);
  expect(isobarRun('restore', dump).status).toBe(1);
  const elsewhere = { ...env(), ISOBAR_DATA_DIR: path.join(folder, 'other') };
  const restored = spawnSync(process.execPath, ['scripts/restore.mjs', dump], { env: elsewhere, encoding: 'utf8' });
  expect(restored.stdout).toMatch(/restored [\d,]+ rows/);
  expect(restored.status).toBe(0);
});

test('it ends with 0 when it is told to, and 1 when its app cannot be kept', async () => {
  isobar.kill('SIGTERM');
  expect((await once(isobar, 'exit'))[0]).toBe(0);
  said = '';
  await start();
  const ended = once(isobar, 'exit');
  for (let i = 0; i < 5 && isobar.exitCode === null; i++) {
    await expect
      .poll(() => spawnSync('pgrep', ['-f', `serve.mjs -H 127.0.0.1 -p ${port}`]).status, { timeout: 20_000 })
      .toBe(0);
    const app = pidOf(`serve.mjs -H 127.0.0.1 -p ${port}`);
    process.kill(app, 'SIGKILL');
    await expect.poll(() => isRunning(app)).toBe(false);
  }
  expect((await ended)[0]).toBe(1);
  expect(said).toContain('5 times within a minute');
});
