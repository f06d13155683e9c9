'use client';

import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { useServerInsertedHTML } from 'next/navigation';
import { type ReactNode, useState } from 'react';

/**
 * Puts the server's styles into the streamed head instead of beside the elements: without it the production build does
 * not hydrate.
 */
export function EmotionRegistry({ children }: { children: ReactNode }) {
  const [{ cache, flush }] = useState(makeCache);
  useServerInsertedHTML(() => {
    const names = flush().filter((name) => typeof cache.inserted[name] === 'string');
    if (names.length === 0) return null;
    const text = names.map((name) => cache.inserted[name]).join('');
    return (
      // biome-ignore lint/security/noDangerouslySetInnerHtml: style text made by the style engine itself
      <style data-emotion={[cache.key, ...names].join(' ')} dangerouslySetInnerHTML={{ __html: text }} />
    );
  });
  return <CacheProvider value={cache}>{children}</CacheProvider>;
}

function makeCache() {
  const cache = createCache({ key: 'css' });
  cache.compat = true;
  const insert = cache.insert;
  let names: string[] = [];
  cache.insert = (...args) => {
    const [selector, { name }] = args;
    // What has no selector holds for every page: it stands in the sheet.
    if (selector && cache.inserted[name] === undefined) names.push(name);
    return insert(...args);
  };
  const flush = () => {
    const flushed = names;
    names = [];
    return flushed;
  };
  return { cache, flush };
}
