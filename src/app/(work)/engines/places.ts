export const ENGINE_PLACES = [
  { href: '/engines', label: 'Engine families' },
  { href: '/engines/unmatched', label: 'Without a firm match' },
  { href: '/policies', label: 'Shop policies' },
];
