import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from '../scripts/lib/command.mjs';

/* What it costs to record at the vehicle: presses and seconds for a set of six plugs where all is well, and the time from a
   press to the next paint with the processor slowed four times. Against a running demo:
   tsx bench/at-the-vehicle.ts http://127.0.0.1:3000 UNIT */

const [base = 'http://127.0.0.1:3000', unit = '33'] = process.argv.slice(2);
const browser = await chromium.launch({
  executablePath: CHROMIUM,
  args: ['--no-sandbox'],
});
const context = await browser.newContext({ viewport: { width: 820, height: 1180 }, baseURL: base });
const page = await context.newPage();
await page.goto('/sign-in');
await page.getByLabel('Address').fill('supervisor@skerrymoor.example');
await page.getByLabel('Password').fill('island-service');
await page.getByRole('button', { name: 'Sign in' }).click();
await page.waitForURL('**/pressure');
const opened = await page.request.post('/api/v1/work-orders', {
  data: { unit_number: unit },
  headers: { Origin: base },
});
if (!opened.ok()) throw new Error(await opened.text());
const order = (await opened.json()).id;
await page.goto(`/work-orders/${order}/floor#parts`);

let presses = 0;
/** Between two presses: none by machine, that of a quick person where each press is timed. */
let pause = 0;
const press = async (target: ReturnType<Page['getByRole']>): Promise<void> => {
  presses += 1;
  await target.click();
  await page.waitForTimeout(pause);
};
const idle = () => page.getByText('All sent').waitFor();

await idle();
const began = performance.now();
await press(page.getByRole('button', { name: /^Read off each/ }));
const alike = page.getByRole('button', { name: /^Each of \d+ measures 1\.05 mm/ });
const sites = Number(/\d+/.exec((await alike.getAttribute('aria-label')) ?? '')?.[0]);
await press(alike);
const prepared = { presses, seconds: (performance.now() - began) / 1000 };

const client = await context.newCDPSession(page);
await client.send('Emulation.setCPUThrottlingRate', { rate: 4 });
await page.evaluate(() => {
  const times: number[] = [];
  Object.assign(window, { pressTimes: times });
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) if (entry.name === 'click') times.push(entry.duration);
  }).observe({ type: 'event', durationThreshold: 16, buffered: false } as PerformanceObserverInit);
});
await page.getByRole('button', { name: 'Steps', exact: true }).click();
// What is prepared, then what is opened: after that the page goes on to the plugs.
for (const _ of [1, 2])
  await page
    .getByRole('button', { name: /^All \d+ in order$/ })
    .first()
    .click();
await page.getByRole('button', { name: 'from 1' }).click();
presses = 0;
pause = 300;
const served = performance.now();
for (let i = 0; i < sites; i++) {
  await press(page.getByRole('button', { name: /^Reads .* thread sound$/ }));
  await press(page.getByRole('group', { name: 'By wire gauge, the old' }).getByRole('button', { name: '1.20' }));
  await press(page.getByRole('button', { name: /^Save cylinder .*Started by hand, torqued/ }));
}
const seconds = (performance.now() - served) / 1000;
await page.waitForTimeout(500);
const times = (await page.evaluate(() => (window as Window & { pressTimes?: number[] }).pressTimes ?? [])).sort(
  (a, b) => a - b,
);
const at = (share: number): string => `${times[Math.min(times.length - 1, Math.floor(share * times.length))] ?? 16} ms`;

console.log(`new parts, ${sites} plugs: ${prepared.presses} presses, ${prepared.seconds.toFixed(1)} s by machine`);
console.log(
  `at the engine: ${presses} presses, ${(presses / sites).toFixed(1)} a plug, ${seconds.toFixed(1)} s with ${pause / 1000} s between presses, processor slowed 4 times`,
);
console.log(
  `press to paint, slowed 4 times, of ${times.length} that took 16 ms or more of ${presses + 2}: median ${at(0.5)}, p95 ${at(0.95)}, most ${at(1)}`,
);
await browser.close();
