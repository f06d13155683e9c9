import { may, type Role } from '@/server/access';
import type { Place, PlaceGroup } from '@/ui/frame/place';
import { BENCH_PLACES } from './bench/places';
import { ODOMETER_PLACES } from './odometer/places';

/* Where everything is, by the loop of the work. */

const GROUPS: readonly PlaceGroup[] = [
  {
    label: 'Watch',
    places: [
      { href: '/pressure', label: 'Pressure' },
      { href: '/due', label: 'Due', also: '/vehicles' },
      { href: '/odometer', label: 'Odometer' },
      { href: '/notices', label: 'Notices' },
      { href: '/pressure/costs', label: 'Costs' },
    ],
  },
  {
    label: 'Plan',
    places: [
      { href: '/plan', label: 'Week' },
      { href: '/plan/what-if', label: 'What if' },
      { href: '/plan/feeds', label: 'Calendars' },
      { href: '/plan/resources', label: 'Bays, people, absences' },
      { href: '/pressure/horizon', label: 'Horizon' },
    ],
  },
  {
    label: 'Work',
    places: [
      { href: '/work-orders', label: 'Work orders' },
      { href: '/plan/mine', label: 'My days' },
      { href: '/misfires', label: 'Misfires' },
      { href: '/work-orders/follow-ups', label: 'Follow-ups' },
      { href: '/work-orders/waiting', label: 'Waiting' },
    ],
  },
  {
    label: 'Parts',
    places: [
      { href: '/parts', label: 'Part in hand and catalogue' },
      { href: '/parts/receiving', label: 'Receiving' },
      { href: '/parts/trials', label: 'Trials' },
      { href: '/parts/number-codes', label: 'Number codes' },
    ],
  },
  {
    label: 'Know',
    places: [
      { href: '/engines', label: 'Engines and sheets' },
      { href: '/engines/unmatched', label: 'Without a firm match' },
      { href: '/policies', label: 'Policies' },
      { href: '/bench', label: 'Bench' },
      { href: '/work-orders/guide', label: 'Guide to removed parts' },
      { href: '/work-orders/trainer', label: 'Trainer' },
    ],
  },
  {
    label: 'Shop',
    places: [
      { href: '/import', label: 'Import' },
      { href: '/people', label: 'People' },
      { href: '/settings', label: 'Settings' },
      { href: '/settings/jobs', label: 'Background work' },
      { href: '/settings/about', label: 'About' },
    ],
  },
];

/** The groups as this role sees them. */
export const groupsFor = (role: Role): readonly PlaceGroup[] =>
  may({ role }, 'import data')
    ? GROUPS
    : GROUPS.map(({ label, places }) => ({ label, places: places.filter(({ href }) => href !== '/import') }));

/** Every place once, for going there by name. */
export const everywhere = (role: Role): readonly Place[] => {
  const all = [
    ...groupsFor(role).flatMap(({ places }) => places),
    ...ODOMETER_PLACES,
    ...BENCH_PLACES,
    { href: '/due/print', label: 'Due list on paper' },
  ];
  return all.filter(({ href }, i) => all.findIndex((place) => place.href === href) === i);
};

/** Where each role's work is. */
const STARTS: Readonly<Record<Role, string>> = {
  supervisor: '/pressure',
  technician: '/work-orders?show=today',
  parts_clerk: '/parts',
  viewer: '/pressure',
};
export const startOf = (role: Role): string => STARTS[role];
