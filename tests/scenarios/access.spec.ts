import { createHash, randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { type APIRequestContext, type Browser, expect, type PlaywrightWorkerArgs, test } from '@playwright/test';
import { type Connection, openConnection } from '../../src/db/client';
import { apiTokens, fleets, people, vehicles, workOrders } from '../../src/db/schema';
import { addSignIn } from '../../src/server/fleet/people';
import { PASSWORD, User } from './user';

/* Every page, route handler and action there is, found by itself, tried by nobody, by each role and by another fleet. */

const ROLES = ['supervisor', 'technician', 'clerk', 'viewer'] as const;
const STRANGER = `${randomUUID()}@elsewhere.example`;
let connection: Connection;
const ids = { vehicle: '', order: '', engine: '', part: '', import: '' };

/** Folders with brackets are filled with ids of the demo fleet. */
const filled = (route: string): string =>
  route
    .replace('vehicles/[id]', `vehicles/${ids.vehicle}`)
    .replace('work-orders/[id]', `work-orders/${ids.order}`)
    .replace('engines/[id]', `engines/${ids.engine}`)
    .replace('parts/[id]', `parts/${ids.part}`)
    .replace('import/[id]', `import/${ids.import}`)
    .replace('odometer-loads/[id]', `odometer-loads/${randomUUID()}`)
    .replace('[photo]', randomUUID())
    .replace('[kind]', 'vehicles')
    .replace('[sheet]', 'job-card')
    .replace('[name]', 'quantity');
const found = (file: 'page.tsx' | 'route.ts') =>
  readdirSync('src/app', { recursive: true, encoding: 'utf8' })
    .filter((path) => path === file || path.endsWith(`/${file}`))
    .map((path) => ({
      path: `/${path.replace(/\/?(page\.tsx|route\.ts)$/, '').replace(/^\(work\)\/?/, '')}`,
      source: readFileSync(`src/app/${path}`, 'utf8'),
    }));
/** What anyone may see: how to sign in, whether it lives, what the interface is, and files without data of a fleet. */
const OPEN = ['/', '/sign-in', '/first-run', '/api/v1/health', '/api/v1/openapi.json'];
const OF_ONE = /\[(id|photo)\]/;

test.beforeAll(async () => {
  connection = openConnection(process.env.E2E_DEMO_URL ?? '', 2);
  const { db } = connection;
  ids.vehicle = (await db.select().from(vehicles).limit(1))[0]?.id ?? '';
  ids.order = (await db.select().from(workOrders).limit(1))[0]?.id ?? '';
  for (const [key, table] of [
    ['engine', 'engine_families'],
    ['part', 'parts'],
    ['import', 'imports'],
  ] as const)
    ids[key] = String((await connection.pool.query(`select id from ${table} limit 1`)).rows[0].id);
  await db.transaction(async (tx) => {
    const [fleet] = await tx.insert(fleets).values({ name: 'Elsewhere' }).returning();
    const userId = await addSignIn(tx, { name: 'S. Tranger', email: STRANGER, password: PASSWORD });
    const [person] = await tx
      .insert(people)
      .values({ fleetId: fleet?.id ?? '', userId, name: 'S. Tranger', role: 'supervisor' })
      .returning();
    await tx.insert(apiTokens).values({
      fleetId: fleet?.id ?? '',
      personId: person?.id ?? '',
      name: 'elsewhere',
      tokenSha256: createHash('sha256').update('isobar_elsewhere').digest('hex'),
    });
  });
});
test.afterAll(async () => {
  // The other tests count on one fleet.
  await connection.pool.query(
    `delete from api_tokens where name = 'elsewhere'; delete from people where name = 'S. Tranger'; delete from due_runs where fleet_id in (select id from fleets where name = 'Elsewhere'); delete from fleets where name = 'Elsewhere'`,
  );
  await connection.pool.end();
});

async function signedIn(
  browser: Browser,
  playwright: PlaywrightWorkerArgs['playwright'],
  baseURL: string,
  email: string,
): Promise<APIRequestContext> {
  const context = await browser.newContext({ baseURL });
  const page = await context.newPage();
  if (email === STRANGER) {
    await page.goto('/sign-in');
    await page.getByLabel('Address').fill(email);
    await page.getByLabel('Password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('heading', { name: /Service pressure/ })).toBeVisible();
  } else await new User(page).signIn(email as (typeof ROLES)[number]);
  const storageState = await context.storageState();
  await context.close();
  return playwright.request.newContext({ baseURL, storageState, maxRedirects: 0 });
}

test('pages send nobody to the sign-in, and open for every role', async ({ browser, playwright, baseURL }) => {
  test.setTimeout(240_000);
  const pages = found('page.tsx').filter(({ path }) => !OPEN.includes(path));
  expect(pages.length).toBeGreaterThan(45);
  const nobody = await playwright.request.newContext({ baseURL, maxRedirects: 0 });
  for (const { path } of pages) {
    const answer = await nobody.get(filled(path));
    const text = await answer.text();
    const sent = answer.status() === 307 || text.includes('/sign-in');
    expect([path, sent, text.includes('Skerrymoor')]).toEqual([path, true, false]);
  }
  for (const role of ROLES) {
    const request = await signedIn(browser, playwright, baseURL ?? '', role);
    for (const { path } of pages)
      expect([role, path, (await request.get(filled(path))).status()]).toEqual([role, path, 200]);
  }
});

test('pages of one thing answer another fleet, and a wrong id, with 404', async ({ browser, playwright, baseURL }) => {
  test.setTimeout(120_000);
  const request = await signedIn(browser, playwright, baseURL ?? '', STRANGER);
  const pages = found('page.tsx').filter(({ path }) => OF_ONE.test(path));
  expect(pages.length).toBeGreaterThan(8);
  for (const { path } of pages)
    for (const address of [filled(path), path.replace('[id]', 'no-id'), path.replace('[id]', randomUUID())])
      expect([address, (await request.get(address)).status()]).toEqual([address, 404]);
});

test('route handlers answer nobody with 401 and another fleet with nothing of this one', async ({
  playwright,
  baseURL,
}) => {
  test.setTimeout(120_000);
  const routes = found('route.ts').filter(({ path }) => !OPEN.includes(path));
  const nobody = await playwright.request.newContext({ baseURL, maxRedirects: 0 });
  const stranger = await playwright.request.newContext({
    baseURL,
    maxRedirects: 0,
    extraHTTPHeaders: { Authorization: 'Bearer isobar_elsewhere' },
  });
  let tried = 0;
  for (const { path, source } of routes)
    for (const method of ['GET', 'POST', 'PUT', 'DELETE'].filter((m) =>
      new RegExp(`(const|function) ${m}\\b`).test(source),
    )) {
      const options = { method, ...(method === 'GET' ? {} : { data: {} }) };
      expect([method, path, (await nobody.fetch(filled(path), options)).status()]).toEqual([method, path, 401]);
      const answer = await stranger.fetch(filled(path), options);
      const told = [method, path, answer.status()];
      if (OF_ONE.test(path)) expect([...told, [401, 404, 422].includes(answer.status())]).toEqual([...told, true]);
      expect([...told, (await answer.text()).includes('lifeboat')]).toEqual([
        ...told,
        /import\/(sample|template)/.test(path),
      ]);
      expect(answer.status()).toBeLessThan(500);
      tried += 1;
    }
  expect(tried).toBeGreaterThan(35);
});

/** What changes a fleet, by its own account: who looks changes nothing. */
const audited = async () =>
  (await connection.pool.query<{ n: number }>('select count(*)::int as n from audit_trail')).rows[0]?.n;

test('route handlers answer each role, and none that may not write is let write', async ({
  browser,
  playwright,
  baseURL,
}) => {
  test.setTimeout(180_000);
  const routes = found('route.ts').filter(({ path }) => !OPEN.includes(path));
  for (const role of ROLES) {
    const request = await signedIn(browser, playwright, baseURL ?? '', role);
    const before = await audited();
    for (const { path, source } of routes)
      for (const method of ['GET', 'POST', 'PUT', 'DELETE'].filter((m) =>
        new RegExp(`(const|function) ${m}\\b`).test(source),
      )) {
        const write = { method, headers: { Origin: baseURL ?? '' }, data: {} };
        const answer = await request.fetch(filled(path), method === 'GET' ? { method } : write);
        const told = [role, method, path, answer.status()];
        expect([...told, answer.status() < 500]).toEqual([...told, true]);
        // An empty body writes nothing for anybody; whoever may not is told so, or that it says nothing.
        if (method === 'GET') expect([...told, answer.status() !== 401]).toEqual([...told, true]);
      }
    if (role === 'viewer') expect(await audited()).toBe(before);
  }
});

test('actions answer each role without failing, and a viewer changes nothing by any of them', async ({
  browser,
  playwright,
  baseURL,
}) => {
  test.setTimeout(240_000);
  const manifest = JSON.parse(readFileSync('.next/server/server-reference-manifest.json', 'utf8'));
  const actions = Object.keys(manifest.node as Record<string, unknown>);
  for (const role of ROLES) {
    const request = await signedIn(browser, playwright, baseURL ?? '', role);
    const before = await audited();
    for (const action of actions) {
      const answer = await request.post('/due', {
        headers: { 'Next-Action': action, Origin: baseURL ?? '', Accept: 'text/x-component' },
        multipart: { '0': '["$K1"]', '1_name': '', '1_vehicleId': ids.vehicle, '1_workOrderId': ids.order },
      });
      expect([role, action, answer.status() < 500]).toEqual([role, action, true]);
    }
    if (role === 'viewer') expect(await audited()).toBe(before);
  }
});

test('actions do nothing for nobody', async ({ playwright, baseURL }) => {
  const manifest = JSON.parse(readFileSync('.next/server/server-reference-manifest.json', 'utf8'));
  const actions = Object.keys(manifest.node as Record<string, unknown>);
  expect(actions.length).toBeGreaterThan(40);
  const nobody = await playwright.request.newContext({ baseURL, maxRedirects: 0 });
  const before = await connection.pool.query('select count(*)::int as n from audit_trail');
  for (const action of actions) {
    const answer = await nobody.post('/sign-in', {
      headers: { 'Next-Action': action, Origin: baseURL ?? '', Accept: 'text/x-component' },
      multipart: { '0': '["$K1"]', '1_name': 'x', '1_vehicleId': ids.vehicle, '1_workOrderId': ids.order },
    });
    expect([action, answer.status() < 500, (await answer.text()).includes('lifeboat')]).toEqual([action, true, false]);
  }
  const after = await connection.pool.query('select count(*)::int as n from audit_trail');
  expect(after.rows).toEqual(before.rows);
});
