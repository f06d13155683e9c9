const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: `^src/(${allowed})/` },
});

export default {
  forbidden: [
    only('core-stands-alone', 'core', 'core'),
    only('db-reaches-only-core', 'db', 'db|core'),
    only('server-reaches-only-db-core-and-stand-ins', 'server', 'server|db|core|simulators'),
    only('stand-ins-reach-only-core', 'simulators', 'simulators|core'),
    only('ui-reaches-only-core', 'ui', 'ui|core'),
    only('workers-reach-only-server-and-core', 'workers', 'workers|server|core'),
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
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    exclude: { path: '\\.next' },
  },
};
