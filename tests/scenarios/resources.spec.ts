import { expect, test, User } from './user';

test('a bay, a person and an absence are said by hand, and a calendar is read', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/plan/resources');
  await page.getByRole('strong').filter({ hasText: 'Machair Road Bay 1' }).click();
  await page.getByLabel('Its own hours').and(page.locator(':visible')).fill('mornings');
  await page.getByRole('button', { name: 'Save the bay' }).and(page.locator(':visible')).click();
  await expect(page.getByText('Write it like Mon Tue Wed Thu 08:00-16:00').first()).toBeVisible();
  await page.getByLabel('Its own hours').and(page.locator(':visible')).fill('Mon Tue Wed 08:00-15:00');
  await page.getByRole('button', { name: 'Save the bay' }).and(page.locator(':visible')).click();
  await expect(page.getByText('Mon Tue Wed 08:00-15:00').first()).toBeVisible();

  await page.getByText('Add an absence').click();
  await page.getByLabel('Who or what').selectOption({ label: 'J. Holm' });
  await page.getByLabel('Why').fill('course on the mainland');
  await page.getByLabel('First day').fill('2026-11-24');
  await page.getByText('Tue', { exact: true }).click();
  await page.getByRole('button', { name: 'Save the absence' }).click();
  await expect(page.getByText('every week on Tue from 24 Nov 2026')).toBeVisible();
  const line = page.locator('div', { hasText: /^J\. Holm: course on the mainland/ }).last();
  await expect(line).toBeVisible();

  await page.getByText('Read absences from a calendar file').click();
  await page.getByLabel('Whose calendar').selectOption({ label: 'unit 21 clinic van' });
  const calendar = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:demo',
    'BEGIN:VEVENT',
    'UID:clinic-1',
    'SUMMARY:clinic on the north road',
    'DTSTART;VALUE=DATE:20261130',
    'DTEND;VALUE=DATE:20261203',
    'END:VEVENT',
    'END:VCALENDAR',
    '',
  ].join('\r\n');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'clinic.ics', mimeType: 'text/calendar', buffer: Buffer.from(calendar) });
  await page.getByRole('button', { name: 'Read the calendar' }).click();
  await expect(page.getByText('clinic on the north road')).toBeVisible();
  await expect(page.getByText('30 Nov 2026 to 2 Dec 2026 · from a calendar')).toBeVisible();
});

test('the hours of a depot and the ways to the others are saved, and a way that is none is refused at its field', async ({
  page,
}) => {
  const user = new User(page);
  await user.signIn('supervisor');
  await page.goto('/settings');
  const depot = page.locator('details', { has: page.getByText(/^Eastlight: /) });
  await depot.getByText(/^Eastlight: /).click();
  const way = depot.getByLabel('Way to Quarry Cross');
  await way.fill('soon');
  await depot.getByLabel('Opens').fill('07:30');
  await depot.getByRole('button', { name: 'Save Eastlight' }).click();
  await expect(depot.getByText('Give minutes.')).toBeVisible();
  await expect(way).toBeFocused();
  await way.fill('35');
  await depot.getByRole('button', { name: 'Save Eastlight' }).click();
  await expect(page.getByText(/^Eastlight: .*07:30 to/)).toBeVisible();
  await page.reload();
  await depot.getByText(/^Eastlight: /).click();
  await expect(way).toHaveValue('35');
});
