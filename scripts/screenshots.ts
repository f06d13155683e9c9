import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from './lib/command.mjs';

/* Takes the pictures of docs/screenshots/ from a running demo: npm run demo, then npm run screenshots. */

const base = process.env.ISOBAR_URL ?? 'http://127.0.0.1:3000';
const folder = process.env.SHOTS ?? 'docs/screenshots';
const only = process.argv.slice(2);

const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox', '--disable-gpu'] });

async function signedIn(width: number, height: number, colorScheme: 'light' | 'dark' = 'light'): Promise<Page> {
  const context = await browser.newContext({ viewport: { width, height }, colorScheme, baseURL: base });
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('Address').fill('supervisor@skerrymoor.example');
  await page.getByLabel('Password').fill('island-service');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/pressure');
  return page;
}

async function take(page: Page, name: string, fullPage = false): Promise<void> {
  if (only.length > 0 && !only.includes(name)) return;
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(500);
  await page.screenshot({ path: `${folder}/${name}.png`, fullPage });
}

async function open(page: Page, link: string | RegExp): Promise<void> {
  const to = await page.getByRole('link', { name: link }).first().getAttribute('href');
  await page.goto(to ?? '/due');
}

const desk = await signedIn(1280, 800);
await desk.getByRole('option').first().waitFor();
await take(desk, 'pressure');
await desk.goto('/due');
await take(desk, 'due');
await open(desk, /^32 lifeboat/);
await desk.getByRole('img').locator('svg').waitFor();
await take(desk, 'vehicle');
await desk.goto('/due?search=32');
await open(desk, /^\d{4}$/);
await take(desk, 'work-order');
const order = new URL(desk.url()).pathname;
await desk.goto(`${order}/tray`);
await take(desk, 'tray');
await desk.goto('/misfires');
await open(desk, /^104 meal/);
await take(desk, 'misfire');
await desk.goto('/import');
const csv =
  'unit_number,read_on,odometer,unit,source\n11,2026-11-14,121480,km,yard walk\n12,2026-11-14,9844,km,yard walk\n13,2026-11-14,88,360,km,yard walk\n99,2026-11-14,50100,km,yard walk\n15,2026-11-31,105020,km,yard walk\n11,2026-11-14,121480,km,yard walk';
await desk
  .getByLabel(/CSV files/)
  .setInputFiles({ name: 'yard-walk.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
await desk.getByRole('button', { name: 'Check', exact: true }).click();
await desk.getByRole('heading', { name: /Check of/ }).waitFor();
await take(desk, 'import-check');
await desk.getByRole('button', { name: 'Discard this file' }).click();
await desk.waitForURL('**/import');
await desk.goto('/odometer');
await take(desk, 'odometer');
await desk.goto('/pressure/horizon?share=0.75');
await desk.locator('svg').last().waitFor();
await take(desk, 'horizon');
await desk.goto('/engines');
await take(desk, 'engines', true);
await open(desk, 'PW-31W');
await take(desk, 'engine');
await desk.goto('/parts?number=FS-5201');
await take(desk, 'part-in-hand');
await desk.goto('/parts/receiving');
await take(desk, 'receiving');
await desk.goto('/bench');
await desk.getByLabel('Spec sheet').selectOption({ label: 'PW-34M, EM-7310, Demo data: Pellworm engine book 34' });
await desk.getByLabel('Gaps measured').fill('1.05 1.04 1.06 0.92 1.05 1.04');
await take(desk, 'bench-gaps');

const tablet = await signedIn(820, 1180);
await tablet.goto(`${order}/floor#sites-4A`);
await take(tablet, 'site-tablet');
const phone = await signedIn(390, 844);
await phone.goto(`${order}/floor#sites-4A`);
await take(phone, 'site-phone');
await phone.goto('/due');
await take(phone, 'due-phone');
const dark = await signedIn(1280, 800, 'dark');
await dark.getByRole('option').first().waitFor();
await take(dark, 'pressure-dark');
// Last: it books what is due.
await desk.goto('/plan');
await desk.getByRole('button', { name: 'Plan again' }).click();
await desk.getByRole('button', { name: 'Adopt' }).click({ timeout: 60_000 });
await desk.getByText(/booked, .* moved/).waitFor({ timeout: 60_000 });
await desk.goto('/plan?depot=Northhaven');
await desk.locator('.job-bar').nth(1).click();
await desk.evaluate(() => window.scrollTo(0, 0));
await take(desk, 'plan');
await browser.close();
