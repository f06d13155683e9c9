import { openConnection } from '../src/db/client';
import { migrateToLatest, NewerSchema } from '../src/db/migrate';

const { db, pool } = openConnection(process.env.DATABASE_URL ?? '', 2);
try {
  await migrateToLatest(db);
} catch (error) {
  if (!(error instanceof NewerSchema)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
}
await pool.end();
