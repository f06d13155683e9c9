import { chromium } from '@playwright/test';
import { CHROMIUM } from '../scripts/lib/command.mjs';

/** The running demo in a browser, signed in as its supervisor, with the addresses of one vehicle and one open work order. */
export async function signedIn(base: string) {
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--disable-gpu'],
  });
  const context = await browser.newContext({ baseURL: base });
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('Address').fill('supervisor@skerrymoor.example');
  await page.getByLabel('Password').fill('island-service');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: /Service pressure/ }).waitFor();
  await page.goto('/due?search=32');
  const row = page.getByRole('row').filter({ hasText: '32 lifeboat' });
  const order = (await row.getByRole('link', { name: /^\d{4}$/ }).getAttribute('href')) ?? '';
  const vehicle = (await page.getByRole('link', { name: /^32 lifeboat/ }).getAttribute('href')) ?? '';
  return { browser, storageState: await context.storageState(), order, vehicle };
}
