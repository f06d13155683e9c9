import { signedIn } from './signed-in';

/*
 * The page of a what-if while its plan is worked out in this browser's workers: its longest task. And two browsers on one week:
 * how long it takes until one sees what the other moved.
 */

const base = process.argv[2] ?? 'http://127.0.0.1:3000';
const { browser, storageState } = await signedIn(base);
const context = await browser.newContext({ baseURL: base, storageState });

const page = await context.newPage();
await page.goto('/plan/what-if', { waitUntil: 'networkidle' });
await page.getByRole('button', { name: 'Add', exact: true }).click();
await page.evaluate(() => {
  const seen: number[] = [];
  Object.assign(window, { seen });
  new PerformanceObserver((list) => seen.push(...list.getEntries().map(({ duration }) => duration))).observe({
    entryTypes: ['longtask'],
  });
});
const from = performance.now();
await page.getByRole('button', { name: 'Work it out' }).click();
// Until the plan is there; drawing it comes after.
await page.getByRole('button', { name: 'Stop, and keep the best so far' }).waitFor();
const during = await page.evaluate(async () => {
  while (document.querySelector('.plan-progress')) await new Promise((resolve) => requestAnimationFrame(resolve));
  return [...(Reflect.get(window, 'seen') as number[])];
});
const longest = Math.max(0, ...during);
process.stdout.write(
  `what-if: worked out in ${((performance.now() - from) / 1000).toFixed(1)} s, tasks of the page over 50 ms meanwhile: ${during.length}${during.length > 0 ? `, the longest ${longest.toFixed(0)} ms` : ''}\n`,
);

const week = '/plan?depot=Northhaven';
const other = await context.newPage();
for (const each of [page, other]) await each.goto(week, { waitUntil: 'load' });
const waiting = page.getByRole('button', { name: /^Plan on / }).first();
const times: number[] = [];
const MOVES = Number(process.env.BENCH_MOVES ?? 5);
for (let i = 0; i < MOVES && (await waiting.count()) > 0; i += 1) {
  const before = await other.locator('.job-bar').count();
  await waiting.click();
  await page.getByText(/^unit \S+ to /).waitFor();
  const moved = performance.now();
  await other.locator('.job-bar').nth(before).waitFor();
  times.push(performance.now() - moved);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByText(/^Taken back/).waitFor();
  await other.locator('.job-bar').nth(before).waitFor({ state: 'detached' });
}
if (times.length > 0)
  process.stdout.write(
    `a move seen in another browser after ${(Math.max(...times) / 1000).toFixed(2)} s at most of ${times.length}\n`,
  );
await browser.close();
