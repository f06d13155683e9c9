'use client';

import { Drawer, Popover, Portal } from '@chakra-ui/react';
import { ChevronDown, Menu, X } from 'lucide-react';
import NextLink from 'next/link';
import { usePathname } from 'next/navigation';
import type { ReactNode } from 'react';
import { groupAt, type Place, type PlaceGroup, placeAt } from './place';

interface Props {
  readonly groups: readonly PlaceGroup[];
  /** Where this person's work begins. */
  readonly start: string;
  /** Notices that wait for this person. */
  readonly waiting: number;
  /** What stands at the right, before the person. */
  readonly aside: ReactNode;
  readonly name: string;
  /** What belongs to the person: role, look, sign out. */
  readonly menu: ReactNode;
}

/** The head of every page. At the vehicle the work has the screen: one line, and the rest in the menus. */
export function TopBar({ groups, start, waiting, aside, name, menu }: Props) {
  const path = usePathname();
  const atVehicle = path.endsWith('/floor');
  const group = groupAt(groups, path);
  const place = group && placeAt(group.places, path);
  const labelOf = ({ href, label }: Place) => (href === '/notices' && waiting > 0 ? `${label} ${waiting}` : label);
  return (
    <header className="top" data-no-print>
      <div className="top-line">
        <NextLink href={start} className="top-name" aria-label="Isobar, to where your work begins">
          <Mark />
          isobar
        </NextLink>
        <nav className="top-groups" aria-label="Main">
          {groups.map(({ label, places: [first, ...rest] }) => (
            <NextLink
              key={label}
              href={first?.href ?? start}
              prefetch={false}
              aria-current={currentOf(label === group?.label, rest.length === 0 && first?.href === path)}
            >
              {label}
            </NextLink>
          ))}
        </nav>
        <div className="top-side">
          {aside}
          {waiting > 0 && (
            <NextLink href="/notices" className="link" prefetch={false} data-wide>
              Notices {waiting}
            </NextLink>
          )}
          <Popover.Root key={path} positioning={{ placement: 'bottom-end' }} lazyMount>
            <Popover.Trigger className="top-word">
              {name} <ChevronDown size={15} aria-hidden="true" />
            </Popover.Trigger>
            <Popover.Positioner>
              <Popover.Content>
                <Popover.Body>{menu}</Popover.Body>
              </Popover.Content>
            </Popover.Positioner>
          </Popover.Root>
          <PhoneMenu key={`menu ${path}`} groups={groups} current={place} labelOf={labelOf} />
        </div>
      </div>
      {group && group.places.length > 1 && !atVehicle && (
        <nav className="top-places" aria-label={group.label}>
          {group.places.map((each) => (
            <NextLink
              key={each.href}
              href={each.href}
              prefetch={false}
              aria-current={currentOf(each === place, each.href === path)}
            >
              {labelOf(each)}
            </NextLink>
          ))}
        </nav>
      )}
    </header>
  );
}

/** On a phone: every place, over the page; closed by going to another page. */
const PhoneMenu = ({
  groups,
  current,
  labelOf,
}: {
  groups: readonly PlaceGroup[];
  current: Place | null | undefined;
  labelOf: (place: Place) => string;
}) => (
  <Drawer.Root placement="end" lazyMount unmountOnExit>
    <Drawer.Trigger className="top-word top-menu">
      <Menu size={18} aria-hidden="true" /> Menu
    </Drawer.Trigger>
    <Portal>
      <Drawer.Backdrop />
      <Drawer.Positioner>
        <Drawer.Content aria-label="Menu">
          <Drawer.CloseTrigger className="top-word">
            <X size={18} aria-hidden="true" /> Close
          </Drawer.CloseTrigger>
          <nav aria-label="Menu">
            {groups.map(({ label, places }) => (
              <section key={label}>
                <h2>{label}</h2>
                <ul>
                  {places.map((each) => (
                    <li key={each.href}>
                      <NextLink href={each.href} prefetch={false} aria-current={each === current ? 'page' : undefined}>
                        {labelOf(each)}
                      </NextLink>
                    </li>
                  ))}
                </ul>
              </section>
            ))}
          </nav>
        </Drawer.Content>
      </Drawer.Positioner>
    </Portal>
  </Drawer.Root>
);

/** How a link stands to the page that is shown: it is that page, holds it, or neither. */
function currentOf(holds: boolean, isPage: boolean): 'page' | 'true' | undefined {
  if (!holds) return undefined;
  return isPage ? 'page' : 'true';
}

function Mark() {
  return (
    <svg width="24" height="22" viewBox="0 0 24 22" aria-hidden="true">
      <g fill="none" stroke="currentColor" strokeWidth="2" strokeLinecap="round">
        <path d="M2 14c6-1 7-8 13-8 3 0 4 2 7 2" />
        <path d="M2 8c5-1 6-6 11-6" opacity="0.6" />
        <path d="M5 20c5-1 6-7 11-7 3 0 4 1 6 1" opacity="0.6" />
      </g>
    </svg>
  );
}
