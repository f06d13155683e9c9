import { drizzle } from 'drizzle-orm/node-postgres';
import { Pool, types } from 'pg';
import * as schema from './schema';

// int8 as a number: our counts stay far below 2^53.
types.setTypeParser(20, Number);

const connect = (pool: Pool) => drizzle({ client: pool, schema, casing: 'snake_case' });
export type Db = ReturnType<typeof connect>;
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];
/** Either: for reads that may stand alone. */
export type Querier = Db | Tx;

export interface Connection {
  readonly db: Db;
  readonly pool: Pool;
}

/** @param url a PostgreSQL address; nothing is reached until the first query */
export function openConnection(url: string, max = 10): Connection {
  const pool = new Pool({ connectionString: url, max, connectionTimeoutMillis: 5000 });
  // A server restart drops idle clients; without a listener that would end the process.
  pool.on('error', () => undefined);
  return { pool, db: connect(pool) };
}
