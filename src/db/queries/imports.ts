import { and, desc, eq, getTableColumns } from 'drizzle-orm';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier, Tx } from '../client';
import { lockOne } from '../locks';
import { columnMappings, imports, people } from '../schema';

export type ImportRow = typeof imports.$inferSelect;

const { content: _, refusedRows: __, ...heads } = getTableColumns(imports);
/** A file without what is in it, which may be very long. */
export type ImportHead = Omit<ImportRow, 'content' | 'refusedRows'>;

export async function loadImportHead(q: Querier, fleetId: FleetId, id: string): Promise<ImportHead | null> {
  const [row] = await q
    .select(heads)
    .from(imports)
    .where(and(eq(imports.fleetId, fleetId), eq(imports.id, id)));
  return row ?? null;
}

/** The refused rows that a worker has found; null: none has. */
export async function loadRefusedRows(q: Querier, fleetId: FleetId, id: string): Promise<string | null> {
  const [row] = await q
    .select({ refusedRows: imports.refusedRows })
    .from(imports)
    .where(and(eq(imports.fleetId, fleetId), eq(imports.id, id)));
  return row?.refusedRows ?? null;
}

export async function loadImport(q: Querier, fleetId: FleetId, id: string): Promise<ImportRow | null> {
  const [row] = await q
    .select()
    .from(imports)
    .where(and(eq(imports.fleetId, fleetId), eq(imports.id, id)));
  return row ?? null;
}

/** Takes the row for the rest of the transaction, and keeps other imports of the fleet waiting until it ends. */
export async function lockImport(tx: Tx, fleetId: FleetId, id: string): Promise<ImportRow | null> {
  await lockOne(tx, 'imports', fleetId);
  const [row] = await tx
    .select()
    .from(imports)
    .where(and(eq(imports.fleetId, fleetId), eq(imports.id, id)))
    .for('update');
  return row ?? null;
}

export async function listImportRows(q: Querier, fleetId: FleetId) {
  return q
    .select({
      id: imports.id,
      kind: imports.kind,
      fileName: imports.fileName,
      state: imports.state,
      counts: imports.counts,
      createdAt: imports.createdAt,
      appliedAt: imports.appliedAt,
      by: people.name,
    })
    .from(imports)
    .leftJoin(people, eq(people.id, imports.createdBy))
    .where(eq(imports.fleetId, fleetId))
    .orderBy(desc(imports.createdAt))
    .limit(50);
}

const headerKey = (header: readonly string[]): string => JSON.stringify(header);

export async function rememberMapping(
  tx: Tx,
  fleetId: FleetId,
  kind: string,
  header: readonly string[],
  mapping: Record<string, string>,
  options: Record<string, string>,
) {
  await tx
    .insert(columnMappings)
    .values({ fleetId, kind, header: headerKey(header), mapping, options })
    .onConflictDoUpdate({
      target: [columnMappings.fleetId, columnMappings.kind, columnMappings.header],
      set: { mapping, options },
    });
}

export async function rememberedMapping(q: Querier, fleetId: FleetId, header: readonly string[]) {
  const [row] = await q
    .select()
    .from(columnMappings)
    .where(and(eq(columnMappings.fleetId, fleetId), eq(columnMappings.header, headerKey(header))));
  return row ?? null;
}
