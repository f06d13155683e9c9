import { reach } from './lib/backup.mjs';
import { nodeArgs, run } from './lib/command.mjs';

/* npm run rescue -- ADDRESS: a new password for a supervisor, where nobody can sign in any more. */
const { url, leave } = await reach(process.env.ISOBAR_DATA_DIR ?? '.isobar');
run(process.execPath, [nodeArgs.tsx, 'scripts/rescue.ts', process.argv[2] ?? ''], {
  env: { DATABASE_URL: url },
  what: 'the rescue',
});
leave();
