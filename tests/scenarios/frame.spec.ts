import { expect, test, User } from './user';

/* The frame: everybody begins where their work is, and reaches every place by pointer, by keyboard and on a phone. */

for (const [who, heading] of [
  ['supervisor', /^Service pressure/],
  ['technician', 'Work of today'],
  ['clerk', 'Parts'],
  ['viewer', /^Service pressure/],
] as const)
  test(`a ${who} begins where the work is`, async ({ page }) => {
    await new User(page).signIn(who, '/due');
    await page.getByRole('link', { name: 'Isobar, to where your work begins' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(heading);
    await page.goto('/');
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(heading);
  });

test('on a phone the head is one line, and its menu goes everywhere and closes by itself', async ({ page }) => {
  test.setTimeout(180_000);
  await new User(page).signIn('supervisor');
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/due');
  const head = page.getByRole('banner');
  expect((await head.boundingBox())?.height).toBeLessThan(60);
  const menu = page.getByRole('navigation', { name: 'Menu' });
  const open = () => head.getByRole('button', { name: 'Menu' }).click();
  await open();
  const places = await menu
    .getByRole('link')
    .evaluateAll((links) => links.map((link) => link.getAttribute('href') ?? ''));
  expect(places.length).toBeGreaterThan(20);
  for (const place of places) {
    await menu.locator(`a[href="${place}"]`).click();
    await expect(page).toHaveURL(new RegExp(`${place}$`));
    await expect(menu).toBeHidden();
    expect([place, await page.evaluate(() => document.documentElement.scrollWidth)]).toEqual([place, 390]);
    await open();
    await expect(menu.locator('[aria-current=page]')).toHaveAttribute('href', place);
  }
  await page.keyboard.press('Escape');
  await expect(menu).toBeHidden();
});

test('every place is reached and left by keyboard alone', async ({ page }) => {
  await new User(page).signIn('supervisor', '/due');
  const groups = page.getByRole('navigation', { name: 'Main' }).getByRole('link');
  for (const group of await groups.allTextContents()) {
    await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: group, exact: true }).focus();
    await page.keyboard.press('Enter');
    const places = page.getByRole('navigation', { name: group, exact: true });
    await expect(places).toBeVisible();
    for (const label of await places.getByRole('link').allTextContents()) {
      await places.getByRole('link', { name: label, exact: true }).focus();
      await page.keyboard.press('Enter');
      await expect(places.getByRole('link', { name: label, exact: true })).toHaveAttribute('aria-current', 'page');
      await page.keyboard.press('Shift+Tab');
      expect(await page.evaluate(() => document.activeElement?.tagName)).not.toBe('BODY');
    }
  }
});

test('on a phone the due list is cards that fit, and its filters fold', async ({ page }) => {
  await new User(page).signIn('supervisor');
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/due?search=11');
  const card = page.getByRole('row').filter({ hasText: '11 ' }).first();
  for (const shown of [card.getByRole('link').first(), card.locator('.due-due'), card.locator('.due-life')]) {
    const box = await shown.boundingBox();
    expect(box).not.toBeNull();
    expect((box?.x ?? 0) + (box?.width ?? 400)).toBeLessThanOrEqual(390);
  }
  const depot = page.getByRole('combobox', { name: 'Depot' });
  await expect(depot).toBeHidden();
  await page.getByRole('button', { name: 'Filter and sort' }).click();
  await expect(depot).toBeVisible();
  await depot.selectOption('Eastlight');
  await expect(page).toHaveURL(/depot=Eastlight/);
});

test('a work order stands on four tabs, each with its address and what is to be done there', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/work-orders');
  await page.getByRole('link', { name: '1001' }).click();
  for (const [tab, heading, address] of [
    ['Procedure', 'Steps', /\/procedure$/],
    ['Findings', 'Findings', /\/findings$/],
    ['Record', 'What happened', /\/record$/],
    ['Overview', 'Parts and spec', /\/work-orders\/[0-9a-f-]+$/],
  ] as const) {
    await user.tab(tab);
    await expect(page.getByRole('heading', { name: heading, exact: true })).toBeVisible();
    await expect(page).toHaveURL(address);
  }
  await expect(page.getByRole('link', { name: /^Findings \d+ to decide$/ })).toBeVisible();
});

test('work orders are found by number, unit, state and day, and the list is a file', async ({ page }) => {
  await new User(page).signIn('supervisor');
  await page.goto('/work-orders');
  const rows = page.locator('table.list tbody tr');
  const search = page.getByRole('textbox', { name: /^Search/ });
  // A key that is pressed before the scripts have come is nobody's.
  await expect(async () => {
    await page.keyboard.press('/');
    await expect(search).toBeFocused({ timeout: 500 });
  }).toPass();
  await search.fill('1001');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/search=1001/);
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toContainText('1001');
  await page.goto('/work-orders?state=open&sort=unit');
  await expect(page.getByRole('combobox', { name: 'State' })).toHaveValue('open');
  const open = await rows.count();
  await page.getByRole('combobox', { name: 'Depot' }).selectOption('Northhaven');
  await expect(page).toHaveURL(/state=open.*depot=Northhaven/);
  await expect(rows.filter({ hasNotText: 'Northhaven' })).toHaveCount(0);
  expect(await rows.count()).toBeLessThan(open);
  await page.goto('/work-orders?from=2999-01-01');
  await expect(page.getByText('No work order fits this filter.')).toBeVisible();
  const file = await page.request.get('/work-orders/csv?search=1001');
  expect((await file.text()).split('\n').filter(Boolean)).toHaveLength(2);
});

test('a task is undone from its message, and put back from the record', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/work-orders?search=1004');
  await page.getByRole('link', { name: '1004' }).click();
  const coil = page.locator('#tasks').getByRole('cell').getByText('Replace coil');
  await page.getByText('Add task').click();
  await page.getByRole('combobox', { name: 'What is done' }).selectOption('Replace');
  await page.getByRole('combobox', { name: 'To what' }).selectOption('coils');
  await page.getByRole('textbox', { name: /^Where/ }).fill('4');
  await page.getByRole('combobox', { name: 'Why', exact: true }).selectOption('reported fault');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(coil).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Undone.')).toBeVisible();
  await expect(coil).toHaveCount(0);
  await user.tab('Record');
  const taken = page.getByRole('listitem').filter({ hasText: 'removed: replace coil' });
  await taken.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'replace coil, put back' })).toBeVisible();
  await user.tab('Overview');
  await expect(coil).toBeVisible();
});
