import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { afterAll, inject } from 'vitest';
import { loadDemo } from '../../demo/load';
import type { VehicleId } from '../../src/core/shared/kinds';
import { type Connection, openConnection } from '../../src/db/client';
import { migrateToLatest } from '../../src/db/migrate';
import { vehicles } from '../../src/db/schema';
import type { Actor, Role } from '../../src/server/access';
import type { Deps } from '../../src/server/deps';
import type { Outcome } from '../../src/server/failure';
import { NO_QUEUE } from '../../src/server/queue';

export const TODAY = '2026-11-16';

export interface Workspace {
  readonly deps: Deps;
  readonly url: string;
  readonly pool: Connection['pool'];
}

/** An empty, migrated database of this test file's own, dropped when the file ends. */
export async function emptyWorkspace(): Promise<Workspace> {
  const server = openConnection(inject('serverUrl'), 1);
  const name = `t_${randomUUID().replaceAll('-', '')}`;
  await server.db.execute(sql.raw(`create database ${name}`));
  const url = inject('serverUrl').replace(/\/[^/]*$/, `/${name}`);
  const { db, pool } = openConnection(url, 4);
  await migrateToLatest(db);
  afterAll(async () => {
    await pool.end();
    await server.db.execute(sql.raw(`drop database ${name} with (force)`));
    await server.pool.end();
  });
  return { deps: { db, now: () => new Date('2026-11-16T09:00:00Z'), today: () => TODAY, jobs: NO_QUEUE }, url, pool };
}

/** A workspace with the demo scenario. */
export async function demoWorkspace(): Promise<Workspace & { readonly supervisor: Actor }> {
  const workspace = await emptyWorkspace();
  const { actor } = await loadDemo(workspace.deps);
  return { ...workspace, supervisor: actor };
}

/** The vehicle that the fleet knows by a number. */
export async function idOfUnit({ db }: Deps, unit: string): Promise<VehicleId> {
  const [vehicle] = await db.select({ id: vehicles.id }).from(vehicles).where(eq(vehicles.unitNumber, unit));
  if (!vehicle) throw new Error(`no unit ${unit}`);
  return vehicle.id;
}

export const inRole = (actor: Actor, role: Role): Actor => ({ ...actor, role });

/** The value of an outcome that must have succeeded. */
export function value<T>(outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  throw new Error(`${outcome.error.kind}: ${outcome.error.message} ${JSON.stringify(outcome.error.fields ?? {})}`);
}
