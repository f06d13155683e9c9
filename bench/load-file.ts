import { createReadStream } from 'node:fs';
import { openConnection } from '../src/db/client';
import { people } from '../src/db/schema';
import { loadReadingsFile } from '../src/server/odometer/load-readings-file';
import { awaitLoad, receiveReadingsFile } from '../src/server/odometer/receive-readings-file';

/* Takes in and loads one file of readings in a process of its own, so that its memory is its own. Prints what came of it as JSON. */

const [url = '', file = '', today = ''] = process.argv.slice(2);
const { db, pool } = openConnection(url, 6);
const [person] = await db.select().from(people);
if (!person) throw new Error('nobody is here to load');
let most = 0;
const watch = setInterval(() => {
  most = Math.max(most, process.memoryUsage().rss / 1e6);
}, 50);
const actor = {
  personId: person.id,
  fleetId: person.fleetId,
  name: person.name,
  role: person.role,
  unitSystem: person.unitSystem,
};
// What a worker would do is done here.
const deps = { db, now: () => new Date(), today: () => today, jobs: { send: async () => undefined } };
const from = performance.now();
const received = await receiveReadingsFile(deps, actor, { fileName: 'generated.csv', file: createReadStream(file) });
if (!received.ok) throw new Error(received.error.message);
const receiving = (performance.now() - from) / 1000;
await loadReadingsFile(deps, { fleetId: person.fleetId, loadId: received.value.loadId });
const seconds = (performance.now() - from) / 1000;
clearInterval(watch);
const loaded = await awaitLoad(deps, actor, received.value);
if (!loaded.ok) throw new Error(loaded.error.message);
process.stdout.write(JSON.stringify({ ...loaded.value, seconds, receiving, megabytes: most }));
await pool.end();
