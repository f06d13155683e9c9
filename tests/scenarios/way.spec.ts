import { expect, test, User } from './user';

test('the access to the plugs is written as rows: added, checked, moved by keys, undone, copied and saved', async ({
  page,
}) => {
  const user = new User(page);
  await user.signIn('clerk');
  await page.goto('/engines');
  await page.getByRole('link', { name: 'TV-46D' }).first().click();
  await user.tab('Access');
  await expect(page.locator('#way')).toContainText('heat shield of the leads');
  await page.getByRole('link', { name: 'Change', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Access to the plugs of TV-46D' })).toBeVisible();
  const rows = page.getByRole('list').filter({ hasText: 'air cleaner' }).getByRole('listitem');
  await expect(rows).toHaveCount(3);

  await test.step('a new item is checked while it is typed', async () => {
    await page.getByRole('button', { name: 'Add an item' }).click();
    await page.getByLabel('Name', { exact: true }).fill('coil bracket');
    await page.getByLabel('Opens', { exact: true }).fill('7 8');
    await expect(page.getByText('“7 8” is no bank and no cylinder of this engine')).toBeVisible();
    await page.getByLabel('Opens', { exact: true }).fill('1 2');
    await page.getByLabel('Off', { exact: true }).fill('3');
    await page.getByLabel('On', { exact: true }).fill('4');
    await page.getByLabel('How many', { exact: true }).fill('2');
    await page.getByLabel('Size of its screws').selectOption('M6');
    await page.getByLabel('Torque', { exact: true }).fill('108 N·m');
    await expect(page.getByText(/far from the usual/)).toBeVisible();
    await page.getByLabel('Torque', { exact: true }).fill('9 N·m');
    await expect(page.getByText('to mend')).toHaveCount(0);
  });

  await test.step('moved by keys, and taken back', async () => {
    const row = page.getByRole('button', { name: /coil bracket cylinders|coil bracket 1 2/ });
    await row.press('Alt+ArrowUp');
    await expect(rows.nth(2)).toContainText('coil bracket');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(rows.nth(3)).toContainText('coil bracket');
    await page.getByRole('button', { name: 'coil bracket earlier' }).click();
    await expect(rows.nth(2)).toContainText('coil bracket');
    const handle = page.getByRole('button', { name: 'Move coil bracket' });
    await handle.press('Space');
    await expect(page.getByText(/row 3 was moved over/)).toBeAttached();
    await handle.press('ArrowDown');
    await expect(page.getByText(/row 3 was moved over droppable area row 4/)).toBeAttached();
    await handle.press('Space');
    await expect(rows.nth(3)).toContainText('coil bracket');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(rows.nth(2)).toContainText('coil bracket');
  });

  await page.getByRole('button', { name: 'Save the access' }).click();
  await expect(page.locator('#way').getByRole('row').nth(3)).toContainText('coil bracket');
  await expect(page.locator('#way').getByRole('row').nth(3)).toContainText('2 screws M6');

  await test.step('another family begins from it', async () => {
    await page.goto('/engines');
    await page.getByRole('link', { name: 'TV-28' }).first().click();
    await user.tab('Access');
    await page.getByRole('link', { name: 'Change', exact: true }).click();
    await page.getByRole('link', { name: /^TV-46D/ }).click();
    await expect(page.getByText('These are the items of TV-46D. Nothing is saved yet')).toBeVisible();
    await expect(rows).toHaveCount(4);
  });
});
