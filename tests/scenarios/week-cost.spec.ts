import type { Page } from '@playwright/test';
import { expect, test, User } from './user';

/** What each vehicle costs a week, as a page shows it. */
async function costsOn(page: Page, path: string): Promise<ReadonlyMap<string, string>> {
  await page.goto(path);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const shown = await page
    .locator('[data-week-cost]')
    .evaluateAll((found) => found.map((one) => [one.getAttribute('data-unit'), one.getAttribute('data-week-cost')]));
  return new Map(shown.map(([unit, cost]) => [unit ?? '', cost ?? '']));
}

test('a vehicle costs the same each week on every page and over HTTP', async ({ page }) => {
  const user = new User(page);
  await user.signIn('supervisor');
  const answer = await page.request.get('/api/v1/due?limit=1000');
  const { items } = (await answer.json()) as {
    items: readonly { unit_number: string; pressure_per_week: number | null }[];
  };
  const known = new Map(items.map((item) => [item.unit_number, item.pressure_per_week?.toFixed(2)]));
  const depots = ['Northhaven', 'Quarry Cross', 'Eastlight', 'Machair Road'];
  const paths = [
    '/due',
    '/due/print',
    '/pressure',
    ...depots.map((depot) => `/plan?depot=${encodeURIComponent(depot)}`),
  ];
  let compared = 0;
  for (const path of paths)
    for (const [unit, cost] of await costsOn(page, path)) {
      expect([path, unit, cost]).toEqual([path, unit, known.get(unit)]);
      compared += 1;
    }
  expect(compared).toBeGreaterThan(40);
  await page.goto('/misfires');
  await page.getByRole('link', { name: /^104 meal/ }).click();
  await page.getByRole('link', { name: 'Vehicle', exact: true }).click();
  const own = page.locator('[data-unit="104"][data-week-cost]').first();
  await expect(own).toHaveAttribute('data-week-cost', known.get('104') ?? '');
  // Its open misfire is a part of it.
  await expect(page.getByText('Its open misfire')).toBeVisible();
});
