import { expect, test, User } from './user';

test('the feed stand-in drives the fleet, and a suspect reading of it is mended', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/odometer/feed');
  await page.getByRole('button', { name: 'Play the feed' }).click();
  await expect(page.getByText(/^\d+ messages\.$/)).toBeVisible();
  const row = user.row('In the other unit');
  await expect(row).toBeVisible();
  await page.getByRole('link', { name: 'Mend the suspect ones' }).click();
  await expect(page.getByRole('heading', { name: /Is probably in the other unit/ })).toBeVisible();
});

test('a large file is loaded with its checks, and one that is broken is refused whole', async ({ page }) => {
  const user = new User(page);
  await user.signIn('clerk');
  await page.goto('/odometer/feed');
  const send = async (text: string) => {
    await page
      .getByLabel(/file of readings/)
      .setInputFiles({ name: 'feed.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
    await page.getByRole('button', { name: 'Load it' }).click();
  };
  await send('unit_number,read_on,odometer\n11,2026-11-01,5,6\n');
  await expect(page.getByText(/Nothing was written\. Line 2 has more or fewer cells/).first()).toBeVisible();
  await send('unit_number,read_on,odometer,unit,source\n102,2024-11-15,80000,km,feed\nNOBODY,2026-11-15,5,km,feed\n');
  await expect(page.getByText(/1 added, .* 0 were here already, 1 refused/)).toBeVisible();
  const refused = page.locator('details').filter({ hasText: 'NOBODY,2026-11-15' });
  await refused.getByText('Lines that were refused').click();
  await expect(refused.getByText('Line 3: NOBODY,2026-11-15,5,km. no such unit')).toBeVisible();
});

test('notices wait in the inbox until they are dismissed, and the digest has them all', async ({ page }) => {
  const user = new User(page);
  await user.signIn('viewer', '/due');
  await page
    .getByRole('link', { name: /^Notices/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'Newly past a limit' })).toBeVisible();
  const count = Number(await page.getByText('not dismissed by you').locator('strong').textContent());
  expect(count).toBeGreaterThan(5);
  // By its id: other tests make notices meanwhile, so that the count says nothing.
  const id = await page
    .getByRole('button', { name: /^Dismiss the/ })
    .first()
    .getAttribute('value');
  await page
    .getByRole('button', { name: /^Dismiss the/ })
    .first()
    .click();
  await expect(page.locator(`button[name=ids][value="${id}"]`)).toHaveCount(0);
  const idsShown = () =>
    page
      .getByRole('button', { name: /^Dismiss the/ })
      .evaluateAll((buttons) => buttons.map((button) => (button as HTMLButtonElement).value));
  const before = await idsShown();
  await page.getByRole('button', { name: 'Dismiss all', exact: true }).click();
  await expect
    .poll(async () => (await idsShown()).filter((shown) => shown !== '' && before.includes(shown)))
    .toEqual([]);
  await page.getByRole('link', { name: 'Digest of today' }).click();
  await expect(page.getByRole('heading', { name: 'Digest of 16 Nov 2026' })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'As a mail file' }).click();
  expect((await download).suggestedFilename()).toBe('isobar-2026-11-16.eml');
  const feed = await page.request.get('/api/v1/notices.atom');
  expect(feed.headers()['content-type']).toContain('application/atom+xml');
  expect(await feed.text()).toContain('<title>Isobar notices</title>');
});

test('the due list is laid out, kept as a view, and goes on paper by depot', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor', '/due');
  const tick = async (name: string) => {
    await page.getByRole('button', { name: 'Columns' }).click();
    await page.getByRole('checkbox', { name }).click();
  };
  await tick('How sure');
  await expect(page).toHaveURL(/hide=sure/);
  await expect(page.getByRole('columnheader', { name: 'How sure' })).toBeHidden();
  await tick('Two lines a vehicle');
  await expect(page).toHaveURL(/rows=comfortable/);
  const views = page.getByRole('button', { name: 'Views' });
  await views.click();
  await page.getByLabel('Name of this view').fill('Narrow');
  await page.getByRole('button', { name: 'Save this view' }).click();
  await expect(page.getByRole('link', { name: 'Narrow' })).toBeVisible();
  await page.goto('/due');
  await expect(page.getByRole('columnheader', { name: 'How sure' })).toBeVisible();
  await views.click();
  await page.getByRole('link', { name: 'Narrow' }).click();
  await expect(page.getByRole('columnheader', { name: 'How sure' })).toBeHidden();
  await page.getByRole('button', { name: 'Print, files' }).click();
  await page.getByRole('menuitem', { name: 'To print, by depot' }).click();
  await expect(page.getByRole('heading', { name: /^Eastlight: \d+ due/ })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(page.getByRole('heading', { name: /^Quarry Cross: \d+ due/ })).toBeVisible();
});
