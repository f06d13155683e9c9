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

/** One row of the append-only trail, in the transaction of the write it tells of. */
export async function writeAudit(tx: Tx, author: Author, entry: AuditEntry): Promise<void> {
  await writeAudits(tx, author, [entry]);
}

/** The same of several writes, in their order. */
export async function writeAudits(
  tx: Tx,
  { fleetId, personId }: Author,
  entries: readonly AuditEntry[],
): Promise<void> {
  if (entries.length > 0) await tx.insert(auditTrail).values(entries.map((entry) => ({ fleetId, personId, ...entry })));
}

export async function auditOf(q: Querier, fleetId: FleetId, entity: AuditEntity, entityId: string, limit = 50) {
  return q
    .select({ at: auditTrail.at, action: auditTrail.action, changes: auditTrail.changes, who: people.name })
    .from(auditTrail)
    .leftJoin(people, eq(people.id, auditTrail.personId))
    .where(and(eq(auditTrail.fleetId, fleetId), eq(auditTrail.entity, entity), eq(auditTrail.entityId, entityId)))
    .orderBy(desc(auditTrail.id))
    .limit(limit);
}
