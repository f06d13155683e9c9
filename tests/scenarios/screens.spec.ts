import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test, User } from './user';

const PAGES = [
  '/due',
  '/due/print',
  '/odometer',
  '/odometer/yard-walk?depot=Eastlight',
  '/odometer/feed',
  '/notices',
  '/notices/digest',
  '/work-orders',
  '/misfires',
  '/misfires/report',
  '/work-orders/follow-ups',
  '/work-orders/waiting',
  '/work-orders/guide',
  '/work-orders/trainer',
  '/plan',
  '/engines',
  '/engines/new',
  '/engines/unmatched',
  '/parts?number=FS-5201',
  '/parts/new',
  '/parts/to-order',
  '/parts/receiving',
  '/pressure',
  '/pressure/horizon',
  '/plan/what-if',
  '/plan/feeds',
  '/plan/mine',
  '/pressure/costs',
  '/parts/trials',
  '/parts/number-codes',
  '/bench',
  '/bench/torque',
  '/bench/convert',
  '/bench/spark',
  '/bench/coils',
  '/bench/firing',
  '/bench/leads',
  '/bench/wrenches',
  '/policies',
  '/import',
  '/import/guide/odometer',
  '/people',
  '/settings',
];

/** Where a list leads by the first link of a name. */
async function linkOf(page: Page, list: string, name: string | RegExp): Promise<string> {
  await page.goto(list);
  return (await page.getByRole('link', { name }).first().getAttribute('href')) ?? '';
}

/** Pages that are used standing: none of them runs off a phone or a tablet. */
const STANDING = [
  '/misfires',
  '/misfires/report',
  '/work-orders/guide',
  '/work-orders/trainer',
  '/engines',
  '/engines/new',
  '/parts?number=FS-5201',
  '/parts/to-order',
  '/parts/receiving',
  '/bench',
  '/bench/torque',
  '/bench/leads',
  '/bench/spark',
  '/bench/wrenches',
  '/policies',
];
const DESK = { width: 1280, height: 800 };
const IN_HAND = [
  { width: 820, height: 1180 },
  { width: 390, height: 844 },
];

/** The pages of a work order and of a misfire that are opened at the vehicle. */
async function pagesAtVehicle(page: Page): Promise<Readonly<Record<'order' | 'misfire', readonly string[]>>> {
  const order = await linkOf(page, '/work-orders', '1001');
  const misfire = await linkOf(page, '/misfires', /^104 meal/);
  return {
    order: ['', '/floor', '/floor#steps', '/floor#parts', '/tray', '/codes', '/stop'].map(
      (under) => `${order}${under}`,
    ),
    misfire: ['', '/vehicle', '/paper'].map((under) => `${misfire}${under}`),
  };
}

/** A page of its own kind each: a vehicle, an engine, a part, a work order on paper. */
const ownPages = async (page: Page): Promise<readonly string[]> => [
  await linkOf(page, '/due?search=32', /^32 lifeboat/),
  await linkOf(page, '/due?search=155', /^155 mobile/),
  await linkOf(page, '/engines', 'PW-31W'),
  await linkOf(page, '/parts', 'FS-5210'),
];

/** Rows of long lists are alike: the first of them stand for all. */
const FURTHER_ROWS = 'tbody tr:nth-of-type(n+9), main li:nth-of-type(n+9)';
const IS_DEEP = Boolean(process.env.TEST_DEEP);
const STANDARDS = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'];

/** All that is asked of a page in one light. */
async function complaints(page: Page, path: string, colorScheme: 'light' | 'dark'): Promise<readonly string[]> {
  await page.emulateMedia({ colorScheme });
  await page.goto(path);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page).toHaveTitle(/^.+ · Isobar$/);
  // What passes is not described, and the sheets are not fetched once more: a third of the time.
  const axe = new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'], preload: false })
    .exclude(FURTHER_ROWS)
    .withTags(STANDARDS);
  const { violations } = await axe.analyze();
  return violations.map(
    (v) => `${path}, ${colorScheme}: ${v.id} ${v.nodes.slice(0, 3).map((n) => n.html.slice(0, 160))}`,
  );
}

/** The page in hand runs off neither a tablet nor a phone. */
async function fitsInHand(page: Page, path: string): Promise<void> {
  for (const size of IN_HAND) {
    await page.setViewportSize(size);
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth), `${path} at ${size.width}`)
      .toBeLessThanOrEqual(size.width);
  }
  await page.setViewportSize(DESK);
}

/** In parts, which run at once. */
const PARTS = 4;
const LIGHTS = ['light', 'dark'] as const;

test.describe('nothing on the screens shuts anyone out, and nothing runs off a phone or a tablet at the vehicle', () => {
  test.describe.configure({ mode: 'parallel' });
  for (let part = 0; part < PARTS; part += 1)
    test(`part ${part + 1}`, async ({ page }) => {
      test.slow();
      await new User(page).signIn('supervisor');
      const { order, misfire } = await pagesAtVehicle(page);
      const standing = [...order, ...misfire, ...STANDING];
      const all = [...misfire, ...(await ownPages(page)), ...order, `${order[0]}/paper`, ...PAGES];
      for (const [i, path] of all.entries()) {
        if (i % PARTS !== part) continue;
        // Each page in one of the two lights; in both with npm run test:deep.
        for (const light of IS_DEEP ? LIGHTS : [LIGHTS[Math.floor(i / PARTS) % 2] ?? 'light'])
          expect(await complaints(page, path, light)).toEqual([]);
        if (standing.includes(path)) await fitsInHand(page, path);
      }
    });
});

