import { expect, test, User } from './user';

test('the pressure chart is walked by keyboard, selected, and work is opened and deferred from it', async ({
  page,
}) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await user.goTo('Pressure');
  const chart = page.getByRole('listbox', { name: /Pressure chart/ });
  await expect(chart.getByRole('option').first()).toBeAttached();
  await chart.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  const active = await chart.getAttribute('aria-activedescendant');
  const option = page.locator(`#${active}`);
  await expect(option).toHaveAttribute('aria-label', /a week, .* for a failure/);
  await page.keyboard.press('Enter');
  await expect(option).toHaveAttribute('aria-selected', 'true');
  await expect(page.getByRole('heading', { name: 'Selected: 1' })).toBeVisible();
  await page.keyboard.press('+');
  await page.keyboard.press('0');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Highest pressure' })).toBeVisible();

  await page.getByRole('checkbox', { name: 'Select unit 142' }).check();
  await page.getByRole('checkbox', { name: 'Select unit 9' }).check();
  await page.getByRole('button', { name: 'Open 2 work orders' }).click();
  const opened = page.getByRole('status').filter({ hasText: '2 opened.' });
  await expect(opened.getByRole('link', { name: /^Work order \d+$/ })).toHaveCount(2);
  await expect(page.getByRole('listitem').filter({ hasText: '142 road-gritter' })).toContainText(/order \d+/);

  await page.getByText('Defer these 2').click();
  await page.getByLabel('Until').fill('2027-01-15');
  await page.getByRole('button', { name: 'Defer', exact: true }).click();
  await expect(page.getByText('Say why, so that the next person can tell.')).toBeVisible();
  await page.getByLabel('Why').fill('the crane is hired elsewhere');
  await page.getByRole('button', { name: 'Defer', exact: true }).click();
  await expect(page.getByText('2 deferred.')).toBeVisible();
  await page.getByRole('link', { name: /^142 / }).click();
  await expect(page.getByText(/Deferred to 15 Jan 2027: the crane is hired elsewhere \(R. Tolland\)/)).toBeVisible();
  await page.getByRole('button', { name: 'Take the deferral back' }).click();
  await expect(page.getByText(/Was deferred to 15 Jan 2027/)).toBeVisible();
});

test('a drag over the chart selects what lies under it, and a narrower depot shows its own fleet', async ({ page }) => {
  const user = new User(page);
  await user.signIn('viewer');
  await user.goTo('Pressure');
  const chart = page.getByRole('listbox', { name: /Pressure chart/ });
  await expect(chart.getByRole('option').first()).toBeAttached();
  const all = await chart.getByRole('option').count();
  const box = await chart.boundingBox();
  if (!box) throw new Error('no chart');
  await page.mouse.move(box.x + box.width * 0.6, box.y + 40);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 40, box.y + box.height - 60, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('heading', { name: /^Selected: \d+/ })).toBeVisible();
  const selected = await chart.locator('[aria-selected="true"]').count();
  expect(selected).toBeGreaterThan(3);
  expect(selected).toBeLessThan(all);
  await expect(page.getByRole('button', { name: /Open/ })).toBeHidden();
  await page.getByRole('link', { name: 'Eastlight' }).click();
  await expect(page.getByText('· Eastlight')).toBeVisible();
  await expect.poll(() => chart.getByRole('option').count()).toBeLessThan(all);
});

test('costs are set, refused where they cannot be, and the horizon answers what if', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/pressure/costs');
  await page.getByLabel('Currency').fill('QQQ');
  await page.getByRole('button', { name: 'Save the costs' }).click();
  await expect(page.getByText('Give the three letters of a currency.')).toBeVisible();
  await page.getByLabel('Currency').fill('EUR');
  await page.getByLabel('road-gritters').fill('2400');
  await page.getByRole('button', { name: 'Save the costs' }).click();
  await expect(page.getByText('Saved. The pressure of every vehicle is computed anew.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('road-gritters')).toHaveValue('2400');
  await page.goto('/pressure/horizon');
  await page.getByRole('link', { name: '75 %' }).click();
  await expect(page.getByRole('row', { name: /Vehicles due in 8 weeks/ })).toBeVisible();
  const cells = await page
    .getByRole('row', { name: /Vehicles due in 8 weeks/ })
    .getByRole('cell')
    .allTextContents();
  expect(Number(cells[2])).toBeGreaterThan(Number(cells[1]));
});
