'use client';

import { usePathname } from 'next/navigation';
import { type ReactNode, useEffect, useRef } from 'react';

/** What opens under a word, and closes by Escape, by a press elsewhere, and once one has gone to another page. */
export function Drop({ word, menu = false, children }: { word: ReactNode; menu?: boolean; children: ReactNode }) {
  const details = useRef<HTMLDetailsElement>(null);
  const path = usePathname();
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is the going that closes it
  useEffect(() => details.current?.removeAttribute('open'), [path]);
  useEffect(() => {
    const close = (event: Event) => {
      const own = details.current;
      if (!own?.open) return;
      if (event instanceof KeyboardEvent) {
        if (event.key !== 'Escape') return;
        own.querySelector('summary')?.focus();
      } else if (event.target instanceof Node && own.contains(event.target)) return;
      own.open = false;
    };
    document.addEventListener('keydown', close);
    document.addEventListener('pointerdown', close);
    return () => {
      document.removeEventListener('keydown', close);
      document.removeEventListener('pointerdown', close);
    };
  }, []);
  return (
    <details ref={details} className={menu ? 'drop menu' : 'drop'}>
      <summary>{word}</summary>
      <div>{children}</div>
    </details>
  );
}
