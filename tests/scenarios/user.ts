import { test as base, expect, type Page } from '@playwright/test';

/** Every scenario fails on a console error or warning that the page did not mean to give. */
export const test = base.extend<{ consoleGuard: undefined }>({
  consoleGuard: [
    async ({ page }, use) => {
      const unexpected: string[] = [];
      page.on('console', (message) => {
        // A test that cuts the connection means to.
        if (message.text().includes('ERR_INTERNET_DISCONNECTED')) return;
        // The browser itself tells of a refused file, which the page shows in words.
        if (message.text().includes('422') && message.location().url.includes('/api/v1/odometer-readings')) return;
        if (['error', 'warning'].includes(message.type()))
          unexpected.push(`${message.text()} ${message.location().url}`);
      });
      page.on('pageerror', (error) => unexpected.push(error.message));
      await use(undefined);
      expect(unexpected).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

export const PASSWORD = 'island-service';

/** What a person does, in the words of the work. */
export class User {
  constructor(readonly page: Page) {}

  async signIn(who: 'supervisor' | 'technician' | 'clerk' | 'viewer'): Promise<void> {
    await this.page.goto('/sign-in');
    await this.page.getByLabel('Address').fill(`${who}@skerrymoor.example`);
    await this.page.getByLabel('Password').fill(PASSWORD);
    await this.page.getByRole('button', { name: 'Sign in' }).click();
    await expect(this.page.getByRole('heading', { name: /Service pressure/ })).toBeVisible();
    await this.goTo('Due');
  }

  async goTo(
    place:
      | 'Pressure'
      | 'Due'
      | 'Odometer'
      | 'Work orders'
      | 'Plan'
      | 'Engines'
      | 'Parts'
      | 'Bench'
      | 'Import'
      | 'People'
      | 'Settings',
  ): Promise<void> {
    await this.page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: place, exact: true }).click();
    await expect(this.page).toHaveURL(new RegExp(`/${place.toLowerCase().replace(' ', '-')}$`));
    await expect(this.page.getByRole('heading', { level: 1 })).toBeVisible();
  }

  async upload(...files: readonly string[]): Promise<void> {
    await this.goTo('Import');
    await this.page.getByLabel(/CSV files/).setInputFiles([...files]);
    await this.page.getByRole('button', { name: 'Check', exact: true }).click();
  }

  row(text: string | RegExp) {
    return this.page.getByRole('row').filter({ hasText: text });
  }

  async fillSite(values: {
    found?: string;
    oldGap?: string;
    part: string;
    gap: string;
    torque: string;
  }): Promise<void> {
    const numbers = this.page.getByLabel('Number read off it');
    if (values.found) await numbers.first().fill(values.found);
    if (values.oldGap) await this.page.getByLabel(/^Old gap/).fill(values.oldGap);
    await numbers.last().fill(values.part);
    await this.page.getByLabel(/^New gap/).fill(values.gap);
    await this.page.getByLabel(/^Installed torque/).fill(values.torque);
  }
}
