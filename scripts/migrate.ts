import { openConnection } from '../src/db/client';
import { migrateToLatest } from '../src/db/migrate';

const { db, pool } = openConnection(process.env.DATABASE_URL ?? '', 1);
await migrateToLatest(db);
await pool.end();
