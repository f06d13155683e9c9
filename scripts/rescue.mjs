import { isHeld } from './lib/app.mjs';
import { startCluster } from './lib/cluster.mjs';
import { nodeArgs, run } from './lib/command.mjs';

/* npm run rescue -- ADDRESS: a new password for a supervisor, where nobody can sign in any more. */
const dataDir = process.env.ISOBAR_DATA_DIR ?? '.isobar';
const held = isHeld(dataDir);
const cluster = process.env.DATABASE_URL ? null : await startCluster(dataDir);
run(process.execPath, [nodeArgs.tsx, 'scripts/rescue.ts', process.argv[2] ?? ''], {
  env: { DATABASE_URL: process.env.DATABASE_URL || cluster.url },
  what: 'the rescue',
});
if (!held) cluster?.stop();