test('a wrong password says so and keeps the address', async ({ page }) => {
  await page.goto('/sign-in');
  await page.getByLabel('Address').fill('supervisor@skerrymoor.example');
  await page.getByLabel('Password').fill('not the password');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('This address and password do not go together.')).toBeVisible();
  await expect(page.getByLabel('Address')).toHaveValue('supervisor@skerrymoor.example');
  await page.goto('/plan');
  await expect(page).toHaveURL(/sign-in/);
});

test('a viewer sees the fleet and can change nothing', async ({ page }) => {
  const user = new User(page);
  await user.signIn('viewer', '/due');
  await expect(page.getByRole('link', { name: /^41 road-gritter/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Open/ })).toHaveCount(0);
  await expect(page.getByRole('link', { name: 'Import' })).toHaveCount(0);
  await page.goto('/import');
  await expect(page.getByText(/A viewer may not import data/)).toBeVisible();
  await user.goTo('People');
  await expect(page.getByRole('button', { name: 'Add', exact: true })).toHaveCount(0);
  await user.signOut();
  await expect(page).toHaveURL(/sign-in/);
  await page.goto('/due');
  await expect(page).toHaveURL(/sign-in/);
});

test('the due list is worked by keyboard, and its address keeps the filter', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor', '/due');
  const search = page.getByLabel(/^Search/);
  await expect(async () => {
    await page.keyboard.press('/');
    await expect(search).toBeFocused({ timeout: 500 });
  }).toPass();
  await page.keyboard.type('gritter');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/search=gritter/);
  await expect(page.getByRole('row')).toHaveCount(10);
  await page.reload();
  await expect(page.getByLabel(/^Search/)).toHaveValue('gritter');
  await page.goto('/due?search=nothing+like+it');
  await expect(page.getByText('None of 72 vehicles fits this filter.')).toBeVisible();
});

test('a look-alike engine is resolved by one answer', async ({ page }) => {
  const user = new User(page);
  await user.signIn('clerk');
  await page.goto('/due?state=no-match');
  await user.row('22 clinic van').getByRole('link', { name: 'Resolve' }).click();
  await expect(page.getByText('No firm match yet: Which variant of the engine is it?')).toBeVisible();
  await page.getByLabel('Seen on the engine or its plate').selectOption('without deactivation');
  await page.getByRole('button', { name: 'Resolve it' }).click();
  await expect(page.getByText('1.25 to 1.35 mm')).toBeVisible();
});

test('a person busy elsewhere cannot be booked twice', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await user.goTo('Work orders');
  await page.getByRole('link', { name: '1004' }).click();
  await page.getByLabel('Start').fill('10:00');
  await page.getByLabel('Person').selectOption('M. Vane');
  await page.getByRole('button', { name: 'Plan', exact: true }).click();
  await expect(page.getByText(/This person is busy then: work order 1001 from 08:00 to 11:30/)).toBeVisible();
});

test('a spreadsheet gone wrong is explained', async ({ page }) => {
  const user = new User(page);
  await user.signIn('clerk');
  await user.goTo('Import');
  await page
    .getByLabel(/CSV files/)
    .setInputFiles({ name: 'fleet.xlsx', mimeType: 'application/zip', buffer: Buffer.from('PK\u0003\u0004 not text') });
  await page.getByRole('button', { name: 'Check', exact: true }).click();
  await expect(page.getByText(/This is a workbook or ZIP file, not text. Save the sheet as CSV/)).toBeVisible();
  await page.getByLabel(/CSV files/).setInputFiles({
    name: 'days.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('unit_number,read_on,odometer,unit\n11,03/11/2026,121000,km\n999,04/11/2026,1,km'),
  });
  await page.getByRole('button', { name: 'Check', exact: true }).click();
  await expect(page.getByText(/can be read two ways/)).toBeVisible();
  await page.getByRole('button', { name: 'The day (18/04/2026)' }).click();
  await expect(page.getByText('unit 11 on 2026-11-03')).toBeVisible();
  await expect(user.row('unit 999')).toContainText('import vehicles.csv first');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /Refused rows as CSV/ }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('refused-rows.csv');
});

test('a lost connection loses nothing that was typed', async ({ page, context }) => {
  const user = new User(page);
  await user.signIn('technician');
  await user.goTo('Work orders');
  await page.getByRole('link', { name: '1001' }).click();
  await page.getByRole('link', { name: 'At the vehicle' }).click();
  await page.getByRole('link', { name: /^Cylinder 4/ }).click();
  await expect(page.getByRole('heading', { name: 'Cylinder 4', exact: true })).toBeVisible();
  await expect(page.getByText('All sent')).toBeVisible();
  await expect
    .poll(() => page.evaluate(async () => Boolean(await caches.match(window.location.pathname))), { timeout: 30_000 })
    .toBe(true);
  await context.setOffline(true);
  await user.fillSite({ found: 'EM-7310', oldGap: '1.18', part: 'EM-7310', gap: '1.05', torque: '17.5' });
  await page.getByLabel('Remark').fill('stiff');
  await expect(page.getByRole('status', { name: 'Not yet sent' })).toHaveText(/7 kept here, no connection/);
  await page.reload();
  await expect(page.getByLabel(/^New gap/)).toHaveValue('1.05');
  await expect(page.getByRole('status', { name: 'Not yet sent' })).toHaveText(/7 kept here/);
  await context.setOffline(false);
  await expect(page.getByText('All sent')).toBeVisible({ timeout: 30_000 });
  await page.reload();
  await expect(page.getByLabel(/^New gap/)).toHaveValue('1.05');
});
