import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { DEMO_TODAY, loadDemo } from '../demo/load';
import { openConnection } from '../src/db/client';
import { isFirstRun } from '../src/server/fleet/first-run';
import { NO_QUEUE } from '../src/server/queue';

const { db, pool } = openConnection(process.env.DATABASE_URL ?? '', 4);
const deps = { db, now: () => new Date(), today: () => DEMO_TODAY, jobs: NO_QUEUE };
const tokenFile = path.join(process.env.ISOBAR_DATA_DIR ?? '.isobar', 'demo-token');

if (await isFirstRun(deps)) {
  const { token } = await loadDemo(deps, process.env.ISOBAR_DEMO_PAST !== 'no');
  writeFileSync(tokenFile, `${token}\n`, { mode: 0o600 });
  process.stdout.write('Loaded the demo scenario.\n');
}
if (existsSync(tokenFile))
  process.stdout.write(`Demo token for the HTTP interface: ${readFileSync(tokenFile, 'utf8').trim()}\n`);
await pool.end();
