import type { Browser, Page } from '@playwright/test';
import { expect, PASSWORD, test, User } from './user';

/* Forms before their scripts have come, and without any: they post, nothing typed is in an address, and nothing is lost. */

const ADDRESS = 'viewer@skerrymoor.example';

/** A page on which no script runs. */
async function bare(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ javaScriptEnabled: false });
  return context.newPage();
}

/** Scripts are held back until they are let through: a slow network at its worst. */
async function holdScripts(page: Page): Promise<() => Promise<void>> {
  let letThrough = (): void => undefined;
  const gate = new Promise<void>((resolve) => {
    letThrough = resolve;
  });
  await page.route('**/_next/static/**/*.js', async (route) => {
    await gate;
    // A page that was left meanwhile no longer wants its scripts.
    await route.continue().catch(() => undefined);
  });
  return async () => letThrough();
}

async function fillSignIn(page: Page, password: string): Promise<void> {
  await page.getByLabel('Address').fill(ADDRESS);
  await page.getByLabel('Password').fill(password);
  await page.getByLabel('Password').press('Enter');
}

/** Neither the address nor anything that was typed ever stood in a URL. */
async function expectNothingInAddress(page: Page, seen: readonly string[]): Promise<void> {
  for (const url of [...seen, page.url()]) {
    expect(url).not.toContain('password');
    expect(url).not.toContain('skerrymoor.example');
    expect(url).not.toContain(encodeURIComponent(PASSWORD));
  }
}

const watchAddresses = (page: Page): readonly string[] => {
  const seen: string[] = [];
  page.on('request', (request) => seen.push(request.url()));
  return seen;
};

test('signing in with scripts off posts, keeps the address typed, and says what is wrong', async ({ browser }) => {
  const page = await bare(browser);
  const seen = watchAddresses(page);
  await page.goto('/sign-in');
  await fillSignIn(page, 'not the password');
  await expect(page.getByRole('alert').first()).toContainText('do not go together');
  await expect(page.getByLabel('Address')).toHaveValue(ADDRESS);
  await expect(page.getByLabel('Password')).toHaveValue('');
  await fillSignIn(page, PASSWORD);
  await expect(page).toHaveURL(/\/pressure$/);
  await expectNothingInAddress(page, seen);
});

test('signing in by Enter before the scripts have come posts, and goes on', async ({ page }) => {
  const seen = watchAddresses(page);
  const letThrough = await holdScripts(page);
  await page.goto('/sign-in', { waitUntil: 'commit' });
  await fillSignIn(page, PASSWORD);
  await expect(page).toHaveURL(/\/pressure$/);
  await letThrough();
  await expectNothingInAddress(page, seen);
});

for (const scripts of ['off', 'late'] as const)
  test(`a password change and a long form with scripts ${scripts} keep what was typed and never send it in an address`, async ({
    browser,
    page: withScripts,
  }) => {
    const page = scripts === 'off' ? await bare(browser) : withScripts;
    const seen = watchAddresses(page);
    const letThrough = scripts === 'late' ? await holdScripts(page) : null;
    await page.goto('/sign-in', { waitUntil: 'commit' });
    await page.getByLabel('Address').fill('supervisor@skerrymoor.example');
    await page.getByLabel('Password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page).toHaveURL(/\/pressure$/);

    await page.goto('/settings', { waitUntil: 'commit' });
    await page.getByLabel('Current password').fill('not the password');
    await page.getByLabel('New password').fill('password-of-another-day');
    await page.getByRole('button', { name: 'Change the password' }).click();
    await expect(page.getByText('This is not your current password.')).toBeVisible();

    await page.goto('/misfires/report', { waitUntil: 'commit' });
    await page.getByLabel('Number of the vehicle').fill('9999');
    await page.getByText('flashing', { exact: true }).click();
    await page.getByText('when hot', { exact: true }).click();
    await page.getByText('knocking', { exact: true }).click();
    await page.getByLabel('In your words').fill('since the ford');
    await page.getByLabel('Fault codes').fill('P0302');
    await page.getByRole('button', { name: 'Report it' }).click();
    await expect(page.getByText('There is no unit 9999 in this fleet.').first()).toBeVisible();
    await expect(page.getByLabel('Number of the vehicle')).toHaveValue('9999');
    await expect(page.getByLabel('In your words')).toHaveValue('since the ford');
    await expect(page.getByLabel('Fault codes')).toHaveValue('P0302');
    for (const name of ['flashing', 'when hot', 'knocking'])
      await expect(page.getByLabel(name, { exact: true })).toBeChecked();
    await letThrough?.();
    await expectNothingInAddress(page, seen);
  });

test('what is typed before the scripts have come is still there when they have', async ({ page }) => {
  await new User(page).signIn('supervisor');
  const letThrough = await holdScripts(page);
  await page.goto('/misfires/report', { waitUntil: 'commit' });
  await page.getByLabel('In your words').fill('shakes uphill since the ford');
  await letThrough();
  await page.waitForLoadState('load');
  await expect(page.getByLabel('In your words')).toHaveValue('shakes uphill since the ford');
});
