export const ORDER_PLACES = [
  { href: '/work-orders', label: 'Work orders' },
  { href: '/work-orders/follow-ups', label: 'Follow-ups' },
  { href: '/work-orders/waiting', label: 'Waiting' },
  { href: '/work-orders/guide', label: 'Guide to removed parts' },
  { href: '/work-orders/trainer', label: 'Trainer' },
];
