export const ODOMETER_PLACES = [
  { href: '/odometer', label: 'Suspect readings' },
  { href: '/odometer/yard-walk', label: 'Yard walk' },
  { href: '/odometer/feed', label: 'Feed' },
];
