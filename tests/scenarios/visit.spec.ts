import { readFileSync } from 'node:fs';
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
  await user.tab('History');
  await page.getByText('Open one for something else: one part, a look, a test').click();
  await page.getByRole('combobox', { name: 'What is done' }).selectOption(task.what);
  await page.getByRole('combobox', { name: 'To what' }).selectOption(task.to);
  await page.getByRole('textbox', { name: /^Where/ }).fill(task.where);
  await page.getByRole('combobox', { name: 'Why', exact: true }).selectOption(task.why);
  await page.getByRole('textbox', { name: /^In words/ }).fill(task.note ?? '');
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /^Work order \d+/ })).toBeVisible();
}

/** How a component of a unit stands, as other software reads it. */
async function dueOf({ page }: User, unit: string, component: string) {
  const token = readFileSync(process.env.E2E_TOKEN_FILE ?? '', 'utf8').trim();
  const headers = { authorization: `Bearer ${token}` };
  const answer = await page.request.get(`/api/v1/due?limit=1000&component=${component}`, { headers });
  const { items } = (await answer.json()) as { items: readonly Standing[] };
  const found = items.find(({ unit_number }) => unit_number === unit);
  if (!found) throw new Error(`unit ${unit} has no ${component} in the due list`);
  return found;
}
interface Standing {
  readonly unit_number: string;
  readonly state: string;
  readonly fitted_on: string | null;
  readonly due: { readonly p50: string } | null;
  readonly odometer_km: number | null;
}

/** What the dash shows some days later. */
const later = ({ odometer_km }: Standing): string => `${Math.round((odometer_km ?? 0) + 90)} km`;

/** 2027-03-05 as pages say it: 5 Mar 2027. */
const dayOf = (day = ''): string =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(
    new Date(`${day}T00:00:00Z`),
  );

/** The due list of one unit, from which its row tells what was done. */
async function inTheDueList(user: User, unit: string) {
  await user.page.goto(`/due?search=${unit}`);
  return user.page.getByRole('row').filter({ has: user.page.locator(`strong:text-is("${unit}")`) });
}

/** The new plugs are read and measured on the bench: every one in range. */
async function readNewParts({ page }: User, number: string, gap: string, count: number): Promise<void> {
  await page.getByRole('navigation', { name: 'Parts of the job' }).getByRole('button', { name: 'New parts' }).click();
  await page.getByRole('button', { name: new RegExp(`^Read off each.*${number}`) }).click();
  await page.getByRole('button', { name: `Each of ${count} measures ${gap}` }).click();
  await expect(page.getByText(`${count} of ${count} measured. Every gap is in range.`)).toBeVisible();
  await page.getByRole('navigation', { name: 'Parts of the job' }).getByRole('button', { name: 'Cylinders' }).click();
}

