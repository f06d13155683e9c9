import { expect, test, User } from './user';

test('a job that stops looks stopped everywhere, and goes on by one press', async ({ page }) => {
  const user = new User(page);
  await user.signIn('technician');
  await page.goto('/work-orders');
  const order = (await page.getByRole('link', { name: '1001' }).getAttribute('href')) ?? '';
  await page.goto(`${order}/stop`);
  await page.getByRole('button', { name: 'Stop the job, draft the order' }).click();
  await expect(page.getByText('Choose why it stops.')).toBeVisible();
  await page.getByText('A boot is torn', { exact: true }).click();
  await page.getByText('5', { exact: true }).click();
  await page.getByLabel('Note for whoever goes on').fill('the clip lies in the tray');
  await page.getByLabel('Who goes on').selectOption({ label: 'A. Corrie' });
  await page.getByRole('button', { name: 'Stop the job, draft the order' }).click();
  const stopped = page.getByText(/^Stopped by .* because: a boot is torn \(5\)\./);
  await expect(stopped).toBeVisible();

  for (const path of [order, `${order}/floor`]) {
    await page.goto(path);
    await expect(stopped).toBeVisible();
    await expect(page.getByText('the clip lies in the tray')).toBeVisible();
    await expect(page.getByText('A. Corrie goes on')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible();
  }
  await page.goto('/plan?depot=Northhaven');
  const bar = page.getByRole('button', { name: /^unit 32 .*Stopped by/ });
  await bar.click();
  await expect(page.getByRole('region', { name: 'Unit 32' }).getByText(/^Stopped by/)).toBeVisible();

  await page.goto(`${order}/floor`);
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(stopped).toBeHidden();
  await page.goto(order);
  await expect(page.getByText('In the bay', { exact: false }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Go on' })).toBeHidden();
});
