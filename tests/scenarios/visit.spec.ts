import { expect, test, User } from './user';

/* Whole visits that are more, or less, than a service of all plugs. */

/** Opens a visit for one task from a vehicle's own page. */
async function openFor(
  user: User,
  unit: string,
  task: { what: string; to: string; where: string; why: string; note?: string },
): Promise<void> {
  const { page } = user;
  await page.goto(`/due?search=${unit}`);
  await page.locator(`a:has(strong:text-is("${unit}"))`).first().click();
  await expect(page.getByRole('heading', { level: 1, name: new RegExp(`^Unit ${unit} `) })).toBeVisible();
  await page.getByText('Open one for something else: one part, a look, a test').click();
  await page.getByRole('combobox', { name: 'What is done' }).selectOption(task.what);
  await page.getByRole('combobox', { name: 'To what' }).selectOption(task.to);
  await page.getByRole('textbox', { name: /^Where/ }).fill(task.where);
  await page.getByRole('combobox', { name: 'Why', exact: true }).selectOption(task.why);
  await page.getByRole('textbox', { name: /^In words/ }).fill(task.note ?? '');
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /^Work order \d+/ })).toBeVisible();
}

/** From the last step to closed, at what the dash shows. */
async function close({ page }: User, odometer: string): Promise<void> {
  await expect(page.getByText('All sent')).toBeVisible();
  await page.getByRole('link', { name: /^Work order \d+$/ }).click();
  await page.getByLabel('Odometer now').fill(odometer);
  await page.getByRole('button', { name: 'Verify, close and move the due date' }).click();
  await expect(page.getByText(`(typed “${odometer}”)`)).toBeVisible();
}

test('a coil is replaced in one cylinder of a V6, and nothing else moves', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await openFor(user, '35', {
    what: 'Replace',
    to: 'coils',
    where: '2',
    why: 'reported fault',
    note: 'shakes at idle',
  });
  await expect(page.getByText('reported fault: shakes at idle')).toBeVisible();
  await expect(page.getByText('1 × NL-3806').first()).toBeVisible();

  await test.step('at the vehicle', async () => {
    await page.getByRole('link', { name: 'At the vehicle' }).click();
    await expect(page.getByRole('heading', { name: 'Coil 2' })).toBeVisible();
    await page.getByRole('button', { name: /^New one in/ }).click();
    await expect(page.getByText('Read the number off the new part.')).toBeVisible();
    await page.getByRole('button', { name: 'Describe it' }).click();
    await page.getByRole('button', { name: 'coil body cracked' }).click();
    await page.getByLabel(/^Number on the new coil/).fill('NL-1104');
    await expect(page.getByText('not for this engine')).toBeVisible();
    await page.getByLabel(/^Number on the new coil/).fill('NL-3806');
    await page.getByLabel(/^Serial of the new one/).fill('NC-7001');
    await page.getByLabel(/^Torque of the screw/).fill('22 N·m');
    await expect(page.getByText('out of range')).toBeVisible();
    await page.getByLabel(/^Torque of the screw/).fill('9 N·m');
    await page.getByRole('button', { name: 'New one in, screw 9 N·m, all done here' }).click();
    await expect(page.getByText(/^all sites done/)).toBeVisible();
    await user.answerSteps();
  });

  await close(user, '47,400 km');
  await expect(page.getByText('A cracked coil').first()).toBeVisible();
  await page.getByRole('link', { name: 'the vehicle' }).click();
  await expect(user.row('NC-7001').first()).toContainText('NL-3806');
  // The plugs are as old as they were: none was fitted today.
  await expect(page.locator('#fitted')).not.toContainText('16 Nov 2026');
});

test('a distributor is tuned up: the cap is compared first, then cap, rotor and leads go in', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await openFor(user, '6', { what: 'Replace', to: 'distributor cap', where: 'all', why: 'due' });
  for (const part of ['rotor', 'lead set']) {
    if (!(await page.getByRole('combobox', { name: 'To what' }).isVisible()))
      await page.getByText('Put another task on').click();
    await page.getByRole('combobox', { name: 'To what' }).selectOption(part);
    await page.getByRole('button', { name: 'Put it on' }).click();
    await expect(page.locator('#tasks').getByText(`Replace ${part}`)).toBeVisible();
  }
  await page.getByRole('link', { name: 'At the vehicle' }).click();
  await user.place('New parts');
  for (const number of ['KM-C46', 'KM-R46', 'KM-L46'])
    await page.getByRole('button', { name: `Read off each: it reads ${number}` }).click();
  await user.place('Sites');
  for (const [part, next] of [
    ['Distributor cap', ', next: rotor'],
    ['Rotor', ', next: lead set'],
    ['Lead set', ', all done here'],
  ] as const) {
    await expect(page.getByRole('heading', { name: part })).toBeVisible();
    await page.getByRole('button', { name: 'All sound' }).click();
    await page.getByRole('button', { name: new RegExp(`^New one in.*${next}$`) }).click();
  }
  await user.place('Steps');
  await expect(page.getByText('Hold the new cap beside the old')).toBeVisible();
  await user.answerSteps();
  await close(user, '17,650 mi');
  await page.getByRole('link', { name: 'the vehicle' }).click();
  for (const number of ['KM-C46', 'KM-R46', 'KM-L46'])
    await expect(page.locator('#others').getByRole('row').filter({ hasText: number })).toContainText('16 Nov 2026');
});

test('a visit is opened with what belongs to it: one press takes or leaves each task', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/due?search=131');
  await page.locator('a:has(strong:text-is("131"))').first().click();
  await page.getByRole('link', { name: 'What belongs to it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /^A visit of unit 131 / })).toBeVisible();
  await expect(page.getByRole('checkbox', { name: 'Replace plugs' })).toBeChecked();
  await expect(user.row('Replace plugs')).toContainText('Past the limit');
  await expect(page.getByRole('heading', { name: 'Coils now, or when they fail' })).toBeVisible();
  const coils = page.getByRole('checkbox', { name: 'Replace coils' });
  const before = await page.locator('tfoot').innerText();
  await coils.click();
  await expect(page.locator('tfoot')).not.toHaveText(before);
  if (!(await coils.isChecked())) await coils.click();
  await page.getByRole('button', { name: 'Open the visit with what is taken' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /^Work order \d+: unit 131/ })).toBeVisible();
  for (const task of ['Replace plugs', 'Replace coils'])
    await expect(page.locator('#tasks').getByText(task)).toBeVisible();
});
