import { keptPages } from './kept-pages';

/* Built into public/sw.js. What is typed is not kept here but in the device's own store. */

declare const self: ServiceWorkerGlobalScope;

const kept = keptPages({
  caches: self.caches,
  fetch: (request, init) => self.fetch(request, init),
  wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
  origin: self.location.origin,
});

self.addEventListener('install', () => {
  self.skipWaiting();
});
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
self.addEventListener('message', (event) => {
  const { page, files } = (event.data ?? {}) as { page?: string; files?: readonly string[] };
  if (page) event.waitUntil(kept.keep(page, files ?? []));
});
self.addEventListener('fetch', (event) => {
  const { request } = event;
  if (request.mode === 'navigate' && new URL(request.url).pathname === '/sign-in') event.waitUntil(kept.forget());
  const answer = kept.answer(request);
  if (answer) event.respondWith(answer);
});
