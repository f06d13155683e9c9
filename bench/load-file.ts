import { createReadStream } from 'node:fs';
import { openConnection } from '../src/db/client';
import { people } from '../src/db/schema';
import { loadReadingsFile } from '../src/server/odometer/load-readings-file';
import { NO_QUEUE } from '../src/server/queue';

/* Loads one file of readings in a process of its own, so that its memory is its own. Prints what came of it as JSON. */

const [url = '', file = '', today = ''] = process.argv.slice(2);
const { db, pool } = openConnection(url, 4);
const [person] = await db.select().from(people);
if (!person) throw new Error('nobody is here to load');
let most = 0;
const watch = setInterval(() => {
  most = Math.max(most, process.memoryUsage().rss / 1e6);
}, 50);
const from = performance.now();
const loaded = await loadReadingsFile(
  { db, now: () => new Date(), today: () => today, jobs: NO_QUEUE },
  {
    personId: person.id,
    fleetId: person.fleetId,
    name: person.name,
    role: person.role,
    unitSystem: person.unitSystem,
  },
  { fileName: 'generated.csv', file: createReadStream(file) },
);
clearInterval(watch);
if (!loaded.ok) throw new Error(loaded.error.message);
process.stdout.write(JSON.stringify({ ...loaded.value, seconds: (performance.now() - from) / 1000, megabytes: most }));
await pool.end();
