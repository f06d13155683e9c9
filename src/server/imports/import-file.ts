import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { err, ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { listImportRows, loadImport, lockImport, rememberedMapping, rememberMapping } from '@/db/queries/imports';
import { imports } from '@/db/schema';
import type { Actor } from '../access';
import { toCsv } from '../exports/csv';
import { fail, notFound, type Outcome, Refused } from '../failure';
import { useCase } from '../use-case';
import { decodeText } from './csv/decode';
import { parseCsv } from './csv/parse';
import { IMPORT_KINDS, type ImportKindName } from './kind';
import { isKindName, kindOf } from './kinds';
import { guessKind, suggestMapping } from './map-columns';
import { type ImportPlan, planImport } from './plan-import';

const uploadInput = z.object({
  fileName: z.string(),
  bytes: z.custom<Uint8Array>((value) => value instanceof Uint8Array),
  /** Where the person says what it is; else it is guessed from its header. */
  kind: z.enum(IMPORT_KINDS).optional(),
});

/** Keeps an uploaded file for its dry run; nothing of it is applied. */
export const uploadFile = useCase({
  permission: 'import data',
  input: uploadInput,
  async run(deps, actor, upload): Promise<Outcome<{ importId: string; kind: ImportKindName }>> {
    const fileName = upload.fileName.replace(/[^\p{L}\p{N}._ -]/gu, '_').slice(0, 120) || 'file.csv';
    const named = (message: string) => fail('invalid', `${fileName}: ${message}`);
    const text = decodeText(upload.bytes);
    if (!text.ok) return named(text.error);
    const table = parseCsv(text.value);
    if (!table.ok) return named(table.error);
    const remembered = await rememberedMapping(deps.db, actor.fleetId, table.value.header);
    const guessed =
      upload.kind ??
      (remembered && isKindName(remembered.kind) ? remembered.kind : guessKind(table.value.header, fileName));
    if (!guessed)
      return named(
        `its columns (${table.value.header.slice(0, 6).join(', ').slice(0, 120)}…) are like none of our files. Choose what it is, or take a template.`,
      );
    const known = remembered?.kind === guessed ? remembered : null;
    return deps.db.transaction(async (tx) => {
      const [row] = await tx
        .insert(imports)
        .values({
          fleetId: actor.fleetId,
          kind: guessed,
          fileName,
          content: text.value,
          createdBy: actor.personId,
          createdAt: deps.now(),
          mapping: known?.mapping ?? { ...suggestMapping(kindOf(guessed), table.value.header) },
          options: known?.options ?? {},
        })
        .returning({ id: imports.id });
      if (!row) throw new Error('the file was not kept');
      await auditFile(tx, actor, 'upload', row.id, { kind: guessed, fileName, rows: table.value.rows.length });
      return ok({ importId: row.id, kind: guessed });
    });
  },
});

/** The file itself; what its rows change is told when it is confirmed. */
const auditFile = (
  tx: Tx,
  actor: Actor,
  action: 'upload' | 'adjust' | 'discard',
  importId: string,
  changes: Record<string, unknown>,
) => writeAudit(tx, actor, { action, entity: 'import-file', entityId: importId, changes });

export interface ImportView {
  readonly id: string;
  readonly fileName: string;
  readonly state: 'checked' | 'applied' | 'discarded';
  readonly mapping: Readonly<Record<string, string>>;
  readonly options: Readonly<Record<string, string>>;
  readonly counts: Readonly<Record<string, number>> | null;
  /** Null once it is applied or discarded. */
  readonly plan: ImportPlan | null;
}

/** The dry run of an uploaded file against the workspace as it is now. */
export const viewImport = useCase({
  permission: 'import data',
  input: z.uuid(),
  async run(deps, actor, importId): Promise<Outcome<ImportView>> {
    const row = await loadImport(deps.db, actor.fleetId, importId);
    if (!row) return notFound('import');
    const { id, fileName, state, mapping, options, counts } = row;
    if (state !== 'checked') return ok({ id, fileName, state, mapping, options, counts, plan: null });
    const plan = await planImport(deps.db, row, deps);
    return plan.ok
      ? ok({ id, fileName, state, mapping, options, counts, plan: plan.value })
      : fail('invalid', plan.error);
  },
});

export const listImports = useCase({
  permission: 'import data',
  async run(deps, actor) {
    return ok(await listImportRows(deps.db, actor.fleetId));
  },
});

export const adjustInput = z.object({
  importId: z.uuid(),
  kind: z.enum(IMPORT_KINDS).optional(),
  mapping: z.record(z.string().max(60), z.string().max(500)).optional(),
  options: z.record(z.string().max(60), z.string().max(60)).optional(),
});

/** Answers a question of the dry run: what the file is, which column is which, how its days are written. */
export const adjustImport = useCase({
  permission: 'import data',
  input: adjustInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const row = await lockImport(tx, actor.fleetId, input.importId);
      if (row?.state !== 'checked') return notFound('open import');
      const table = parseCsv(row.content);
      if (!table.ok) return fail('invalid', table.error);
      const kind = input.kind ?? row.kind;
      const suggested = isKindName(kind) ? suggestMapping(kindOf(kind), table.value.header) : {};
      const chosen = input.mapping ?? (kind === row.kind ? row.mapping : suggested);
      const mapping = Object.fromEntries(
        Object.entries(chosen).filter(([, name]) => table.value.header.includes(name)),
      );
      const options = { ...row.options, ...input.options };
      await tx.update(imports).set({ kind, mapping, options }).where(eq(imports.id, row.id));
      await rememberMapping(tx, actor.fleetId, kind, table.value.header, mapping, options);
      await auditFile(tx, actor, 'adjust', row.id, { kind, mapping, options });
      return ok(null);
    });
  },
});

