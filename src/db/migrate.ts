import { readFileSync } from 'node:fs';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { z } from 'zod';
import { type Db, onOneConnection } from './client';
import { LOCKS } from './locks';

const FOLDER = path.join(process.cwd(), 'src/db/migrations');
const journal = z.object({ entries: z.array(z.object({ when: z.number() })) });

/** The database is of a newer Isobar than this one. */
export class NewerSchema extends Error {}

/**
 * Brings the database to the schema of this build; safe to run again, and by several processes at once: the others wait.
 *
 * @throws NewerSchema where a newer build has been at it: what it wrote could be lost by an older one
 */
export async function migrateToLatest(db: Db): Promise<void> {
  await onOneConnection(db, async (_, client) => {
    await client.query('select pg_advisory_xact_lock($1)', [LOCKS.migration]);
    const newest = Math.max(
      ...journal
        .parse(JSON.parse(readFileSync(path.join(FOLDER, 'meta/_journal.json'), 'utf8')))
        .entries.map((e) => e.when),
    );
    const applied = await lastApplied(db);
    if (applied !== null && applied > newest)
      throw new NewerSchema(
        'This database was brought up to date by a newer Isobar. Start that version, or restore a backup made before it.',
      );
    await migrate(db, { migrationsFolder: FOLDER });
  });
}

/** When the last migration that this database has was made, ms; null: it is empty. */
async function lastApplied(db: Db): Promise<number | null> {
  const { rows } = await db.execute<{ known: string | null }>(
    sql`select to_regclass('drizzle.__drizzle_migrations')::text as known`,
  );
  if (!rows[0]?.known) return null;
  const last = await db.execute<{ at: number | null }>(
    sql`select max(created_at) as at from drizzle.__drizzle_migrations`,
  );
  return last.rows[0]?.at ?? null;
}
