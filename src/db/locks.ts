import { type SQL, sql } from 'drizzle-orm';
import type { FleetId } from '@/core/shared/kinds';
import type { Tx } from './client';

/*
 * Every advisory lock by name, so that no two uses share a number. All are held to the end of the
 * transaction. Where several are taken, they are taken in this order.
 */

/** Locks of the whole database. */
export const LOCKS = { migration: 7300, firstRun: 7301, people: 7302, queue: 7303 } as const;

/**
 * Locks of one row or fleet: the number tells them apart, the id says whose. `orderNumber`: the next number of a work
 * order, `caseNumber` that of a misfire; `dueRun`: the due status of a fleet is being computed; `load`: a large file is being loaded, and its process
 * lives; `fleet`: its vehicles are being renewed; `job`: a worker is at it; `sender`: a person begins to send a file; `imports`: a file is being written.
 */
const SEEDS = {
  orderNumber: 7,
  caseNumber: 9,
  dueRun: 11,
  load: 13,
  fleet: 17,
  job: 19,
  sender: 23,
  imports: 42,
} as const;
type Scope = keyof typeof SEEDS;

/** The key of a lock for one id, as PostgreSQL takes it. */
export const lockKey = (scope: Scope, id: SQL | string): SQL<number> =>
  sql<number>`hashtextextended(${id}::text, ${sql.raw(String(SEEDS[scope]))})`;

export async function lock(tx: Tx, name: keyof typeof LOCKS): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS[name]})`);
}

export async function lockOne(tx: Tx, scope: Scope, id: string): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(${lockKey(scope, id)})`);
}

/**
 * Until the transaction ends: many may renew some vehicles at once, one at a time the whole fleet. Taken before any row,
 * so that no two wait for each other.
 */
export async function lockFleet(tx: Tx, fleetId: FleetId, whole: boolean): Promise<void> {
  const taken = whole ? sql`pg_advisory_xact_lock` : sql`pg_advisory_xact_lock_shared`;
  await tx.execute(sql`select ${taken}(${lockKey('fleet', fleetId)})`);
}
