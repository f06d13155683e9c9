'use client';

import { useReloadSoon } from '@/ui/primitives/reload-soon';

/** Where even the frame of the pages failed. */
export default function GlobalError() {
  useReloadSoon();
  return (
    <html lang="en">
      <body>
        <h1>This page could not be loaded</h1>
        <p>Nothing was changed. It is tried again by itself in a moment.</p>
      </body>
    </html>
  );
}
