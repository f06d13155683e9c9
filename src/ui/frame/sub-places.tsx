'use client';

import NextLink from 'next/link';
import { usePathname } from 'next/navigation';
import type { Place } from './place';

/** Places within one page of the work. */
export function SubPlaces({ label, places }: { label: string; places: readonly Place[] }) {
  const path = usePathname();
  return (
    <nav className="sub-places" aria-label={label} data-no-print>
      {places.map(({ href, label: text }) => (
        <NextLink key={href} href={href} prefetch={false} aria-current={path === href ? 'page' : undefined}>
          {text}
        </NextLink>
      ))}
    </nav>
  );
}