export const confirmInput = z.object({ importId: z.uuid(), digest: z.string().optional() });

/**
 * Applies what the dry run showed, in one transaction. Refused rows are left out; if the workspace has changed so that
 * the outcome would differ from what was shown, nothing is written.
 */
export const confirmImport = useCase({
  permission: 'import data',
  input: confirmInput,
  async run(deps, actor, input): Promise<Outcome<{ counts: ImportPlan['counts'] }>> {
    return deps.db.transaction(async (tx) => {
      const row = await lockImport(tx, actor.fleetId, input.importId);
      if (!row) return notFound('import');
      if (row.state !== 'checked')
        return fail('conflict', 'This file was applied or discarded already. Upload it again to check it anew.');
      const planned = await planImport(tx, row, deps);
      if (!planned.ok) throw new Refused({ kind: 'invalid', message: planned.error });
      const { kind, counts, questions, missing, digest, table } = planned.value;
      if (questions.length > 0 || missing.length > 0)
        return fail('invalid', 'Answer the questions above first: which column is which, and how days are written.');
      if (input.digest !== undefined && input.digest !== digest) {
        return fail(
          'edited-meanwhile',
          'The workspace changed since this check, so the rows would now do something else. Look at the new check, then confirm.',
        );
      }
      const rows = planned.value.rows.filter((r) => r.verdict === 'add' || r.verdict === 'change');
      await planned.value.apply(tx, actor.personId);
      await rememberMapping(tx, actor.fleetId, kind.name, table.header, row.mapping, row.options);
      await tx
        .update(imports)
        .set({ state: 'applied', counts: { ...counts }, appliedAt: deps.now(), content: '' })
        .where(eq(imports.id, row.id));
      await writeAudit(tx, actor, {
        action: 'import',
        entity: kind.name,
        entityId: row.id,
        changes: {
          fileName: row.fileName,
          counts,
          rows: rows.slice(0, 500).map((r) => ({ line: r.line, verdict: r.verdict, what: r.what, reasons: r.reasons })),
        },
      });
      return ok({ counts });
    });
  },
});

export const discardImport = useCase({
  permission: 'import data',
  input: z.uuid(),
  async run(deps, actor, importId): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const done = await tx
        .update(imports)
        .set({ state: 'discarded', content: '' })
        .where(and(eq(imports.fleetId, actor.fleetId), eq(imports.id, importId), eq(imports.state, 'checked')))
        .returning({ id: imports.id, fileName: imports.fileName });
      const [file] = done;
      if (!file) return notFound('open import');
      await auditFile(tx, actor, 'discard', file.id, { fileName: file.fileName });
      return ok(null);
    });
  },
});

/** The refused rows as they stood in the file, with a column of reasons: to mend and upload again. */
export const refusedRowsCsv = useCase({
  permission: 'import data',
  input: z.uuid(),
  async run(deps, actor, importId): Promise<Outcome<string>> {
    const view = await viewImport(deps, actor, importId);
    if (!view.ok) return err(view.error);
    const plan = view.value.plan;
    if (!plan) return notFound('open import');
    const reasons = new Map(
      plan.rows.filter((row) => row.verdict === 'refuse').map((row) => [row.line, row.reasons.join('; ')]),
    );
    const rows = plan.table.rows.filter((row) => reasons.has(row.line));
    return ok(
      toCsv(
        [...plan.table.header, 'why_refused'],
        rows.map((row) => [...plan.table.header.map((_, i) => row.cells[i] ?? ''), reasons.get(row.line) ?? '']),
      ),
    );
  },
});
