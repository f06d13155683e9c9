import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import { eq } from 'drizzle-orm';
import { loadDemo } from '../../demo/load';
import { type Cluster, freePort, startCluster } from '../../scripts/lib/cluster.mjs';
import { type Connection, openConnection } from '../../src/db/client';
import { migrateToLatest } from '../../src/db/migrate';
import { floorEntries, vehicles } from '../../src/db/schema';
import { NO_QUEUE } from '../../src/server/queue';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { killServer } from '../builders/kill-server';
import { untilAnswers } from './app';
import { PASSWORD } from './user';

/* A whole V6 by two technicians on tablets, with an app and a database server of this file's own, both of which are killed. */

const TODAY = '2026-11-16';
const tablet = { width: 820, height: 1180 };
const folder = mkdtempSync(path.join(os.tmpdir(), 'isobar-vehicle-'));
let cluster: Cluster;
let connection: Connection;
let app: ChildProcess;
let port = 0;
let order = '';

const base = () => `http://127.0.0.1:${port}`;

async function startApp(): Promise<void> {
  app = spawn(process.execPath, ['scripts/serve.mjs', '-H', '127.0.0.1', '-p', String(port)], {
    stdio: 'ignore',
    env: {
      ...process.env,
      DATABASE_URL: cluster.url,
      ISOBAR_SECRET: 'only-for-tests-0123456789abcdef0123',
      ISOBAR_TODAY: TODAY,
      ISOBAR_URL: base(),
    },
  });
  await untilAnswers(base());
}

async function killApp(): Promise<void> {
  app.kill('SIGKILL');
  await once(app, 'exit');
}

async function killDatabase(): Promise<void> {
  await connection.pool.end().catch(() => undefined);
  await expect.poll(killServer(cluster.folder), { timeout: 60_000 }).toBe(0);
}

test.beforeAll(async () => {
  test.setTimeout(180_000);
  cluster = await startCluster(folder);
  connection = openConnection(cluster.url, 3);
  await migrateToLatest(connection.db);
  const deps = { db: connection.db, now: () => new Date(), today: () => TODAY, jobs: NO_QUEUE };
  const { actor } = await loadDemo(deps);
  const [vehicle] = await connection.db.select().from(vehicles).where(eq(vehicles.unitNumber, '33'));
  const opened = await openWorkOrder(deps, actor, { vehicleId: vehicle?.id ?? '' });
  if (!opened.ok) throw new Error(opened.error.message);
  order = opened.value.workOrderId;
  port = await freePort();
  await startApp();
});

test.afterAll(async () => {
  app?.kill('SIGKILL');
  await connection?.pool.end().catch(() => undefined);
  cluster?.stop();
  for (const left of [folder, cluster?.folder]) if (left) rmSync(left, { recursive: true, force: true });
});

class Technician {
  constructor(
    readonly page: Page,
    readonly context: BrowserContext,
  ) {}

