import { randomBytes } from 'node:crypto';
import { openConnection } from '../src/db/client';
import { rescueSupervisor } from '../src/server/auth/passwords';

/* Run by scripts/rescue.mjs, which knows the database: npm run rescue -- name@example.org */

const email = process.argv[2] ?? '';
const password = randomBytes(12).toString('base64url');
const { db, pool } = openConnection(process.env.DATABASE_URL ?? '', 1);
const name = await db.transaction((tx) => rescueSupervisor(tx, email, password));
process.stdout.write(
  name === null
    ? `No supervisor signs in with “${email}”.\n`
    : `${name} can sign in with ${email} and this password: ${password}\nChange it under Settings.\n`,
);
if (name === null) process.exitCode = 1;
await pool.end();
