import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';

/* Compressed JavaScript that a browser fetches for a page of the running demo, each page in a fresh browser. */

const base = process.argv[2] ?? 'http://127.0.0.1:3000';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const signedIn = await browser.newContext({ baseURL: base });
const page = await signedIn.newPage();
await page.goto('/sign-in');
await page.getByLabel('Address').fill('supervisor@skerrymoor.example');
await page.getByLabel('Password').fill('island-service');
await page.getByRole('button', { name: 'Sign in' }).click();
await page.getByRole('heading', { name: /Service pressure/ }).waitFor();
await page.goto('/work-orders');
const order = await page.getByRole('link', { name: '1001' }).getAttribute('href');
await page.goto('/due?search=32');
const vehicle = await page.getByRole('link', { name: /^32 lifeboat/ }).getAttribute('href');
const storageState = await signedIn.storageState();

for (const [name, path] of [
  ['Pressure', '/pressure'],
  ['Due', '/due'],
  ['work order', order],
  ['floor view', `${order}/floor`],
  ['vehicle, with its chart', vehicle],
  ['engines', '/engines'],
  ['engine editor', '/engines/new'],
  ['part in hand', '/parts'],
  ['torque on the bench', '/bench/torque'],
] as const) {
  const context = await browser.newContext({ baseURL: base, storageState });
  const fresh = await context.newPage();
  const sizes: Promise<number>[] = [];
  fresh.on('response', (response) => {
    if (response.request().resourceType() === 'script')
      sizes.push(response.body().then((body) => gzipSync(body, { level: 9 }).length));
  });
  await fresh.goto(path ?? '/due', { waitUntil: 'networkidle' });
  const total = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
  process.stdout.write(`JavaScript for ${name}: ${(total / 1000).toFixed(0)} kB compressed in ${sizes.length} files\n`);
  await context.close();
}
await browser.close();
