import { expect } from '@playwright/test';
import { test } from './app';
import { User } from './user';

/* A file too large for a request: the page says what a worker is doing, and is not kept waiting by it. */

const LINES = 40_000;
const file = [
  'unit_number,read_on,odometer,unit,source',
  ...Array.from({ length: LINES - 1 }, (_, i) => `X${i},2026-11-10,${90_000 + i},km,yard walk`),
  '143,2026-11-14,0,km,not a figure that follows',
].join('\n');

test('a large file is checked and imported beside the app, and says how far it is', async ({ page }) => {
  test.setTimeout(90_000);
  const user = new User(page);
  await user.signIn('supervisor');
  await user.goTo('Import');
  await page
    .getByLabel(/CSV files/)
    .setInputFiles({ name: 'odometer-2026.csv', mimeType: 'text/csv', buffer: Buffer.from(file) });
  await page.getByRole('button', { name: 'Check', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'odometer-2026.csv' })).toBeVisible();
  await expect(page.getByText(/It is being checked/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Check of odometer-2026.csv' })).toBeVisible({ timeout: 45_000 });
  await expect(page.getByText('40,000 rows · nothing is written yet')).toBeVisible();
  await expect(page.getByText('39,999 refused', { exact: true })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: /Refused rows as CSV/ }).click();
  expect((await download).suggestedFilename()).toBe('refused-rows.csv');
  await page.getByRole('button', { name: /^Confirm: add 1/ }).click();
  await expect(page.getByText(/It is being imported|It was applied/)).toBeVisible();
  await expect(page.getByText('It was applied.')).toBeVisible({ timeout: 45_000 });
  await page.getByRole('link', { name: 'Back to Import' }).click();
  const counts = user.row('odometer-2026.csv').getByRole('cell');
  await expect(counts).toContainText(['odometer-2026.csv', '1', '0', '0', '39999']);
  await page.goto('/settings/jobs');
  await expect(user.row('Import of a large file')).toContainText('done');
});
