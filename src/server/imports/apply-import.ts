import { eq } from 'drizzle-orm';
import type { FleetId, PersonId } from '@/core/shared/kinds';
import type { PlanSummary } from '@/core/shared/plan-summary';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { type Author, writeAudit } from '@/db/queries/audit';
import { type ImportRow, lockImport, rememberMapping } from '@/db/queries/imports';
import { imports } from '@/db/schema';
import type { Deps } from '../deps';
import { fail, type Outcome } from '../failure';
import { planImport, refusedCsv, summaryOf } from './plan-import';

/* Checking and applying an uploaded file: at once where it is small, by a worker where it is large. */

export const OPEN_QUESTIONS = 'Answer the questions above first: which column is which, and how days are written.';
/** A file that a worker is to look at again. */
export const CHECK_AGAIN = { state: 'checking', plan: null, refusedRows: null, problem: null } as const;

export const isOpen = ({ questions, missing }: Pick<PlanSummary, 'questions' | 'missing'>): boolean =>
  questions.length > 0 || missing.length > 0;

/** Rows that the audit trail tells one by one. */
const MAX_TOLD = 500;

/**
 * Does what a file was shown to do, or nothing.
 *
 * @param digest of the plan that was shown; none: whatever it would do now
 */
export async function applyImport(
  tx: Tx,
  deps: Deps,
  row: ImportRow,
  author: Author,
  digest: string | undefined,
): Promise<Outcome<{ counts: PlanSummary['counts'] }>> {
  const planned = await planImport(tx, row, deps);
  if (!planned.ok) return fail('invalid', planned.error);
  const { kind, counts, table, rows } = planned.value;
  if (isOpen(planned.value)) return fail('invalid', OPEN_QUESTIONS);
  if (digest !== undefined && digest !== planned.value.digest)
    return fail(
      'edited-meanwhile',
      'The workspace changed since this check, so the rows would now do something else. Look at the new check, then confirm.',
    );
  await planned.value.apply(tx, author.personId);
  await rememberMapping(tx, author.fleetId, kind.name, table.header, row.mapping, row.options);
  await tx
    .update(imports)
    .set({ state: 'applied', counts: { ...counts }, appliedAt: deps.now(), content: '', plan: null, refusedRows: null })
    .where(eq(imports.id, row.id));
  const told = rows.filter(({ verdict }) => verdict === 'add' || verdict === 'change').slice(0, MAX_TOLD);
  await writeAudit(tx, author, {
    action: 'import',
    entity: kind.name,
    entityId: row.id,
    changes: {
      fileName: row.fileName,
      counts,
      rows: told.map(({ line, verdict, what, reasons }) => ({ line, verdict, what, reasons })),
    },
  });
  return ok({ counts });
}

/** A worker's part: finds out what a large file would do and keeps that with it. */
export async function checkInBackground(deps: Deps, fleetId: FleetId, importId: string): Promise<void> {
  await deps.db.transaction(async (tx) => {
    const row = await lockImport(tx, fleetId, importId);
    if (row?.state !== 'checking') return;
    await keepPlan(tx, deps, row, null);
  });
}

/** A worker's part: does what was shown. Where it would now do something else, that is shown instead and nothing is done. */
export async function applyInBackground(
  deps: Deps,
  { importId, digest, ...author }: { fleetId: FleetId; importId: string; personId: PersonId; digest: string },
): Promise<void> {
  await deps.db.transaction(async (tx) => {
    const row = await lockImport(tx, author.fleetId, importId);
    if (row?.state !== 'applying') return;
    const done = await applyImport(tx, deps, row, author, digest);
    if (!done.ok) await keepPlan(tx, deps, row, done.error.message);
  });
}

async function keepPlan(tx: Tx, deps: Deps, row: ImportRow, problem: string | null): Promise<void> {
  const planned = await planImport(tx, row, deps);
  const result = planned.ok
    ? { plan: summaryOf(planned.value), refusedRows: refusedCsv(planned.value), problem }
    : { plan: null, refusedRows: null, problem: planned.error };
  await tx
    .update(imports)
    .set({ state: 'checked', ...result })
    .where(eq(imports.id, row.id));
}
