import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';

/* Compressed JavaScript that the browser is sent for a page of the running demo, and for what it loads afterwards. */

const base = process.argv[2] ?? 'http://127.0.0.1:3000';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const context = await browser.newContext({ baseURL: base });
const page = await context.newPage();
await page.goto('/sign-in');
await page.getByLabel('Address').fill('supervisor@skerrymoor.example');
await page.getByLabel('Password').fill('island-service');
await page.getByRole('button', { name: 'Sign in' }).click();
await page.getByRole('heading', { name: 'Due' }).waitFor();
const order = await page.getByRole('link', { name: '1001' }).getAttribute('href');
const vehicle = await page.getByRole('link', { name: /^32 lifeboat/ }).getAttribute('href');

for (const [name, path] of [
  ['Due', '/due'],
  ['work order', order],
  ['site entry', `${order}/sites/4A`],
  ['vehicle', vehicle],
] as const) {
  const html = await (await context.request.get(path ?? '/due')).text();
  const named = [...new Set([...html.matchAll(/<script[^>]+src="([^"]+\.js[^"]*)"/g)].map((match) => match[1] ?? ''))];
  const sizes = await Promise.all(
    named.map(async (src) => gzipSync(await (await context.request.get(src)).body(), { level: 9 }).length),
  );
  const total = sizes.reduce((sum, size) => sum + size, 0);
  process.stdout.write(
    `JavaScript for ${name}: ${(total / 1000).toFixed(0)} kB compressed in ${named.length} files (aim: under 220 kB)\n`,
  );
}
await browser.close();
