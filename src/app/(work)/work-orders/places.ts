export const ORDER_PLACES = [
  { href: '/work-orders', label: 'Work orders' },
  { href: '/work-orders/follow-ups', label: 'Follow-ups' },
];
