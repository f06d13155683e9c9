import { createHash, randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { type APIRequestContext, type Browser, expect, type PlaywrightWorkerArgs } from '@playwright/test';
import { eq } from 'drizzle-orm';
import { type Connection, openConnection } from '../../src/db/client';
import { apiTokens, fleets, people, planProposals, vehicles, workOrders } from '../../src/db/schema';
import { addSignIn } from '../../src/server/fleet/people';
import { fleetDigest } from '../builders/fleet-digest';
import { appFor, test } from './app';
import { PASSWORD, User } from './user';

/* Every page, route handler and action there is, found by itself, tried by nobody, by each role and by another fleet. */

const ROLES = ['supervisor', 'technician', 'clerk', 'viewer'] as const;
/** The roles between the two ends are tried with npm run test:deep, and then every page by every role. */
const IS_DEEP = Boolean(process.env.TEST_DEEP);
const TRIED: readonly (typeof ROLES)[number][] = IS_DEEP ? ROLES : ['technician', 'viewer'];
const STRANGER = `${randomUUID()}@elsewhere.example`;
let connection: Connection;
const ids = { fleet: '', vehicle: '', order: '', engine: '', part: '', import: '', proposal: '', misfire: '' };

/** Folders with brackets are filled with ids of the demo fleet. */
const filled = (route: string): string =>
  route
    .replace('vehicles/[id]', `vehicles/${ids.vehicle}`)
    .replace('work-orders/[id]', `work-orders/${ids.order}`)
    .replace('engines/[id]', `engines/${ids.engine}`)
    .replace('parts/[id]', `parts/${ids.part}`)
    .replace('import/[id]', `import/${ids.import}`)
    .replace('proposals/[id]', `proposals/${ids.proposal}`)
    .replace('misfires/[id]', `misfires/${ids.misfire}`)
    .replace('cases/[id]', `cases/${ids.misfire}`)
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
/** What anyone may see: how to sign in, whether it lives, what the interface is, files without data of a fleet, and what has a secret. */
const OPEN = [
  '/',
  '/sign-in',
  '/first-run',
  '/api/v1/health',
  '/api/v1/openapi.json',
  '/feeds/[secret]',
  '/report/[secret]',
];
const OF_ONE = /\[(id|photo)\]/;

// biome-ignore lint/correctness/noEmptyPattern: what a hook needs is read from its first argument.
test.beforeAll(async ({}, { file }) => {
  connection = openConnection((await appFor(file)).databaseUrl, 2);
  const { db } = connection;
  ids.fleet = (await db.select().from(fleets))[0]?.id ?? '';
  ids.vehicle = (await db.select().from(vehicles).limit(1))[0]?.id ?? '';
  ids.order = (await db.select().from(workOrders).limit(1))[0]?.id ?? '';
  for (const [key, table] of [
    ['engine', 'engine_families'],
    ['part', 'parts'],
    ['import', 'imports'],
    ['misfire', 'misfire_cases'],
  ] as const)
    ids[key] = String((await connection.pool.query(`select id from ${table} limit 1`)).rows[0].id);
  const [asker] = await db.select().from(people).where(eq(people.fleetId, ids.fleet)).limit(1);
  const scope = { from: '2026-11-16', days: 1, seconds: 1, seed: 1 };
  const proposal = { fleetId: ids.fleet, askedBy: asker?.id ?? '', scope, state: 'discarded' as const };
  ids.proposal = (await db.insert(planProposals).values(proposal).returning())[0]?.id ?? '';
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
test.afterAll(() => connection.pool.end());

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
  for (const role of TRIED) {
    const request = await signedIn(browser, playwright, baseURL ?? '', role);
    for (const [i, { path }] of pages.entries())
      if (IS_DEEP || i % TRIED.length === TRIED.indexOf(role))
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

/** All that the demo fleet has. */
const digest = () => fleetDigest(connection.pool, ids.fleet);

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
  for (const role of TRIED) {
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

const actionsFound = (): readonly string[] =>
  Object.keys(JSON.parse(readFileSync('.next/server/server-reference-manifest.json', 'utf8')).node);

/** Fields of every form, filled so that what they ask for could be done: with ids of the demo fleet and fitting texts. */
async function filledForm(): Promise<Readonly<Record<string, string>>> {
  const one = async (table: string) =>
    String((await connection.pool.query(`select id from ${table} limit 1`)).rows[0]?.id ?? randomUUID());
  const [sheet, person, depot, bay, wrench, followUp, wait] = await Promise.all(
    ['spec_sheets', 'people', 'depots', 'bays', 'wrenches', 'follow_ups', 'work_order_waits'].map(one),
  );
  const fields = {
    vehicleId: ids.vehicle,
    workOrderId: ids.order,
    importId: ids.import,
    caseId: ids.misfire,
    ...{ sheetId: sheet, chosenSheetId: sheet, personId: person, ownerId: person, depotId: depot, bayId: bay },
    ...{ wrenchId: wrench, followUpId: followUp, waitId: wait, id: ids.vehicle, ids: ids.vehicle },
    ...{ name: 'A name', reason: 'a reason', what: 'a thing', text: '88600 km', odometer: '88600', version: '1' },
    ...{ on: '2026-11-16', day: '2026-11-20', start: '08:00', until: '2026-12-20', reviewOn: '2027-01-01' },
    ...{ role: 'viewer', email: 'new@elsewhere.example', password: PASSWORD, unitNumber: '11', source: 'yard walk' },
  };
  return Object.fromEntries(Object.entries(fields).map(([name, text]) => [name, text ?? '']));
}

/** A form as both arguments of an action: some take it alone, most after what they answered last. */
const sentAs = (form: Readonly<Record<string, string>>): Record<string, string> => ({
  '0': '["$K1","$K2"]',
  ...Object.fromEntries(Object.entries(form).flatMap(([name, text]) => [1, 2].map((at) => [`${at}_${name}`, text]))),
});

/** Sends every action with a form; where one ends the session, the next comes from a new one. */
async function sendActions(
  signIn: () => Promise<APIRequestContext>,
  origin: string,
  form: Readonly<Record<string, string>>,
): Promise<number> {
  let request = await signIn();
  let sent = 0;
  for (const action of actionsFound()) {
    const answer = await request.post('/due', {
      headers: { 'Next-Action': action, Origin: origin, Accept: 'text/x-component' },
      multipart: sentAs(form),
    });
    expect([action, answer.status() < 500]).toEqual([action, true]);
    sent += 1;
    if ((await request.get('/api/v1/engine-families?limit=1')).status() === 401) request = await signIn();
  }
  return sent;
}

test('actions answer each role without failing, and a viewer changes nothing by any of them', async ({
  browser,
  playwright,
  baseURL,
}) => {
  test.setTimeout(240_000);
  const origin = baseURL ?? '';
  const signIn = (role: string) => () => signedIn(browser, playwright, origin, role);
  // Whoever may is given little, so that the demo stays as it is.
  const little = { name: '', vehicleId: ids.vehicle, workOrderId: ids.order };
  for (const role of TRIED.filter((one) => one !== 'viewer'))
    expect(await sendActions(signIn(role), origin, little)).toBeGreaterThan(40);
  const before = [await digest(), await audited()];
  expect(await sendActions(signIn('viewer'), origin, await filledForm())).toBeGreaterThan(40);
  expect([await digest(), await audited()]).toEqual(before);
});

test('actions with ids of this fleet change nothing of it for a supervisor of another', async ({
  browser,
  playwright,
  baseURL,
}) => {
  test.setTimeout(240_000);
  const before = await digest();
  const signIn = () => signedIn(browser, playwright, baseURL ?? '', STRANGER);
  expect(await sendActions(signIn, baseURL ?? '', await filledForm())).toBeGreaterThan(40);
  expect(await digest()).toEqual(before);
});

test('actions do nothing for nobody', async ({ playwright, baseURL }) => {
  const actions = actionsFound();
  const nobody = await playwright.request.newContext({ baseURL, maxRedirects: 0 });
  const before = await connection.pool.query('select count(*)::int as n from audit_trail');
  for (const action of actions) {
    const answer = await nobody.post('/sign-in', {
      headers: { 'Next-Action': action, Origin: baseURL ?? '', Accept: 'text/x-component' },
      multipart: sentAs({ name: 'x', vehicleId: ids.vehicle, workOrderId: ids.order }),
    });
    expect([action, answer.status() < 500, (await answer.text()).includes('lifeboat')]).toEqual([action, true, false]);
  }
  const after = await connection.pool.query('select count(*)::int as n from audit_trail');
  expect(after.rows).toEqual(before.rows);
});
