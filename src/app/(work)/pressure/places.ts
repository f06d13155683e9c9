export const PRESSURE_PLACES = [
  { href: '/pressure', label: 'Chart' },
  { href: '/pressure/horizon', label: 'Horizon' },
  { href: '/pressure/costs', label: 'Costs' },
];
