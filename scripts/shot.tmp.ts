import { chromium } from '@playwright/test';
const base = 'http://127.0.0.1:3000';
const [who, w, h, scheme, ...paths] = process.argv.slice(2);
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const context = await browser.newContext({ viewport: { width: Number(w), height: Number(h) }, colorScheme: scheme as 'light', baseURL: base });
const page = await context.newPage();
page.on('console', (m) => ['error', 'warning'].includes(m.type()) && console.log('CONSOLE', m.text().slice(0, 200)));
page.on('pageerror', (e) => console.log('PAGEERROR', e.message.slice(0, 300)));
await page.goto('/sign-in');
await page.getByLabel('Address').fill(`${who}@skerrymoor.example`);
await page.getByLabel('Password').fill('island-service');
await page.getByRole('button', { name: 'Sign in' }).click();
await page.waitForURL('**/due');
for (const p of paths) {
  const [path, name, full, link] = p.split('::');
  await page.goto(path!);
  if (link) { const to = await page.getByRole('link', { name: link }).first().getAttribute('href'); await page.goto(to!); }
  await page.waitForLoadState('networkidle');
  await page.screenshot({ path: `/tmp/shots/${name}.png`, fullPage: full === 'full' });
  console.log(name, page.url(), await page.evaluate(() => document.documentElement.scrollWidth));
}
await browser.close();
