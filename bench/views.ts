import { signedIn } from './signed-in';

/* Views a second of the main pages of the running demo by eight people at once, beside a page of the same frame with next to
   nothing on it, and the size of their HTML. */

const base = process.argv[2] ?? 'http://127.0.0.1:3000';
const SECONDS = Number(process.env.BENCH_SECONDS ?? 6);
const PEOPLE = 8;

const { browser, storageState, order, vehicle } = await signedIn(base);
await browser.close();
const headers = { Cookie: storageState.cookies.map(({ name, value }) => `${name}=${value}`).join('; ') };

async function view(path: string): Promise<number> {
  const answer = await fetch(base + path, { headers, redirect: 'manual' });
  const text = await answer.text();
  if (answer.status !== 200) throw new Error(`${path} answered ${answer.status}`);
  return text.length;
}

/** Views a second, and the size of one, bytes. */
async function measure(path: string): Promise<{ rate: number; size: number }> {
  let size = 0;
  for (let i = 0; i < PEOPLE; i++) size = await view(path);
  const from = performance.now();
  let views = 0;
  const person = async () => {
    while (performance.now() - from < SECONDS * 1000) {
      await view(path);
      views += 1;
    }
  };
  await Promise.all(Array.from({ length: PEOPLE }, person));
  return { rate: (views * 1000) / (performance.now() - from), size };
}

const empty = await measure('/settings/about');
const line = (name: string, { rate, size }: { rate: number; size: number }) =>
  process.stdout.write(
    `${name}: ${rate.toFixed(1)} views a second, ${((100 * rate) / empty.rate).toFixed(0)} % of next to nothing; HTML ${(size / 1000).toFixed(0)} kB\n`,
  );
line('next to nothing', empty);
for (const [name, path] of [
  ['Pressure', '/pressure'],
  ['Due', '/due'],
  ['vehicle', vehicle],
  ['work orders', '/work-orders'],
  ['work order', order],
  ['at the vehicle', `${order}/floor`],
  ['plan', '/plan'],
  ['notices', '/notices'],
  ['parts', '/parts'],
  ['engines', '/engines'],
] as const)
  line(name, await measure(path));
