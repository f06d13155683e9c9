import { expect, type Locator, type Page } from '@playwright/test';
import { test as base, sessionsNow } from './app';

/** Every scenario fails on a console error or warning that the page did not mean to give. */
export const test = base.extend<{ consoleGuard: undefined }>({
  consoleGuard: [
    async ({ page }, use) => {
      const unexpected: string[] = [];
      page.on('console', (message) => {
        // A test that cuts the connection means to.
        if (message.text().includes('ERR_INTERNET_DISCONNECTED')) return;
        if (message.text().includes('An unknown error occurred when fetching the script')) return;
        // The browser itself tells of a refused move, which the board says in words.
        if (message.text().includes('409') && message.location().url.includes('/api/v1/plan/moves')) return;
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

const STARTS = {
  supervisor: '/pressure',
  technician: '/work-orders\\?show=today',
  clerk: '/parts',
  viewer: '/pressure',
} as const;

/** The group, the place in it unless it is the first, and the address. */
const PLACES = {
  Pressure: ['Watch', '', '/pressure'],
  Due: ['Watch', 'Due', '/due'],
  Odometer: ['Watch', 'Odometer', '/odometer'],
  Plan: ['Plan', '', '/plan'],
  'Work orders': ['Work', '', '/work-orders'],
  Parts: ['Parts', '', '/parts'],
  Engines: ['Know', '', '/engines'],
  Bench: ['Know', 'Bench', '/bench'],
  Import: ['Shop', 'Import', '/import'],
  People: ['Shop', 'People', '/people'],
  Settings: ['Shop', 'Settings', '/settings'],
} as const;

/** What a person does, in the words of the work. */
export class User {
  constructor(readonly page: Page) {}

  /**
   * Signs in, once in each test file: later tests have the session.
   *
   * @param path the page to open; without it none, as every page costs a second
   */
  async signIn(who: keyof typeof STARTS, path: string | null = null): Promise<void> {
    const context = this.page.context();
    await context.addCookies(sessionsNow().get(who) ?? []);
    // The first of the file, or somebody has signed out since.
    if ((await context.request.get('/api/v1/engine-families?limit=1')).status() === 401) {
      await this.signInByHand(who);
      sessionsNow().set(who, await context.cookies());
    }
    await this.page.goto(path ?? 'about:blank');
    if (path) await expect(this.page.getByRole('heading', { level: 1 })).toBeVisible();
  }

  private async signInByHand(who: keyof typeof STARTS): Promise<void> {
    await this.page.goto('/sign-in');
    await this.page.getByLabel('Address').fill(`${who}@skerrymoor.example`);
    await this.page.getByLabel('Password').fill(PASSWORD);
    await this.page.getByRole('button', { name: 'Sign in' }).click();
    await expect(this.page).toHaveURL(new RegExp(`${STARTS[who]}$`));
    // Whole, before anybody goes on: a page that is left while it comes complains.
    await expect(this.page.getByRole('heading', { level: 1 })).toBeVisible();
  }

  async signOut(): Promise<void> {
    await this.page.locator('.top-word').first().click();
    await this.page.getByRole('button', { name: 'Sign out' }).click();
  }

  /** By the groups at the head of the page, then by the places of the group; by its address where no page is open. */
  async goTo(place: keyof typeof PLACES): Promise<void> {
    const [group, label, path] = PLACES[place];
    if (this.page.url() === 'about:blank') {
      await this.page.goto(path);
      await expect(this.page.getByRole('heading', { level: 1 })).toBeVisible();
      return;
    }
    await this.page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: group, exact: true }).click();
    if (label) {
      const places = this.page.getByRole('navigation', { name: group, exact: true });
      await places.getByRole('link', { name: label, exact: true }).click();
    }
    await expect(this.page).toHaveURL(new RegExp(`${path}$`));
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

  /** Types what was read and measured at the site in hand. */
  async fillSite(values: {
    found?: string;
    oldGap?: string;
    part: string;
    gap: string;
    torque: string;
  }): Promise<void> {
    if (values.found) await this.page.getByLabel(/^Number read off the old plug/).fill(values.found);
    if (values.oldGap) await this.page.getByLabel(/^Old gap/).fill(values.oldGap);
    await this.page.getByRole('group', { name: 'Thread in the head' }).getByRole('button', { name: 'sound' }).click();
    await this.page.getByLabel(/^Number on the new plug/).fill(values.part);
    await this.page.getByLabel(/^New gap/).fill(values.gap);
    await this.page.getByLabel(/^Installed torque/).fill(values.torque);
  }

  /** Goes to a tab of a work order, a vehicle or an engine. */
  async tab(name: string): Promise<void> {
    const link = this.page
      .getByRole('navigation', { name: /^Parts of the (work order|vehicle|engine)/ })
      .getByRole('link', { name: new RegExp(`^${name}`) });
    await link.click();
    await expect(link).toHaveAttribute('aria-current', 'page');
  }

  async place(name: 'New parts' | 'Steps' | 'Cylinders'): Promise<void> {
    await this.page.getByRole('navigation', { name: 'Parts of the job' }).getByRole('button', { name }).click();
  }

  /** Answers every open step, a phase by one press where that is offered, as a person with nothing to report does. */
  async answerSteps(): Promise<void> {
    await this.place('Steps');
    await this.answerUntil(Number.POSITIVE_INFINITY, null);
  }

  /**
   * The steps that open the places, and on to the places. The new parts are read before.
   *
   * @param notDone a step that is not done, with its reason
   */
  async openUp(notDone: RegExp | null = null): Promise<void> {
    await this.place('Steps');
    const places = await this.page.locator('.step-row:disabled').first().innerText();
    await this.answerUntil(Number(/\d+/.exec(places)?.[0]), notDone);
    await this.place('Cylinders');
  }

  /** @param end the number of the step before which it stops */
  private async answerUntil(end: number, notDone: RegExp | null): Promise<void> {
    const { page } = this;
    const hand = page.getByRole('group', { name: /^Step \d+ in hand$/ });
    // The list is drawn a moment after it is asked for; where nothing is left to do none comes.
    await hand
      .first()
      .waitFor({ timeout: 5000 })
      .catch(() => undefined);
    // Read without waiting: after the last step of a phase the page goes to the cylinders on its own, a moment later.
    const labelInHand = async () => (await hand.evaluateAll(([step]) => step?.getAttribute('aria-label'))) ?? null;
    for (let steps = 0; steps < 60; steps++) {
      const name = await labelInHand();
      if (name === null || Number(/\d+/.exec(name)?.[0]) >= end) return;
      const step = page.getByRole('group', { name, exact: true });
      const together = page.locator('.phase-steps', { has: step }).getByRole('button', { name: /^All \d+ in order$/ });
      const words = notDone ? null : ((await together.allInnerTexts())[0] ?? null);
      if (words) {
        await together.click();
        await expect(together.filter({ hasText: words })).toHaveCount(0);
        continue;
      }
      if (notDone?.test(await step.innerText())) await this.refuse(step);
      else await this.answer(step);
      await expect(step).toHaveCount(0);
    }
  }

  private async answer(hand: Locator): Promise<void> {
    const reader = hand.getByRole('button', { name: /with the code reader$/ });
    if ((await reader.count()) > 0) return reader.click();
    for (const ask of await hand.locator('[role="group"]:not([aria-label*="if it was running"])').all()) {
      const counted = ask.getByRole('button', { name: /counted$/ });
      const more = ask.getByRole('button', { name: /one more$/ });
      if ((await counted.count()) > 0) await counted.click();
      else if ((await more.count()) > 0) await more.click();
      else await ask.getByRole('button').first().click();
    }
    // What the dash shows: before a road test, and after one round the yard.
    const shown = /last read ([\d,]+)/.exec(await hand.innerText())?.[1] ?? '41310';
    for (const field of await hand.getByRole('textbox', { name: /^(?!.*°C)/ }).all())
      await field.fill((await field.getAttribute('inputmode')) === 'decimal' ? shown : 'as it should be');
    await hand.getByRole('button', { name: 'Done', exact: true }).click();
  }

  /** A step marked as not done, with the reason that a press offers. */
  private async refuse(hand: Locator): Promise<void> {
    await hand.getByRole('button', { name: 'Not done…' }).click();
    await hand.getByRole('button', { name: 'stopped, goes on another day' }).click();
    await hand.getByRole('button', { name: 'Mark as not done' }).click();
  }
}
