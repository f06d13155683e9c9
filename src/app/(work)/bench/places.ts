export const BENCH_PLACES = [
  { href: '/bench', label: 'Gap set' },
  { href: '/bench/torque', label: 'Torque' },
  { href: '/bench/convert', label: 'Units' },
  { href: '/bench/spark', label: 'Spark demand' },
  { href: '/bench/firing', label: 'Firing order and cap' },
  { href: '/bench/leads', label: 'Leads' },
  { href: '/bench/coils', label: 'One coil or all' },
  { href: '/bench/wrenches', label: 'Wrenches and saved results' },
];
