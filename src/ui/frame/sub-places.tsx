'use client';

import NextLink from 'next/link';
import { usePathname } from 'next/navigation';
import type { Place } from './place';

/** A place with what is to be done there, where something is. */
type SubPlace = Place & { readonly note?: string | null };

/** Places within one page of the work, as tabs with an address each. */
export function SubPlaces({ label, places }: { label: string; places: readonly SubPlace[] }) {
  const path = usePathname();
  return (
    <nav className="sub-places" aria-label={label} data-no-print>
      {places.map(({ href, label: text, note }) => (
        <NextLink key={href} href={href} prefetch={false} aria-current={path === href ? 'page' : undefined}>
          {text} {note && <span className="sub-note">{note}</span>}
        </NextLink>
      ))}
    </nav>
  );
}
