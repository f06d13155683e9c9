import type { Browser, Page } from '@playwright/test';
import { expect, test, User } from './user';

/* A misfire from a driver's words on a phone to the visit that cures it. */

test.describe.configure({ mode: 'serial' });

const UNIT = '107';

/** The driver, on a phone, without an account. @returns the number of the misfire */
async function driverReports(browser: Browser, address: string): Promise<string> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const phone = await context.newPage();
  await phone.goto(address);
  await phone.getByRole('button', { name: 'Report it' }).click();
  await expect(phone.getByText('Give the number of the vehicle.')).toBeVisible();
  const report = async (unit: string) => {
    await phone.getByLabel('Number of the vehicle').fill(unit);
    await phone.getByText('on, steady').click();
    await phone.getByText('under load, uphill').click();
    await phone.getByLabel('In your words').fill('shakes on the hill to the quarry');
    await phone.getByLabel('Who are you?').fill('D. Marwick');
    await phone.getByRole('button', { name: 'Report it' }).click();
    await expect(phone.getByRole('heading', { name: 'The workshop has it' })).toBeVisible();
  };
  // A unit that nobody has: the words are kept all the same.
  await report('999');
  await expect(phone.getByText(/The number of the vehicle was not found/)).toBeVisible();
  await phone.goto(address);
  await report(UNIT);
  const number = /misfire (\d+)/.exec(await phone.locator('main').innerText())?.[1] ?? '';
  await context.close();
  return number;
}

/** What the dash shows a little later than it was last read, whoever read it. */
async function dashOf(page: Page): Promise<string> {
  const { items } = (await (await page.request.get('/api/v1/due?limit=1000')).json()) as {
    items: readonly { readonly unit_number: string; readonly odometer_km: number | null }[];
  };
  return `${Math.round(items.find(({ unit_number }) => unit_number === UNIT)?.odometer_km ?? 0) + 60} km`;
}

const title = (page: Page) => page.locator('.step-title').first();

/** The coils of 2 and its neighbour are swapped although another step is proposed. */
async function swapCoils(page: Page): Promise<void> {
  await page.getByText('Do another test').click();
  await page
    .locator('summary')
    .filter({ hasText: /^Swap the coils of 2 and \d, \d+ min/ })
    .click();
  await page.getByRole('button', { name: 'Swapped, the boots stayed on the plugs' }).click();
  await expect(title(page)).toHaveText(/^The coils of 2 and \d are swapped/);
}

