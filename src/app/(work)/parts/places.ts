export const PART_PLACES = [
  { href: '/parts', label: 'Part in hand and catalogue' },
  { href: '/parts/receiving', label: 'Receiving' },
  { href: '/parts/trials', label: 'Trials' },
  { href: '/parts/number-codes', label: 'Number codes' },
];
