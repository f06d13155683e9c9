import type { ExtractTablesWithRelations } from 'drizzle-orm';
import { drizzle, type NodePgQueryResultHKT } from 'drizzle-orm/node-postgres';
import type { PgDatabase } from 'drizzle-orm/pg-core';
import { Pool, type PoolClient, types } from 'pg';
import * as schema from './schema';

// int8 as a number: our counts stay far below 2^53.
types.setTypeParser(20, Number);

const connect = (client: Pool | PoolClient) => drizzle({ client, schema, casing: 'snake_case' });
export type Db = ReturnType<typeof connect>;
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];
/** Either: for reads that may stand alone, and for a use-case that may run within a larger write. */
export type Querier = PgDatabase<NodePgQueryResultHKT, typeof schema, ExtractTablesWithRelations<typeof schema>>;

export interface Connection {
  readonly db: Db;
  readonly pool: Pool;
}

/** So long a connection is waited for: a server that writes a checkpoint on a slow disk lets nobody in for some seconds. */
const CONNECT_MS = 15_000;

/** @param url a PostgreSQL address; nothing is reached until the first query */
export function openConnection(url: string, max = 10): Connection {
  const pool = new Pool({ connectionString: url, max, connectionTimeoutMillis: CONNECT_MS });
  // A server restart drops idle clients; without a listener that would end the process.
  pool.on('error', () => undefined);
  return { pool, db: connect(pool) };
}

const ignore = (): void => undefined;

/**
 * Runs work on one connection of its own, with the connection itself for what only it can do: COPY, cursors. The
 * connection is closed when the work fails, so that nothing of it lingers.
 */
export async function onOneConnection<T>(db: Querier, work: (tx: Tx, client: PoolClient) => Promise<T>): Promise<T> {
  if (!('$client' in db)) throw new Error('a transaction has its connection already');
  const client = await (db.$client as Pool).connect();
  // A server that goes away is told by the query that fails; without a listener it would end the process besides.
  client.on('error', ignore);
  let failed: Error | boolean = true;
  try {
    const done = await connect(client).transaction((tx) => work(tx, client));
    failed = false;
    return done;
  } finally {
    client.off('error', ignore);
    client.release(failed);
  }
}
