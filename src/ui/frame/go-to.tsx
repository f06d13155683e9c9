'use client';

import { Search } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import type { Find } from './finder';
import type { Place } from './place';

const Finder = dynamic(() => import('./finder').then((module) => module.Finder), { ssr: false });

/** One box to go anywhere by keyboard: pages, vehicles, work orders, parts. Opened by Ctrl K. */
export function GoTo({ places, find }: { places: readonly Place[]; find: Find }) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'k' || !(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <button
        type="button"
        className="top-find"
        onClick={() => setOpen(true)}
        title="Go to a vehicle, order, part or page: Ctrl K"
        aria-keyshortcuts="Control+K"
      >
        <Search size={15} aria-hidden="true" /> Go to
      </button>
      {open && <Finder places={places} find={find} onClose={() => setOpen(false)} />}
    </>
  );
}
