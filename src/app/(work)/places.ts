import type { Role } from '@/core/shared/role';
import { may } from '@/server/access';
import type { Place, PlaceGroup } from '@/ui/frame/place';
import { BENCH_PLACES } from './bench/places';
import { ODOMETER_PLACES } from './odometer/places';

/* Where everything is, by the loop of the work. */

const GROUPS: readonly PlaceGroup[] = [
  {
    label: 'Watch',
    places: [
      { href: '/pressure', label: 'Pressure' },
      { href: '/due', label: 'Due', also: '/vehicles', words: 'vehicles units fleet list overdue service' },
      { href: '/odometer', label: 'Odometer', words: 'reading mileage km hours meter' },
      { href: '/notices', label: 'Notices', words: 'alerts messages' },
      { href: '/pressure/costs', label: 'Costs', words: 'money labour rate currency' },
    ],
  },
  {
    label: 'Plan',
    places: [
      { href: '/plan', label: 'Week', words: 'plan schedule board calendar' },
      { href: '/plan/what-if', label: 'What if' },
      { href: '/plan/feeds', label: 'Calendars', words: 'feed ics subscribe' },
      {
        href: '/plan/resources',
        label: 'Bays, people, absences',
        words: 'absence holiday sick away depot hours opening shifts',
      },
      { href: '/pressure/horizon', label: 'Horizon', words: 'forecast year ahead' },
    ],
  },
  {
    label: 'Work',
    places: [
      { href: '/work-orders', label: 'Work orders', words: 'job card job cards visits' },
      { href: '/plan/mine', label: 'My days', words: 'my jobs today' },
      { href: '/misfires', label: 'Misfires' },
      { href: '/work-orders/follow-ups', label: 'Follow-ups' },
      { href: '/work-orders/waiting', label: 'Waiting', words: 'stopped jobs' },
    ],
  },
  {
    label: 'Parts',
    places: [
      { href: '/parts', label: 'Part in hand and catalogue', words: 'stock prices numbers' },
      { href: '/parts/to-order', label: 'To order', words: 'parts order purchase buy shopping' },
      { href: '/parts/receiving', label: 'Receiving', words: 'delivery goods in' },
      { href: '/parts/trials', label: 'Trials' },
      { href: '/parts/number-codes', label: 'Number codes' },
    ],
  },
  {
    label: 'Know',
    places: [
      { href: '/engines', label: 'Engines and sheets', words: 'spec gap torque interval' },
      { href: '/engines/unmatched', label: 'Without a firm match' },
      { href: '/policies', label: 'Policies' },
      { href: '/bench', label: 'Bench', words: 'tools calculators' },
      { href: '/work-orders/guide', label: 'Guide to removed parts' },
      { href: '/work-orders/trainer', label: 'Trainer' },
    ],
  },
  {
    label: 'Shop',
    places: [
      { href: '/import', label: 'Import' },
      { href: '/people', label: 'People', words: 'users accounts password roles' },
      { href: '/settings', label: 'Settings', words: 'units depots bays tokens depot hours' },
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
    { href: '/due/print', label: 'Due list on paper', words: 'print' },
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
