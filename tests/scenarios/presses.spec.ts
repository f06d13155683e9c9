import { expect, test, User } from './user';

/* What a normal visit asks of a gloved hand: every press from "start work" to "handed over", counted. */

const AT_MOST = 30;
const FOR_PLUGS = 16;

test('a normal four-cylinder visit takes at most 30 presses, 16 of them for the plugs', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/due?search=103');
  await page.locator('a:has(strong:text-is("103"))').first().click();
  await user.tab('History');
  await page.getByText('Open one for something else: one part, a look, a test').click();
  await page.getByRole('combobox', { name: 'What is done' }).selectOption('Replace');
  await page.getByRole('combobox', { name: 'To what' }).selectOption('plugs');
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /^Work order \d+: unit 103/ })).toBeVisible();
  const order = page.url();
  await page.goto(`${order}/floor`);

  const pressed = { plugs: 0, other: 0 };
  const press = async (whose: keyof typeof pressed, name: string | RegExp, nth = 0): Promise<void> => {
    await page.getByRole('button', { name }).nth(nth).click();
    pressed[whose] += 1;
  };
  /** A field that is tapped and typed into counts as a press. */
  const type = async (label: RegExp, text: string): Promise<void> => {
    await page.getByLabel(label).fill(text);
    pressed.other += 1;
  };
  await press('other', /^start work/);
  await expect(page.getByRole('button', { name: /^✓ working since/ })).toBeVisible();
  await press('other', 'New parts');
  await press('plugs', /^Read off each: all read/);
  await press('plugs', /^Each of 4 measures/, 1);
  await press('other', 'Steps');
  await press('other', /^All \d+ in order$/);
  await press('other', 'Read the codes before with the code reader');
  await expect(page.getByRole('group', { name: 'Step 2 in hand' })).toHaveCount(0);
  await press('other', /^All \d+ in order$/);
  await press('other', 'from 1');
  for (const site of ['1', '2', '3', '4']) {
    await expect(page.getByRole('heading', { name: `Cylinder ${site}`, exact: true })).toBeVisible();
    await press('plugs', /^Reads .* all normal, thread sound$/);
    await page.getByRole('group', { name: 'By wire gauge, the old' }).getByRole('button').nth(1).click();
    pressed.plugs += 1;
    await press('plugs', /^Save cylinder .*Started by hand, torqued \d/);
  }
  // Refitted and counted; then started, looked round and put down when it is looked at again.
  await press('other', /^All \d+ in order$/);
  await press('other', /^All \d+ in order$/);
  await press('other', 'Read the codes after with the code reader');
  await expect(page.getByText(/1 steps? open/)).toBeVisible();
  await type(/^odometer before the road test/, '41310');
  await type(/^odometer after it/, '41322');
  await press('other', 'In order');
  await expect(page.getByText(/steps? open/)).toHaveCount(0);
  await expect(page.getByText('All sent')).toBeVisible();
  await page.getByRole('link', { name: /^Work order \d+$/ }).click();
  pressed.other += 1;
  await press('other', /I did the work: hand it over/);
  await expect(page.getByText(/Handed over by/)).toBeVisible();
  expect(pressed.plugs).toBeLessThanOrEqual(FOR_PLUGS);
  expect(pressed.plugs + pressed.other).toBeLessThanOrEqual(AT_MOST);
  test.info().annotations.push({ type: 'presses', description: JSON.stringify(pressed) });
  console.log(`presses: ${pressed.plugs} for the plugs, ${pressed.other} for everything else`);
});
