import { expect, test, User } from './user';

test('a yard walk is typed down the column, and what cannot follow is kept apart', async ({ page }) => {
  const user = new User(page);
  await user.signIn('technician');
  await page.goto('/odometer/yard-walk?depot=Northhaven');
  const first = page.getByLabel('Reading of unit 122');
  await expect(first).toBeVisible();
  const expected = await user.row(/^122 /).locator('td').nth(3).innerText();
  const near = String(Number(expected.replace(/\D/g, '')) + 15);
  await expect(async () => {
    await first.fill('');
    await first.fill(near);
    await expect(page.getByRole('button', { name: 'Save 1 reading' })).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.keyboard.press('Enter');
  await expect(first).not.toBeFocused();
  await page.keyboard.type('7');
  await page.getByRole('button', { name: 'Save 2 readings' }).click();
  await expect(page.getByText('1 kept as suspect: see the other page.')).toBeVisible();
  await expect(user.row(/^122 /)).toContainText('accepted');
});

test('a suspect reading is resolved by one press, and the due list uses it', async ({ page, request }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await user.goTo('Odometer');
  await expect(
    page.getByRole('heading', { name: /Probably miles for kilometres|Goes backwards/ }).first(),
  ).toBeVisible();
  const row = page.locator('form').filter({ has: page.getByLabel('Or it was, unit 12', { exact: true }) });
  await row.getByRole('button', { name: /^Take / }).click();
  await expect(page.getByLabel('Or it was, unit 12', { exact: true })).toHaveCount(0);
  expect((await request.get('/api/v1/health')).status()).toBe(200);
});