test('a driver’s complaint becomes a closed visit, with the network cut in the middle', async ({ page, browser }) => {
  test.setTimeout(240_000);
  const user = new User(page);
  await user.signIn('supervisor');
  let number = '';

  await test.step('the driver reports by phone', async () => {
    await page.goto('/misfires');
    await page.getByRole('button', { name: /Make the address|Replace the address/ }).click();
    const address = await page.getByLabel(/copy it now/).inputValue();
    await expect(page.getByRole('img', { name: 'Address for drivers as a code for phones' })).toBeVisible();
    number = await driverReports(browser, address);
  });

  await test.step('the codes are pasted, and the suspicion is drawn', async () => {
    await page.goto('/misfires');
    await expect(page.getByText('Unit “999”')).toBeVisible();
    await page
      .getByRole('row')
      .filter({ hasText: 'meal-round van' })
      .getByRole('link', { name: number, exact: true })
      .click();
    await expect(page.getByText('shakes on the hill to the quarry')).toBeVisible();
    await expect(page.getByText('D. Marwick, driver')).toBeVisible();
    await page.getByText('Codes', { exact: true }).click();
    await page.getByLabel('Typed, or pasted from another program').fill('stored: P0302 (2 of 3 drives), 48 km/h');
    await page.getByRole('button', { name: 'Save the codes' }).click();
    await expect(page.getByText('misfire, cylinder 2:')).toBeVisible();
    await expect(page.getByRole('group', { name: /Suspicion by cylinder, most on 2/ })).toBeVisible();
    await expect(page.locator('.causes li').first()).toContainText(/of 2/);
  });

  await test.step('at the vehicle, one test at a time; the network goes, and comes back', async () => {
    await page.getByRole('link', { name: 'At the vehicle' }).click();
    await expect(page).toHaveURL(/\/vehicle$/);
    await expect(page.getByText('its voltage can kill')).toBeVisible();
    // The device has the page, and can open it again without a network.
    const kept = () =>
      page.evaluate(async () => (await (await caches.open('isobar-floor-pages')).keys()).map(({ url }) => url));
    await expect.poll(kept).toContain(page.url());
    await page.context().setOffline(true);
    await swapCoils(page);
    await expect(page.getByText(/kept here, no connection/)).toBeVisible();
    await page.reload();
    await expect(title(page)).toContainText('are swapped');
    await page.getByRole('button', { name: /misfires, 2 runs normally/ }).click();
    await expect(title(page)).toHaveText('Replace the coil of 2');
    await expect(page.getByText(/^It sits in \d now/)).toBeVisible();
    await page.context().setOffline(false);
    await page.evaluate(() => window.dispatchEvent(new Event('online')));
    await expect(page.getByText(/kept here/)).toHaveCount(0, { timeout: 30_000 });
  });

  await test.step('the work is drafted with its reason', async () => {
    await page.getByRole('link', { name: 'All of it' }).click();
    await expect(page.locator('.said-lines')).toContainText('misfires, 2 runs normally');
    await page.getByRole('button', { name: /^Draft the work on a new visit/ }).click();
    await expect(page.getByRole('heading', { level: 1, name: /^Work order \d+/ })).toBeVisible();
    await expect(page.getByText(`misfire: Misfire ${number}: coil of 2`).first()).toBeVisible();
  });

  await test.step('the coil is replaced and the visit closed', async () => {
    await page.getByRole('link', { name: 'At the vehicle' }).click();
    await user.place('New parts');
    await page.getByRole('button', { name: 'Read off each: it reads NL-1804' }).click();
    await user.openUp();
    await page.getByRole('button', { name: 'Describe it' }).click();
    await page.getByRole('button', { name: 'coil body cracked' }).click();
    await page.getByLabel(/^Number on the new coil/).fill('NL-1804');
    await page.getByLabel(/^Serial of the new one/).fill('NC-8102');
    await page.getByLabel(/^Torque of the screw/).fill('9 N·m');
    await page.getByRole('button', { name: /^Save .*New one in, screw 9 N·m, all done here$/ }).click();
    await user.answerSteps();
    await expect(page.getByText('All sent')).toBeVisible();
    await page.getByRole('link', { name: /^Work order \d+$/ }).click();
    const odometer = await dashOf(page);
    await page.getByLabel('Odometer now').fill(odometer);
    await page.getByRole('button', { name: 'Verify, close and move the due date' }).click();
    await expect(page.getByText(`(typed “${odometer}”)`)).toBeVisible();
  });

  await test.step('it is watched, and closed when it stays away', async () => {
    await page.goto('/misfires');
    await expect(page.getByRole('row').filter({ hasText: `${UNIT} meal-round van` })).toContainText(
      'Watched for 800 km more',
    );
    await page.getByRole('row').filter({ hasText: UNIT }).getByRole('link', { name: number, exact: true }).click();
    await page.getByText('Close it', { exact: true }).first().click();
    await page.getByLabel('What it was').fill('coil of 2, cracked');
    await page.getByRole('button', { name: 'Close it' }).click();
    await expect(page.getByRole('heading', { name: 'Closed' })).toBeVisible();
    await page.goto('/work-orders/follow-ups');
    await expect(page.getByRole('row').filter({ hasText: `Misfire ${number}: none for 800 km?` })).toContainText(
      'Done: coil of 2, cracked',
    );
  });
});

test('what is not ignition is referred on paper, and words against the codes are shown', async ({ page }) => {
  const user = new User(page);
  await user.signIn('technician');
  await page.goto('/misfires');
  await page.getByRole('link', { name: /^152 mobile/ }).click();
  await expect(page.getByText('Not all of this can be so.')).toBeVisible();
  await expect(page.getByText('Said in words: cylinder 5; by the codes: cylinder 4.')).toBeVisible();
  await page.getByRole('link', { name: 'Print the referral' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Referral \d+, unit 152/);
  await expect(page.getByText('injector circuit 4')).toBeVisible();
  await expect(page.getByText('Found there')).toBeVisible();
});
