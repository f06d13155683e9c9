'use client';

import { useEffect } from 'react';

const AFTER_MS = 3000;
/** A page that fails every time is not loaded for ever: so often in this tab, then a person decides. */
const MAX_RELOADS = 10;
const KEY = 'isobar-reloads';

/** Loads the page again by itself: where the database was away for a moment, nobody has to press anything. */
export function useReloadSoon(): void {
  useEffect(() => {
    const done = Number(sessionStorage.getItem(KEY) ?? 0);
    if (done >= MAX_RELOADS) return;
    const timer = setTimeout(() => {
      sessionStorage.setItem(KEY, String(done + 1));
      window.location.reload();
    }, AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
}
