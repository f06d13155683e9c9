import { openConnection } from '../src/db/client';
import { fleets } from '../src/db/schema';
import { today } from '../src/server/deps';
import { backTestFleet } from '../src/server/due/back-test';
import { refreshDue } from '../src/server/due/refresh-due';

const { db, pool } = openConnection(process.env.DATABASE_URL ?? '', 2);
for (const fleet of await db.select().from(fleets)) {
  await db.transaction((tx) => refreshDue(tx, fleet.id, today(), null));
  await db.transaction((tx) => backTestFleet(tx, fleet.id, today()));
  process.stdout.write(`rebuilt the due status of every vehicle of ${fleet.name}\n`);
}
await pool.end();