  async open(address: string): Promise<void> {
    const { page } = this;
    await page.goto(`${base()}/sign-in`);
    await page.getByLabel('Address').fill(address);
    await page.getByLabel('Password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page).not.toHaveURL(/sign-in/);
    await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('Sign in');
    await page.goto(`${base()}/work-orders/${order}/floor`);
    await this.sent();
  }

  badge = () => this.page.getByRole('status', { name: 'Not yet sent' });
  sent = () => expect(this.badge()).toHaveText('All sent', { timeout: 60_000 });
  go = (site: string) => this.page.getByRole('link', { name: new RegExp(`^Cylinder ${site}\\b`) }).click();
  at = (site: string) =>
    expect(this.page.getByRole('heading', { name: `Cylinder ${site}`, exact: true })).toBeVisible();

  /** Four presses where all is normal. */
  async serve(site: string, gap: string): Promise<void> {
    const { page } = this;
    await this.go(site);
    await this.at(site);
    await page
      .getByRole('button', { name: /^reads/ })
      .first()
      .click();
    await page.getByRole('group', { name: 'By wire gauge, the old' }).getByRole('button', { name: gap }).click();
    await page.getByRole('button', { name: /^All normal/ }).click();
    await page.getByRole('button', { name: /^Save cylinder .*Started by hand, torqued 17\.5 N·m/ }).click();
    await expect(page.getByText(/^(left:|all cylinders done)/).first()).not.toHaveText(
      new RegExp(`^left:[^·]* ${site}\\b`),
    );
  }
}

test('two technicians serve a V6; network, app and database fail them midway', async ({ browser }) => {
  test.setTimeout(300_000);
  const begin = async (address: string) => {
    const context = await browser.newContext({ viewport: tablet });
    context.setDefaultTimeout(30_000);
    const one = new Technician(await context.newPage(), context);
    await one.open(address);
    return one;
  };
  const vane = await begin('technician@skerrymoor.example');
  const corrie = await begin('corrie@skerrymoor.example');

  await test.step('the new parts are read and measured before anything is opened', async () => {
    await vane.page.getByRole('button', { name: 'New parts' }).click();
    await vane.page.getByRole('button', { name: /^Read off each: all read/ }).click();
    await vane.page.getByRole('button', { name: 'Each of 6 measures 1.05 mm' }).click();
    await expect(vane.page.getByText('6 of 6 measured. Every gap is in range.')).toBeVisible();
    // What is right never stands in the red of what is wrong.
    await expect(vane.page.getByText('✓ in range').first()).toHaveCSS('color', 'rgb(14, 95, 102)');
    await vane.sent();
    await vane.page.getByRole('button', { name: 'Steps' }).click();
    // One press for what is prepared, one for what is opened; then on to the plugs.
    await vane.page
      .getByRole('button', { name: /^All \d+ in order$/ })
      .first()
      .click();
    await vane.page
      .getByRole('button', { name: /^All \d+ in order$/ })
      .first()
      .click();
    await vane.page.getByRole('button', { name: 'from 1' }).click();
    await vane.sent();
    await corrie.page.reload();
    await corrie.sent();
  });

  await test.step('one works on without a network, and closes the tab', async () => {
    await corrie.context.setOffline(true);
    await corrie.serve('1', '1.20');
    await vane.serve('2', '1.15');
    await corrie.serve('3', '1.25');
    await expect(corrie.badge()).toHaveText(/kept here, no connection/);
    await corrie.page.reload();
    await expect(corrie.badge()).toHaveText(/kept here/);
    await expect(corrie.page.getByText(/left: 2 4 5 6/)).toBeVisible();
    await vane.sent();
  });

  await test.step('both speak of one field: neither is lost', async () => {
    await vane.go('5');
    await vane.at('5');
    await vane.page.getByLabel(/^Old gap/).fill('1.31 mm');
    await vane.page.getByRole('button', { name: 'New parts' }).click();
    await vane.sent();
    await corrie.go('5');
    await corrie.at('5');
    await corrie.page.getByLabel(/^Old gap/).fill('1.13 mm');
    await corrie.context.setOffline(false);
    await corrie.page.getByRole('button', { name: 'New parts' }).click();
    await corrie.sent();
    await expect(corrie.page.getByText('Cylinder 5, old gap: two answers. Which holds?')).toBeVisible();
    await corrie.page.getByRole('button', { name: '1.31 mm, as it stands' }).click();
    await expect(corrie.page.getByText('two answers')).toHaveCount(0);
    await corrie.sent();
    await corrie.page.getByRole('button', { name: 'Cylinders' }).click();
    await vane.page.getByRole('button', { name: 'Cylinders' }).click();
  });

  await test.step('the app is killed with -9 while a site is entered', async () => {
    await killApp();
    await vane.serve('4', '1.15');
    await expect(vane.badge()).toHaveText(/kept here, no connection/, { timeout: 30_000 });
    await startApp();
    await vane.sent();
  });

  await test.step('the database is killed with -9 while another is', async () => {
    await killDatabase();
    await corrie.serve('5', '1.30');
    await expect(corrie.badge()).toHaveText(/kept here/, { timeout: 30_000 });
    cluster = await startCluster(folder);
    connection = openConnection(cluster.url, 3);
    await corrie.sent();
    await vane.serve('6', '1.20');
    await vane.sent();
  });

  await test.step('every entry is there, none twice', async () => {
    for (const one of [vane, corrie]) {
      await one.page.goto(`${base()}/work-orders/${order}/floor`);
      await expect(one.page.getByText(/^all cylinders done/).first()).toBeVisible();
    }
    const rows = await connection.db.select().from(floorEntries).where(eq(floorEntries.workOrderId, order));
    const done = rows.filter(({ field, outcome }) => field === 'done' && outcome === 'kept');
    expect(done.map(({ target }) => target).sort()).toEqual(
      ['1A', '2A', '3A', '4A', '5A', '6A'].map((s) => `site ${s}`),
    );
    const gaps = rows.filter(({ field, outcome }) => field === 'removedGap' && outcome !== 'resolved');
    const last = new Map(gaps.filter(({ outcome }) => outcome === 'kept').map(({ target, value }) => [target, value]));
    expect(Object.fromEntries(last)).toEqual({
      'site 1A': '1.20 mm',
      'site 2A': '1.15 mm',
      'site 3A': '1.25 mm',
      'site 4A': '1.15 mm',
      'site 5A': '1.30 mm',
      'site 6A': '1.20 mm',
    });
    expect(rows.some(({ outcome, value }) => outcome === 'resolved' && value === '1.13 mm')).toBe(true);
    expect(new Set(rows.map(({ id }) => id)).size).toBe(rows.length);
    const kept = rows
      .filter(({ outcome }) => outcome === 'kept')
      .map(({ target, field, value }) => JSON.stringify([target, field, value]));
    expect(new Set(kept).size).toBe(kept.length);
    expect(rows.filter(({ outcome }) => outcome === 'refused')).toEqual([]);
  });
});
