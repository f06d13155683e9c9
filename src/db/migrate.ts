import path from 'node:path';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import type { Db } from './client';

/** Brings the database to the newest schema; safe to run again. */
export async function migrateToLatest(db: Db): Promise<void> {
  await migrate(db, { migrationsFolder: path.join(process.cwd(), 'src/db/migrations') });
}
