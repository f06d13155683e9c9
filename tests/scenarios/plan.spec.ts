import type { Locator, Page } from '@playwright/test';
import { expect, test, User } from './user';

test.describe.configure({ mode: 'serial' });

const QUARRY = '/plan?depot=Quarry+Cross';

/** Asks for a plan, and waits until it is worked out. */
async function propose(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Plan again' }).click();
  await expect(page).toHaveURL(/\/plan\/proposals\//);
  await expect(page.getByRole('button', { name: 'Adopt' })).toBeVisible({ timeout: 60_000 });
}
async function adopt(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Adopt' }).click();
  await expect(page.getByText(/\d+ booked, \d+ of them moved, \d+ work orders opened\./)).toBeVisible({
    timeout: 60_000,
  });
}

const movable = (page: Page): Locator => page.locator('.job-bar:not([data-fixed])');
const live = (page: Page): Locator => page.locator('.board-said');

/**
 * Takes a job by the space bar and carries it from lane to lane until it may lie in a new place, then lets it go.
 * Every key is waited for: on a slow machine the board still says what the key before did.
 */
async function moveByKeys(page: Page, bar: Locator): Promise<string> {
  const unit = (await bar.locator('strong').first().innerText()).trim();
  const said = (): Promise<string> => live(page).innerText();
  await bar.focus();
  await page.keyboard.press('Space');
  await expect(live(page)).toContainText(new RegExp(`^${unit} on `));
  for (const key of [...Array(7).fill('ArrowRight'), 'ArrowDown', 'ArrowDown', ...Array(7).fill('ArrowLeft')]) {
    const before = await said();
    await page.keyboard.press(key);
    await expect(live(page)).not.toHaveText(before);
    if (!(await said()).includes('cannot be')) break;
  }
  const where = (await said()).split(': ')[0] ?? '';
  // What it costs is said before it is let go.
  await expect(live(page)).toContainText(/[+−]€|costs the same/);
  await page.keyboard.press('Space');
  await expect(live(page)).toContainText(new RegExp(`^unit ${unit} to `));
  return where;
}

test('a supervisor’s Monday: proposed, read, moved by keys, pinned, planned again after an illness', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await new User(page).signIn('supervisor');
  await page.goto(QUARRY);
  await propose(page);
  await page.getByRole('button', { name: 'Quarry Cross' }).click();
  const reasons = page.getByRole('table').filter({ hasText: 'Why' });
  await expect(reasons.first()).toContainText(/is the cheapest day|would cost .* less, but/);
  await page.locator('.job-bar').first().click();
  await expect(live(page)).toContainText(/: .*(cheapest|less, but|Pinned)/);
  await adopt(page);

  await page.goto(QUARRY);
  const before = await movable(page).count();
  expect(before).toBeGreaterThan(3);
  const first = await moveByKeys(page, movable(page).nth(0));
  await moveByKeys(page, movable(page).nth(1));
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(live(page)).toContainText('Taken back');
  expect(first).toMatch(/ on \w{3} \d+ Nov/);

  // One stays where it is.
  const pinnedUnit = (await movable(page).last().locator('strong').innerText()).trim();
  const bar = page.locator('.job-bar').filter({ has: page.getByText(pinnedUnit, { exact: true }) });
  await bar.click();
  // Pressed once more, a job stays chosen.
  await bar.click();
  await page.getByRole('button', { name: 'Pin it here' }).click();
  await expect(bar).toHaveAttribute('aria-label', /pinned/);
  const pinnedAt =
    /\w{3} \d+ Nov \d\d:\d\d to \d\d:\d\d/.exec((await bar.getAttribute('aria-label')) ?? '')?.[0] ?? 'none';

  // Somebody who works on Tuesday falls ill.
  const tuesday = page.getByRole('region', { name: 'Tue 17 Nov' });
  const [free, fixed] = await Promise.all(
    ['.job-bar:not([data-fixed])', '.job-bar[data-fixed]'].map((which) =>
      tuesday.locator(which).evaluateAll((bars) => bars.map((one) => one.getAttribute('aria-label') ?? '').join('\n')),
    ),
  );
  // What has begun or is pinned stays with whoever has it, ill or not.
  const person =
    ['A. Corrie', 'J. Holm', 'M. Vane'].find((name) => free?.includes(name) && !fixed?.includes(name)) ?? 'nobody';
  await page.goto('/plan/resources');
  await page.getByText('Add an absence').click();
  await page.getByLabel('Who or what').selectOption({ label: person });
  await page.getByLabel('Why').fill('ill');
  await page.getByLabel('First day').fill('2026-11-17');
  await page.getByRole('button', { name: 'Save the absence' }).click();
  await expect(page.locator('div', { hasText: new RegExp(`^${person}: ill`) }).last()).toBeVisible();
  await page.goto(QUARRY);
  await expect(page.getByRole('region', { name: 'Cannot be as booked' })).toContainText(`${person} is not there`);

  await propose(page);
  await adopt(page);
  await page.goto(QUARRY);
  await expect(page.getByText(`${person} is not there`)).toHaveCount(0);
  await expect(bar).toHaveAttribute('aria-label', new RegExp(pinnedAt));
});

