/* Keeps the pages of jobs in hand on the device, so that they open with the network gone. What is typed is not kept here but
   in the device's own store. */

const FLOOR = /^\/work-orders\/[0-9a-f-]{36}\/floor$/;
const PAGES = 'isobar-floor-pages';
const FILES = 'isobar-files';
const MOST_FILES = 400;
const WAIT_MS = 4000;

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

self.addEventListener('message', (event) => {
  const { page, files } = event.data ?? {};
  if (page && FLOOR.test(page)) event.waitUntil(keep(page, files ?? []));
});

async function keep(page, files) {
  const job = await jobIn(await fetch(page, { credentials: 'same-origin', redirect: 'manual' }));
  if (job) await (await caches.open(PAGES)).put(page, job);
  const cache = await caches.open(FILES);
  await Promise.all(
    files.map(async (file) => {
      if (await cache.match(file)) return;
      const kept = await fetch(file);
      if (kept.ok) await cache.put(file, kept);
    }),
  );
  const names = await cache.keys();
  await Promise.all(names.slice(0, Math.max(0, names.length - MOST_FILES)).map((name) => cache.delete(name)));
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (url.pathname.startsWith('/_next/static/')) event.respondWith(fromFiles(request));
  else if (request.mode === 'navigate') {
    // Whoever signs out, or in, leaves no page of another person behind.
    if (url.pathname === '/sign-in') event.waitUntil(caches.delete(PAGES));
    if (FLOOR.test(url.pathname)) event.respondWith(networkFirst(request, url.pathname));
  }
});

async function fromFiles(request) {
  return (await (await caches.open(FILES)).match(request)) ?? fetch(request);
}

/** The page as the server has it; the kept one when the server cannot give it whole within the time. */
async function networkFirst(request, path) {
  const kept = await (await caches.open(PAGES)).match(path);
  const network = fetch(request);
  if (!kept) return network;
  const late = new Promise((resolve) => setTimeout(() => resolve(null), WAIT_MS));
  const whole = network.then(async (answer) => (isRefusal(answer) ? answer : jobIn(answer)));
  return (await Promise.race([whole.catch(() => null), late])) ?? kept;
}

/** Signed out, or not theirs: no page that was kept may stand for it. */
const isRefusal = ({ type, status }) => type === 'opaqueredirect' || (status >= 400 && status < 500);

/** The answer once it has come whole; null where it is no job: a page that fails midway comes as 200 all the same. */
async function jobIn(answer) {
  if (!answer.ok) return null;
  const page = await answer.text();
  if (!page.includes('data-floor-job')) return null;
  const headers = new Headers(answer.headers);
  // The text is unpacked already.
  for (const name of ['Content-Encoding', 'Content-Length']) headers.delete(name);
  return new Response(page, { headers });
}
