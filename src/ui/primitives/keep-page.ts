/**
 * Asks the device to keep this page and its files, so that it opens again with the network gone.
 *
 * @param more files besides those of the page itself
 */
export function keepPage(more: readonly string[] = []): void {
  if (!('serviceWorker' in navigator)) return;
  const kept = async () => {
    await navigator.serviceWorker.register('/sw.js');
    const { active } = await navigator.serviceWorker.ready;
    const files = performance
      .getEntriesByType('resource')
      .map(({ name }) => new URL(name))
      .filter(({ origin, pathname }) => origin === window.location.origin && pathname.startsWith('/_next/static/'))
      .map(({ pathname }) => pathname);
    active?.postMessage({ page: window.location.pathname, files: [...new Set([...files, ...more])] });
  };
  // Without a network the page is not kept this time; what is typed is.
  kept().catch(() => undefined);
}