test('a bay more is tried out in this browser, kept under a name and adopted', async ({ page }) => {
  test.setTimeout(180_000);
  await new User(page).signIn('supervisor');
  await page.goto('/plan/what-if');
  await page.getByLabel('What if').selectOption({ label: 'a bay more for a day' });
  await page.getByLabel('At', { exact: true }).selectOption({ label: 'Quarry Cross' });
  await page.getByLabel('on', { exact: true }).selectOption({ label: 'Wed 18 Nov' });
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('a bay more at Quarry Cross on Wed 18 Nov')).toBeVisible();
  await page.getByRole('button', { name: 'Work it out' }).click();
  const figures = page.getByRole('table').filter({ hasText: 'Planned again' });
  await expect(figures).toBeVisible({ timeout: 60_000 });
  await expect(figures).toContainText('Life thrown away');
  // A bay more never costs more.
  const sums = await figures
    .getByRole('row', { name: /^Together/ })
    .getByRole('cell')
    .allInnerTexts();
  const [, again, whatIf] = sums.map((text) => Number(text.replace(/[^\d.]/g, '')));
  expect(whatIf).toBeLessThanOrEqual((again ?? 0) + 1);
  await page.getByRole('button', { name: 'Keep as a proposal' }).click();
  await expect(page.getByText('Give it a name.')).toBeVisible();
  await page.getByLabel('Name').fill('borrow the bay of the garage');
  await page.getByRole('button', { name: 'Keep as a proposal' }).click();
  await expect(page.getByRole('heading', { name: 'borrow the bay of the garage' })).toBeVisible({ timeout: 30_000 });
  await adopt(page);
  await page.goto(QUARRY);
  await expect(page.getByText('Borrowed 2026-11-18').first()).toBeVisible();
});

test('the week is one sheet of paper, and a calendar program reads it until its address is replaced', async ({
  page,
  playwright,
}) => {
  await new User(page).signIn('supervisor');
  await page.goto(QUARRY);
  await expect(page.locator('.job-bar').first()).toBeVisible();
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)).toHaveLength(1);

  await page.goto('/plan/feeds');
  const line = page.getByRole('row', { name: /^Depot Quarry Cross/ });
  await line.getByRole('button', { name: 'Make an address' }).click();
  const once = line.getByLabel(/copy it now/);
  const address = await once.inputValue();
  expect(address).toMatch(/^http\S+\.ics$/);
  const nobody = await playwright.request.newContext();
  const answer = await nobody.get(address);
  expect(answer.headers()['content-type']).toContain('text/calendar');
  expect(await answer.text()).toContain('BEGIN:VEVENT');
  await line.getByRole('button', { name: 'Replace' }).click();
  await expect(once).not.toHaveValue(address);
  expect((await nobody.get(address)).status()).toBe(404);
});

test('two on one job at once: one wins, the other is told, and both see the same', async ({
  page,
  browser,
  baseURL,
}) => {
  await new User(page).signIn('supervisor');
  const other = await (await browser.newContext({ baseURL })).newPage();
  await new User(other).signIn('supervisor');
  const week = '/plan?depot=Quarry+Cross&week=2026-11-23';
  for (const each of [page, other]) await each.goto(week);
  // Something of this week goes to the next, by typing.
  await page.goto(QUARRY);
  const unit = (await movable(page).last().locator('strong').innerText()).trim();
  const bar = (on: Page): Locator => on.locator('.job-bar').filter({ has: on.getByText(unit, { exact: true }) });
  await bar(page).click();
  await page.getByRole('button', { name: 'Take off the plan' }).click();
  await expect(live(page)).toContainText(`unit ${unit} off the plan`);
  await page.goto(week);
  await page.getByRole('button', { name: new RegExp(`^${unit} `) }).click();
  await page.getByText('Plan it by typing').click();
  await page.getByRole('button', { name: 'Plan', exact: true }).click();
  await expect(live(page)).toContainText(`unit ${unit} to `);
  // The other sees it without doing anything.
  await expect(bar(other)).toBeVisible();

  // The other has it in hand while it is moved here.
  await bar(other).focus();
  await other.keyboard.press('Space');
  await other.keyboard.press('ArrowRight');
  await expect(live(other)).toContainText(` on `);
  await page.getByRole('button', { name: 'Take off the plan' }).click();
  await expect(live(page)).toContainText(`unit ${unit} off the plan`);
  for (const key of ['ArrowRight', 'ArrowRight', 'ArrowRight']) {
    if (!(await live(other).innerText()).includes('cannot be')) break;
    await other.keyboard.press(key);
  }
  await other.keyboard.press('Space');
  await expect(other.getByText(`Somebody else moved unit ${unit} meanwhile: it is off the plan now.`)).toBeVisible();
  await expect(bar(other)).toHaveCount(0);
  await other.context().close();
});
