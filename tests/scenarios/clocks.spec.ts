import { expect, test, User } from './user';

test('hours, another fault and a change of leads are recorded on the vehicle, found by keyboard', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor', '/due');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: /Unit, work order/ }).fill('143');
  await expect(page.getByRole('option', { name: /^143 road-gritter/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /Unit 143/ })).toBeVisible();
  await expect(page.getByText(/by engine hours/).first()).toBeVisible();
  await expect(page.getByText(/Engine hours since, [\d,]+ h at 40 km an hour/)).toBeVisible();

  await page.getByText('Record a reading').click();
  await page.getByLabel('Reading', { exact: true }).fill('12 h');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByText('kept as suspect: goes backwards')).toBeVisible();
  await user.goTo('Odometer');
  const item = page.getByText('12 h', { exact: true }).locator('..');
  await item.getByRole('button', { name: 'Reject' }).click();
  await expect(page.getByText('12 h', { exact: true })).toBeHidden();

  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: /Unit, work order/ }).fill('42 road');
  await page.getByRole('option', { name: /^42 road-gritter/ }).click();
  await page.getByText('Other fault', { exact: true }).click();
  await page.getByLabel('Which fault').fill('exhaust leak at the manifold');
  await page.getByRole('button', { name: 'Block this work' }).click();
  await expect(
    page.getByText(/Waits for another fault: exhaust leak at the manifold, no day given/).first(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Open a work order' }).click();
  await expect(page.getByText(/New plugs would be read by a fault that is not theirs/)).toBeVisible();
  await page.getByRole('button', { name: 'The other fault is mended' }).click();
  await expect(page.getByText(/Waited for another fault/)).toBeVisible();

  await user.tab('Components');
  await page.getByText('Record that some were changed').click();
  await page.getByLabel('What', { exact: true }).selectOption('lead_set');
  await page.getByLabel('Odometer then').fill('61,000');
  await page.getByLabel('Day').last().fill('2026-05-04');
  await page.getByLabel('Why the old ones came out').selectOption('found_damaged');
  await page.getByRole('button', { name: 'Record the change' }).click();
  await expect(page.getByRole('row', { name: /Lead set/ })).toContainText('4 May 2026, 61,000 km');
});

test('what the removed parts say is judged on the work order, and followed up', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await user.goTo('Work orders');
  await page.getByRole('link', { name: '1001' }).click();
  await user.tab('Findings');
  const findings = page.locator('#findings');
  await expect(findings.getByText('A lean or hot cylinder')).toBeVisible();
  await expect(findings.getByText('Another part than the record says')).toBeVisible();
  await findings.getByText('Confirm, correct or reject').first().click();
  await findings.getByRole('button', { name: 'Reject' }).first().click();
  await expect(findings.getByText('Say why, in a few words.')).toBeVisible();
  await findings.getByRole('button', { name: 'Confirm', exact: true }).first().click();
  await expect(findings.getByText(/Confirmed by R. Tolland/)).toBeVisible();
  await findings.getByLabel('By', { exact: true }).first().fill('2026-12-01');
  await findings.getByRole('button', { name: 'Add the follow-up' }).first().click();
  await findings.getByRole('link', { name: 'All follow-ups' }).click();
  await expect(page.getByRole('row', { name: /A lean or hot cylinder/ })).toBeVisible();
  const row = page.getByRole('row', { name: /Fuel trims of both banks/ });
  await row.getByText('Done', { exact: true }).click();
  await row.getByLabel('What came of it').fill('trims equal');
  await row.getByRole('button', { name: 'Mark as done' }).click();
  await expect(page.getByText('Done: trims equal')).toBeVisible();
});

test('what stops the work is loud at the vehicle as it is described, and a supervisor decides', async ({ page }) => {
  const user = new User(page);
  await user.signIn('technician');
  await user.goTo('Work orders');
  await page.getByRole('link', { name: '1006' }).click();
  await page.getByRole('link', { name: 'At the vehicle' }).click();
  const stop = page.getByRole('alert').filter({ hasText: 'STOP at 2, 3: Coolant between neighbours' });
  await expect(stop).toBeVisible();
  await page.getByRole('link', { name: /^Cylinder 3\b/ }).click();
  await page.getByRole('button', { name: 'Describe it' }).click();
  const trace = page.getByRole('button', { name: /nose coloured trace/ });
  // Clear, beyond doubt, just visible, taken back.
  for (let presses = 0; presses < 3; presses++) await trace.click();
  await expect(stop).toHaveCount(0);
  await trace.click();
  await expect(stop).toBeVisible();
  await expect(page.getByRole('status', { name: 'Not yet sent' })).toHaveText('All sent');
  await user.signOut();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await user.signIn('supervisor');
  await user.goTo('Work orders');
  await page.getByRole('link', { name: '1006' }).click();
  const onDesk = page.getByRole('alert').filter({ hasText: 'Stop at 2, 3' });
  await onDesk.getByRole('link', { name: 'A supervisor has to decide' }).click();
  const findings = page.locator('#findings');
  await findings.getByLabel('Why', { exact: true }).first().fill('head gasket on order 71');
  await findings.getByRole('button', { name: 'Confirm', exact: true }).first().click();
  await expect(findings.getByText(/Confirmed by R. Tolland/)).toBeVisible();
  await expect(onDesk).toHaveCount(0);
});

test('a set that looks alike is described by two presses', async ({ page }) => {
  const user = new User(page);
  await user.signIn('technician');
  await user.goTo('Work orders');
  await page.getByRole('link', { name: '1002' }).click();
  await page.getByRole('link', { name: 'At the vehicle' }).click();
  await user.place('New parts');
  await page.getByRole('button', { name: /^Read off each/ }).click();
  await page
    .getByRole('button', { name: /^Each of 3 measures/ })
    .nth(1)
    .click();
  await user.openUp();
  await page.getByRole('button', { name: /^All normal/ }).click();
  await page.getByRole('button', { name: 'All alike: so are the other 2' }).click();
  await page.getByRole('link', { name: /^Cylinder 3\b/ }).click();
  await expect(page.getByRole('heading', { name: 'Cylinder 3', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: /^✓ All normal/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^✓ All normal/ })).toHaveCount(0);
});