/** One plug out, described, and its new one in. @param seen what its coil and boot show, at a site that has a task for them too; without, all is normal */
async function plugIn({ page }: User, site: string, seen: string | null = null): Promise<void> {
  await page.getByRole('link', { name: new RegExp(`^Cylinder ${site}\\b`) }).click();
  const parts = page.getByRole('group', { name: 'Parts here, from above down' });
  if (seen) await parts.getByRole('button', { name: 'plug' }).click();
  await expect(page.getByRole('heading', { name: `Cylinder ${site}`, exact: true })).toBeVisible();
  await page
    .getByRole('button', { name: /^reads/ })
    .first()
    .click();
  await page
    .getByRole('group', { name: 'By wire gauge, the old' })
    .getByRole('button', { name: /^1\./ })
    .first()
    .click();
  await page.getByRole('button', { name: /^All normal/ }).click();
  if (seen) {
    await page.getByRole('button', { name: 'Describe it' }).click();
    await page.getByRole('button', { name: seen }).click();
  }
  await page.getByRole('button', { name: /^Save cylinder .*Started by hand, torqued \d/ }).click();
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
    await user.place('Cylinders');
    await expect(page.getByText('First, before any step: hood, shoes, eyes, bystanders.')).toBeVisible();
    await user.place('New parts');
    await page.getByRole('button', { name: 'Read off each: it reads NL-3806' }).click();
    await user.openUp();
    await expect(page.getByRole('heading', { name: 'Coil 2' })).toBeVisible();
    await page.getByRole('button', { name: 'Describe it' }).click();
    await page.getByRole('button', { name: 'coil body cracked' }).click();
    await page.getByLabel(/^Number on the new coil/).fill('NL-1104');
    await expect(page.getByText('not for this engine')).toBeVisible();
    await page.getByLabel(/^Number on the new coil/).fill('NL-3806');
    await page.getByLabel(/^Serial of the new one/).fill('NC-7001');
    await page.getByLabel(/^Torque of the screw/).fill('22 N·m');
    await expect(page.getByText('too much')).toBeVisible();
    await page.getByLabel(/^Torque of the screw/).fill('9 N·m');
    await page.getByRole('button', { name: /^Save .*New one in, screw 9 N·m, all done here$/ }).click();
    await expect(page.getByText(/^all cylinders done/).first()).toBeVisible();
    await user.answerSteps();
  });

  await close(user, '47,400 km');
  await user.tab('Findings');
  await expect(page.getByText('A cracked coil').first()).toBeVisible();
  await user.tab('Overview');
  await page.getByRole('link', { name: 'the vehicle' }).click();
  await user.tab('Components');
  await expect(user.row('NC-7001').first()).toContainText('NL-3806');
  // The plugs are as old as they were: none was fitted today.
  await expect(page.locator('#fitted')).not.toContainText('16 Nov 2026');
});

test('a distributor is tuned up: the cap is compared first, then cap, rotor and leads go in', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await openFor(user, '6', { what: 'Replace', to: 'distributor cap', where: 'all', why: 'due' });
  for (const part of ['rotor', 'lead set']) {
    if (!(await page.getByRole('combobox', { name: 'To what' }).isVisible())) await page.getByText('Add task').click();
    await page.getByRole('combobox', { name: 'To what' }).selectOption(part);
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.locator('#tasks').getByRole('cell').getByText(`Replace ${part}`)).toBeVisible();
  }
  await page.getByRole('link', { name: 'At the vehicle' }).click();
  await user.place('New parts');
  for (const number of ['KM-C46', 'KM-R46', 'KM-L46'])
    await page.getByRole('button', { name: `Read off each: it reads ${number}` }).click();
  await user.place('Steps');
  await expect(page.getByText('Hold the new cap beside the old')).toBeVisible();
  await user.openUp();
  for (const [part, next] of [
    ['Distributor cap', ', next: rotor'],
    ['Rotor', ', next: lead set'],
    ['Lead set', ', all done here'],
  ] as const) {
    await expect(page.getByRole('heading', { name: part })).toBeVisible();
    await page.getByRole('button', { name: 'All sound' }).click();
    const lead = page.getByRole('group', { name: 'Leads, one at a time' }).getByRole('button');
    if (part === 'Lead set') {
      await page.getByRole('button', { name: new RegExp(`^Save .*New one in.*${next}$`) }).click();
      await expect(
        page.getByText('Tick off each lead as it goes on, one at a time: 1, 2, 3, 4, 5, 6 left.'),
      ).toBeVisible();
      await expect(lead.first()).toContainText('1 from tower 5');
      for (const one of await lead.all()) await one.click();
    }
    await page.getByRole('button', { name: new RegExp(`^Save .*New one in.*${next}$`) }).click();
  }
  await user.answerSteps();
  await close(user, '17,650 mi');
  await page.getByRole('link', { name: 'the vehicle' }).click();
  await user.tab('Components');
  for (const number of ['KM-C46', 'KM-R46', 'KM-L46'])
    await expect(page.locator('#others').getByRole('row').filter({ hasText: number })).toContainText('16 Nov 2026');
});

