import { gzipSync } from 'node:zlib';
import { signedIn } from './signed-in';

/* Compressed JavaScript that a browser fetches for a page of the running demo, each page in a fresh browser. */

const base = process.argv[2] ?? 'http://127.0.0.1:3000';
const { browser, storageState, order, vehicle } = await signedIn(base);

const PAGES = [
  ['Pressure', '/pressure'],
  ['Due', '/due'],
  ['work order', order],
  ['floor view', `${order}/floor`],
  ['vehicle, with its chart', vehicle],
  ['engines', '/engines'],
  ['engine editor', '/engines/new'],
  ['part in hand', '/parts'],
  ['torque on the bench', '/bench/torque'],
  ['week', '/plan'],
  ['what if', '/plan/what-if'],
] as const;

for (const [name, path] of PAGES.slice(0, Number(process.env.BENCH_PAGES ?? PAGES.length))) {
  const context = await browser.newContext({ baseURL: base, storageState });
  const fresh = await context.newPage();
  const sizes: Promise<number>[] = [];
  fresh.on('response', (response) => {
    if (response.request().resourceType() === 'script')
      sizes.push(
        response.body().then(
          (body) => gzipSync(body, { level: 9 }).length,
          // A file that comes while the page is left is none of its weight.
          () => 0,
        ),
      );
  });
  await fresh.goto(path, { waitUntil: 'networkidle' });
  const total = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
  process.stdout.write(`JavaScript for ${name}: ${(total / 1000).toFixed(0)} kB compressed in ${sizes.length} files\n`);
  await context.close();
}
await browser.close();
