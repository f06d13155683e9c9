import { readFileSync } from 'node:fs';
import { expect, test, User } from './user';

const KINDS = [
  'engine-families',
  'parts',
  'supersessions',
  'cross-references',
  'spec-sheets',
  'vehicles',
  'odometer',
  'service-history',
];

test.use({ workspace: 'empty' });

test('a supervisor starts from an empty workspace, and the next due date moves', async ({ page, browser }) => {
  // A whole day's work on one page after another.
  test.setTimeout(240_000);
  const user = new User(page);

  await test.step('first run with scripts off: what is wrong is said, what was typed stays, no address holds it', async () => {
    const bare = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
    await bare.goto('/first-run');
    await bare.getByLabel('Name of the fleet').fill('Skerrymoor Island Services');
    await bare.getByLabel('Password').fill('short');
    await bare.getByRole('button', { name: 'Make the workspace' }).click();
    await expect(bare.getByText('At least 10 characters.')).toBeVisible();
    await expect(bare.getByLabel('Name of the fleet')).toHaveValue('Skerrymoor Island Services');
    await expect(bare.getByLabel('Password')).toHaveValue('');
    expect(bare.url()).toMatch(/first-run$/);
  });

  await test.step('first run', async () => {
    await page.goto('/');
    await expect(page).toHaveURL(/first-run/);
    await page.getByLabel('Name of the fleet').fill('Skerrymoor Island Services');
    await page.getByLabel('Your name').fill('R. Tolland');
    await page.getByLabel('Address to sign in with').fill('tolland@skerrymoor.example');
    await page.getByLabel('Password').fill('short');
    await page.getByRole('button', { name: 'Make the workspace' }).click();
    await expect(page.getByText('At least 10 characters.')).toBeVisible();
    await expect(page.getByLabel('Your name')).toHaveValue('R. Tolland');
    await page.getByLabel('Password').fill('a good long password');
    await page.getByRole('button', { name: 'Make the workspace' }).click();
    await expect(page.getByRole('heading', { name: 'Import' })).toBeVisible();
  });

  await test.step('import the samples, uploaded all at once', async () => {
    await user.upload(...KINDS.toReversed().map((kind) => `samples/${kind}.csv`));
    await expect(page.getByRole('heading', { name: 'Uploaded, not imported yet' })).toBeVisible();
    for (const kind of KINDS) {
      await page
        .getByRole('link', { name: `${kind}.csv`, exact: true })
        .first()
        .click();
      await expect(page.getByRole('heading', { name: `Check of ${kind}.csv` })).toBeVisible();
      await expect(page.getByRole('link', { name: '0 refused' })).toBeVisible();
      await page.getByRole('button', { name: /^Confirm: add \d+/ }).click();
      await expect(page.getByRole('heading', { name: 'Import', exact: true })).toBeVisible();
    }
  });

  await test.step('add a technician and a bay', async () => {
    await user.goTo('People');
    await page.getByLabel('Name', { exact: true }).fill('A. Corrie');
    await page.getByLabel('Address to sign in with').fill('corrie@skerrymoor.example');
    await page.getByLabel('First password').fill('another good password');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByText('A. Corrie can sign in now.')).toBeVisible();
    await user.goTo('Settings');
    await page.getByLabel('Depot', { exact: true }).selectOption('Machair Road');
    await page.getByLabel('Name of the bay').fill('Bay 1');
    await page.getByRole('button', { name: 'Add the bay' }).click();
    await expect(page.getByText('Machair Road Bay 1', { exact: true })).toBeVisible();
  });

  await test.step('find who is due and open a work order', async () => {
    await user.goTo('Due');
    await expect(user.row('15 mobile library')).toContainText('Past the limit');
    await expect(user.row('15 mobile library')).toContainText('118 %');
    await page.getByRole('button', { name: 'Open a work order for unit 15', exact: true }).click();
    // A file can name whoever it likes as the one who checked a sheet: only a person says so here.
    await expect(
      page.getByRole('alert').filter({ hasText: 'checked by nobody but the one who entered it' }),
    ).toBeVisible();
    await page.getByRole('link', { name: /^15 mobile library/ }).click();
    await page.getByLabel('Why it may be worked by all the same').fill('compared with the book by me');
    await page.getByRole('button', { name: 'Open a work order with this reason' }).click();
    await expect(page.getByRole('heading', { name: /Work order 1001: unit 15/ })).toBeVisible();
    await expect(page.getByText('0.65 to 0.75 mm', { exact: true })).toBeVisible();
    await expect(page.getByText('11.1 to 14.0 lbf·ft')).toBeVisible();
  });

  await test.step('plan it', async () => {
    await page.getByLabel('Day').fill('2026-11-17');
    await page.getByLabel('Start').fill('09:00');
    await page.getByRole('button', { name: 'Plan', exact: true }).click();
    await expect(page.getByText('17 Nov 2026 09:00, Machair Road Bay 1, A. Corrie')).toBeVisible();
    await user.goTo('Plan');
    await page.goto('/plan?depot=Machair+Road');
    await page.getByRole('button', { name: /^unit 15 .*Tue 17 Nov 09:00/ }).click();
    await page.getByRole('link', { name: 'Work order 1001' }).click();
  });

  await test.step('record every site, in the units at hand', async () => {
    await page.getByRole('link', { name: 'At the vehicle' }).click();
    await user.place('New parts');
    await page.getByRole('button', { name: /^Read off each: all read EM-7205/ }).click();
    await page.getByRole('button', { name: 'Each of 3 measures 0.70 mm' }).click();
    await user.openUp();
    await expect(page.getByRole('heading', { name: 'Cylinder 1' })).toBeVisible();
    await page.getByRole('button', { name: 'from 1' }).click();
    await user.fillSite({ found: 'EM-7205', oldGap: '0.92', part: 'EM-7205', gap: '0.30 in', torque: '17 Nm' });
    await expect(page.getByText(/0.300 in is 7.62 mm/)).toBeVisible();
    await expect(page.getByRole('status', { name: 'Not yet sent' })).toHaveText(/1 to be mended first/);
    await page.getByRole('button', { name: '0.030 in = 0.76 mm' }).click();
    await page.getByRole('button', { name: /^Save cylinder .*Started by hand, torqued 17 Nm, next: 2/ }).click();
    await expect(page.getByText(/close it by 0.06 mm/).first()).toBeVisible();
    // What is wrong is gone to, and leaves the list as soon as it is right.
    await expect(page.getByLabel(/^New gap/)).toBeFocused();
    await page.getByLabel(/^New gap/).fill('0,70');
    await expect(page.locator('.site-main .fault')).toHaveCount(0);
    await page.getByRole('button', { name: /^Save cylinder .*Started by hand, torqued 17 Nm, next: 2/ }).click();
    await expect(page.getByRole('heading', { name: 'Cylinder 2' })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText(/left: 1 2 3/)).toBeVisible();
    await page.getByRole('link', { name: /^Cylinder 1/ }).click();
    await page.getByRole('button', { name: /^Save cylinder .*Started by hand, torqued 17 Nm, next: 2/ }).click();
    await expect(page.getByRole('heading', { name: 'Cylinder 2' })).toBeVisible();
    // Each figure on a drawing says which gap it is: here the old ones, on the order the new ones.
    await expect(page.locator('svg text', { hasText: 'old gap' })).toBeVisible();
    await user.fillSite({ part: 'em 7205', gap: '.028 in', torque: '12.5 ft-lb' });
    await page.getByRole('button', { name: /next: 3/ }).click();
    await expect(page.getByRole('heading', { name: 'Cylinder 3' })).toBeVisible();
    await user.fillSite({ found: 'EM-7310', part: 'EM-7205', gap: '28 thou', torque: '17' });
    await expect(page.getByText('not what the record says')).toHaveCSS('color', 'rgb(142, 17, 55)');
    await page.getByRole('button', { name: /all cylinders done/ }).click();
    await expect(page.getByText(/^all cylinders done/).first()).toBeVisible();
  });

  await test.step('answer every step and close', async () => {
    await user.answerSteps();
    await expect(page.getByText('All sent')).toBeVisible();
    await page.getByRole('link', { name: 'Work order 1001' }).click();
    await expect(page.getByText('3 of 3 cylinders done').first()).toBeVisible();
    await expect(page.locator('svg text', { hasText: 'new gap' })).toHaveCount(3);
    await page.getByRole('button', { name: /I did the work: hand it over/ }).click();
    await expect(page.getByText(/Handed over by R. Tolland/)).toBeVisible();
    await page.getByLabel('Odometer now').fill('10499');
    await page.getByRole('button', { name: 'Verify, close and move the due date' }).click();
    await expect(page.getByText(/this one goes backwards, probably has a digit dropped/).first()).toBeVisible();
    await page.getByLabel('Odometer now').fill('105 010');
    await page.getByRole('button', { name: 'Verify, close and move the due date' }).click();
    await expect(page.getByText('105,010 km (typed “105 010”)')).toBeVisible();
  });

  await test.step('the due date has moved, and the list goes out as CSV', async () => {
    await user.goTo('Due');
    await page.getByRole('combobox', { name: 'Depot' }).selectOption('Machair Road');
    await expect(page).toHaveURL(/depot=Machair/);
    await expect(user.row('15 mobile library')).toContainText('0 %');
    await expect(user.row('15 mobile library')).toContainText('Later');
    await page.getByRole('button', { name: 'Print, files' }).click();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'CSV of this list' }).click(),
    ]);
    const csv = readFileSync(await file.path(), 'utf8');
    expect(csv.split('\r\n')[0]).toContain('unit_number');
    expect(csv).toMatch(/15,mobile library,Machair Road.*,later,0,/);
    expect(csv).not.toContain('Northhaven');
  });
});
