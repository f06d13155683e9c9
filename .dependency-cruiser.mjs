const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: `^src/(${allowed})/` },
});

export default {
  forbidden: [
    only('core-stands-alone', 'core', 'core'),
    only('text-reaches-only-core', 'text', 'text|core'),
    only('contracts-reach-only-core', 'contracts', 'contracts|core'),
    only('db-reaches-only-core', 'db', 'db|core'),
    only(
      'server-reaches-only-db-core-contracts-text-its-ports-and-the-planner',
      'server',
      'server|db|core|contracts|text|simulators|workers/planner',
    ),
    {
      name: 'stand-ins-only-behind-ports',
      severity: 'error',
      from: { path: '^src/(?!simulators/|server/ports/|app/.*/floor-with-wrench)' },
      to: { path: '^src/simulators/' },
    },
    only('stand-ins-reach-only-core', 'simulators', 'simulators|core'),
    only('ui-reaches-only-core-contracts-text-and-the-planner', 'ui', 'ui|core|contracts|text|workers/planner'),
    only('jobs-reach-only-server-db-core-and-contracts', 'jobs', 'jobs|server|db|core|contracts'),
    only('workers-reach-only-core-and-contracts', 'workers', 'workers|core|contracts'),
    {
      name: 'jobs-are-started-by-the-worker-alone',
      severity: 'error',
      from: { path: '^src/(?!jobs/)' },
      to: { path: '^src/jobs/' },
    },
    {
      name: 'core-has-no-interface-or-database',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules/(react|next|drizzle-orm|pg|@chakra-ui)|^(fs|path|crypto|os|node:)' },
    },
    {
      name: 'drizzle-only-in-db-and-server',
      severity: 'error',
      from: { path: '^src/(app|ui|workers)/' },
      to: { path: 'node_modules/(drizzle-orm|pg)/' },
    },
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    exclude: { path: '\\.next' },
  },
};