test('a visit is opened with what belongs to it: one press takes or leaves each task', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/due?search=131');
  await page.locator('a:has(strong:text-is("131"))').first().click();
  await page.getByRole('link', { name: 'Plan a visit' }).click();
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
    await expect(page.locator('#tasks').getByRole('cell').getByText(task)).toBeVisible();
});

test('a torn boot is found beside the plugs: what has no part today is split to Friday', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  const before = await dueOf(user, '34', 'plug');
  await openFor(user, '34', { what: 'Replace', to: 'plugs', where: 'front', why: 'due' });
  await page.getByText('Add task').click();
  await page.getByRole('combobox', { name: 'To what' }).selectOption('coils');
  await page.getByRole('textbox', { name: /^Where/ }).fill('4');
  await page.getByRole('combobox', { name: 'Why', exact: true }).selectOption('reported fault');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.locator('#tasks').getByRole('cell').getByText('Replace coil')).toBeVisible();

  await test.step('the coil comes another day: a supervisor lets the work begin without it', async () => {
    await user.tab('Procedure');
    await page.getByText('Lift a gate for this visit').click();
    const lift = page.locator('#gates form').first();
    await lift.getByRole('combobox', { name: 'Gate' }).selectOption('right parts');
    await lift.getByRole('button', { name: 'Lift it' }).click();
    await expect(lift.getByText('Give the reason')).toBeVisible();
    await lift.getByRole('textbox', { name: 'Why the work may go on without it' }).fill('coil comes on Friday');
    await lift.getByRole('button', { name: 'Lift it' }).click();
    await expect(user.row('right parts')).toContainText('R. Tolland');
    await expect(user.row('right parts')).toContainText('coil comes on Friday');
  });

  await test.step('at the vehicle: plugs in, and the boot under coil 4 is torn', async () => {
    await page.getByRole('link', { name: 'At the vehicle' }).click();
    await readNewParts(user, 'EM-7310', '1.05 mm', 3);
    await user.openUp(/measure every gap/);
    await expect(page.getByText('Gate lifted: right parts. R. Tolland: coil comes on Friday')).toBeVisible();
    for (const site of ['2', '6']) await plugIn(user, site);
    await plugIn(user, '4', 'boot torn');
    await expect(page.getByText('All sent')).toBeVisible();
  });

  const today = page.url().replace(/\/floor.*/, '');
  await test.step('the finding drafts its task, and coil and boot go to Friday', async () => {
    await page.getByRole('link', { name: /^Work order \d+$/ }).click();
    await user.tab('Findings');
    await page.getByText('Confirm, correct or reject').first().click();
    await page.getByRole('button', { name: 'Confirm', exact: true }).first().click();
    await page.getByRole('button', { name: 'Add task: replace boot 4' }).click();
    await user.tab('Overview');
    await expect(page.locator('#tasks').getByRole('cell').getByText('Replace boot')).toBeVisible();
    await page.getByText('Split visit').click();
    for (const part of ['coil 4', 'boot 4']) await page.locator('.chips').getByText(part, { exact: true }).click();
    await page
      .locator('#tasks')
      .getByRole('textbox', { name: 'Why', exact: true })
      .fill('boot comes with the Friday ferry');
    await page.getByRole('button', { name: 'Open the other visit' }).click();
    await expect(page.locator('#tasks').getByRole('cell').getByText('Replace plugs')).toHaveCount(0);
    await expect(page.locator('#tasks').getByRole('cell').getByText('Replace coil')).toBeVisible();
  });

  const friday = page.url();
  await page.goto(today);
  await page.getByRole('link', { name: 'At the vehicle' }).click();
  await user.answerSteps();
  await close(user, later(before));
  // The rear bank is as old as it was, and it binds.
  const after = await dueOf(user, '34', 'plug');
  expect(after.fitted_on).toBe(before.fitted_on);

  await test.step('on Friday coil and boot go in, and the plugs stay as they are', async () => {
    await page.goto(friday);
    await page.getByRole('link', { name: 'At the vehicle' }).click();
    await user.place('New parts');
    for (const number of ['NL-3806', 'NL-3811'])
      await page.getByRole('button', { name: `Read off each: it reads ${number}` }).click();
    await user.openUp();
    for (const [part, number] of [
      ['Coil 4', 'NL-3806'],
      ['Boot 4', 'NL-3811'],
    ] as const) {
      await expect(page.getByRole('heading', { name: part })).toBeVisible();
      await page.getByRole('button', { name: 'All sound' }).click();
      await expect(page.getByLabel(/^Number on the new/)).toHaveValue(number);
      if (part === 'Coil 4') await page.getByLabel(/^Serial of the new one/).fill('NC-7034');
      await page.getByRole('button', { name: /^Save .*New one in/ }).click();
    }
    await user.answerSteps();
    await close(user, later(after));
  });
  // The dash moved the forecast a little; the plugs are the ones they were.
  const end = await dueOf(user, '34', 'plug');
  expect(end.fitted_on).toBe(before.fitted_on);
  await expect(await inTheDueList(user, '34')).toContainText(dayOf(end.due?.p50));
  await page.locator('a:has(strong:text-is("34"))').first().click();
  await user.tab('Components');
  await expect(user.row('NC-7034').first()).toContainText('NL-3806');
});

