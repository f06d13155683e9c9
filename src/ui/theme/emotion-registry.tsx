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
    const entries = flush();
    if (entries.length === 0) return null;
    let css = '';
    let attribute = cache.key;
    const globals: { name: string; css: string }[] = [];
    for (const { name, global } of entries) {
      const text = cache.inserted[name];
      if (typeof text !== 'string') continue;
      if (global) globals.push({ name, css: text });
      else {
        attribute += ` ${name}`;
        css += text;
      }
    }
    return (
      <>
        {globals.map((g) => (
          <StyleText key={g.name} name={`${cache.key}-global ${g.name}`} css={g.css} />
        ))}
        {css && <StyleText name={attribute} css={css} />}
      </>
    );
  });
  return <CacheProvider value={cache}>{children}</CacheProvider>;
}

function StyleText({ name, css }: { name: string; css: string }) {
  // biome-ignore lint/security/noDangerouslySetInnerHtml: style text made by the style engine itself
  return <style data-emotion={name} dangerouslySetInnerHTML={{ __html: css }} />;
}

function makeCache() {
  const cache = createCache({ key: 'css' });
  cache.compat = true;
  const insert = cache.insert;
  let names: { name: string; global: boolean }[] = [];
  cache.insert = (...args) => {
    const [selector, serialized] = args;
    if (cache.inserted[serialized.name] === undefined) names.push({ name: serialized.name, global: !selector });
    return insert(...args);
  };
  const flush = () => {
    const flushed = names;
    names = [];
    return flushed;
  };
  return { cache, flush };
}
