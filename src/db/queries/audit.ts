import { and, desc, eq } from 'drizzle-orm';
import type { AuditAction, AuditEntity } from '@/core/shared/audit';
import type { FleetId, PersonId } from '@/core/shared/kinds';
import type { Querier, Tx } from '../client';
import { auditTrail, people } from '../schema';

/** Who did it, and in which fleet. */
export interface Author {
  readonly fleetId: FleetId;
  readonly personId: PersonId | null;
}

export type AuditEntry = {
  readonly [E in AuditEntity]: {
    readonly entity: E;
    readonly action: AuditAction<E>;
    readonly entityId: string;
    readonly changes: Readonly<Record<string, unknown>>;
  };
}[AuditEntity];

/** One row of the append-only trail, in the transaction of the write it tells of. @returns its id */
export async function writeAudit(tx: Tx, author: Author, entry: AuditEntry): Promise<number> {
  const [id = 0] = await writeAudits(tx, author, [entry]);
  return id;
}

/** The same of several writes, in their order. */
export async function writeAudits(
  tx: Tx,
  { fleetId, personId }: Author,
  entries: readonly AuditEntry[],
): Promise<readonly number[]> {
  if (entries.length === 0) return [];
  const rows = await tx
    .insert(auditTrail)
    .values(entries.map((entry) => ({ fleetId, personId, ...entry })))
    .returning({ id: auditTrail.id });
  return rows.map(({ id }) => id);
}

/** One row of the trail; null: this fleet has none with the id. */
export async function loadAudit(q: Querier, fleetId: FleetId, id: number) {
  const [row] = await q
    .select()
    .from(auditTrail)
    .where(and(eq(auditTrail.fleetId, fleetId), eq(auditTrail.id, id)));
  return row ?? null;
}

export async function auditOf(q: Querier, fleetId: FleetId, entity: AuditEntity, entityId: string, limit = 50) {
  return q
    .select({
      id: auditTrail.id,
      at: auditTrail.at,
      action: auditTrail.action,
      changes: auditTrail.changes,
      who: people.name,
    })
    .from(auditTrail)
    .leftJoin(people, eq(people.id, auditTrail.personId))
    .where(and(eq(auditTrail.fleetId, fleetId), eq(auditTrail.entity, entity), eq(auditTrail.entityId, entityId)))
    .orderBy(desc(auditTrail.id))
    .limit(limit);
}