test('plugs that nobody knows the age of are looked at: good for 30,000 km more', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  const before = await dueOf(user, '110', 'plug');
  expect(before.state).toBe('inspect');
  await openFor(user, '110', { what: 'Inspect', to: 'plugs', where: 'all', why: 'due' });
  await page.getByRole('link', { name: 'At the vehicle' }).click();
  await user.openUp();
  for (const site of ['1', '2', '3', '4']) {
    await page.getByRole('link', { name: new RegExp(`^Cylinder ${site}\\b`) }).click();
    await expect(page.getByRole('heading', { name: `Cylinder ${site}`, exact: true })).toBeVisible();
    await page.getByLabel(/^Old gap/).fill('1.12 mm');
    await page.getByRole('button', { name: /^All normal/ }).click();
    await page.getByRole('button', { name: 'good', exact: true }).click();
    await page.getByRole('button', { name: '30,000 km' }).click();
    await page.getByRole('button', { name: /^Save cylinder .*Started by hand, torqued \d/ }).click();
  }
  await user.answerSteps();
  await close(user, later(before));
  const after = await dueOf(user, '110', 'plug');
  expect(after.state).not.toBe('inspect');
  await expect(await inTheDueList(user, '110')).toContainText(dayOf(after.due?.p50));
});

test('the rear bank is closed, the front stays open for another day, and then all of it is new', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  const before = await dueOf(user, '126', 'plug');
  await openFor(user, '126', { what: 'Replace', to: 'plugs', where: 'all', why: 'due' });
  const rear = page.url();
  await page.getByText('Split visit').click();
  for (const plug of ['2', '4', '6']) await page.locator('.chips').getByText(`plug ${plug}`, { exact: true }).click();
  await page.locator('#tasks').getByRole('textbox', { name: 'Why', exact: true }).fill('front bank on Friday');
  await page.getByRole('button', { name: 'Open the other visit' }).click();
  await expect(page).not.toHaveURL(rear);
  await expect(page.locator('#tasks').getByRole('cell').getByText('Replace plugs')).toBeVisible();
  const front = page.url();

  for (const [order, sites] of [
    [rear, ['1', '3', '5']],
    [front, ['2', '4', '6']],
  ] as const) {
    await page.goto(order);
    await page.getByRole('link', { name: 'At the vehicle' }).click();
    await readNewParts(user, 'FS-3807', '1.30 mm', 3);
    await user.openUp();
    for (const site of sites) await plugIn(user, site);
    await user.answerSteps();
    await close(user, later(await dueOf(user, '126', 'plug')));
    const now = await dueOf(user, '126', 'plug');
    // As long as one bank is old, it binds; with the second the due date moves.
    expect(now.fitted_on).toBe(order === rear ? before.fitted_on : '2026-11-16');
    await expect(await inTheDueList(user, '126')).toContainText(dayOf(now.due?.p50));
  }
});
