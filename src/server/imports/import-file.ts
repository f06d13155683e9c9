import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import type { PlanSummary } from '@/core/shared/plan-summary';
import { ok, type Result } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import {
  type ImportHead,
  listImportRows,
  loadImport,
  loadImportHead,
  loadRefusedRows,
  lockImport,
  rememberedMapping,
  rememberMapping,
} from '@/db/queries/imports';
import { imports } from '@/db/schema';
import type { Actor } from '../access';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { applyImport, CHECK_AGAIN, isOpen, OPEN_QUESTIONS } from './apply-import';
import { decodeText } from './csv/decode';
import { parseCsv, parseHeader } from './csv/parse';
import { IMPORT_KINDS, type ImportKindName } from './kind';
import { isKindName, kindOf } from './kinds';
import { guessKind, suggestMapping } from './map-columns';
import { planImport, refusedCsv, summaryOf } from './plan-import';

/** A longer file is checked and applied by a worker, where the person may wait for it. */
const MAX_AT_ONCE = 1024 * 1024;

const uploadInput = z.object({
  fileName: z.string(),
  bytes: z.custom<Uint8Array>((value) => value instanceof Uint8Array),
  /** Where the person says what it is; else it is guessed from its header. */
  kind: z.enum(IMPORT_KINDS).optional(),
  /** A worker does what would take long. Without it all is done at once, as a script wants it. */
  background: z.boolean().default(false),
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
    const inBackground = upload.background && text.value.length > MAX_AT_ONCE;
    const header = headerOf(text.value, inBackground);
    if (!header.ok) return named(header.error);
    const remembered = await rememberedMapping(deps.db, actor.fleetId, header.value);
    const guessed =
      upload.kind ?? (remembered && isKindName(remembered.kind) ? remembered.kind : guessKind(header.value, fileName));
    if (!guessed)
      return named(
        `its columns (${header.value.slice(0, 6).join(', ').slice(0, 120)}…) are like none of our files. Choose what it is, or take a template.`,
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
          inBackground,
          state: inBackground ? 'checking' : 'checked',
          createdBy: actor.personId,
          createdAt: deps.now(),
          mapping: known?.mapping ?? { ...suggestMapping(kindOf(guessed), header.value) },
          options: known?.options ?? {},
        })
        .returning({ id: imports.id });
      if (!row) throw new Error('the file was not kept');
      if (inBackground) await deps.jobs.send(tx, 'check-import', { fleetId: actor.fleetId, importId: row.id });
      await auditFile(tx, actor, 'upload', row.id, { kind: guessed, fileName, characters: text.value.length });
      return ok({ importId: row.id, kind: guessed });
    });
  },
});

/** A file that is checked at once is read whole, so that whoever uploads it hears at once what is wrong with it. */
function headerOf(text: string, inBackground: boolean): Result<readonly string[], string> {
  if (inBackground) return parseHeader(text);
  const table = parseCsv(text);
  return table.ok ? ok(table.value.header) : table;
}

/** The file itself; what its rows change is told when it is confirmed. */
const auditFile = (
  tx: Tx,
  actor: Actor,
  action: 'upload' | 'adjust' | 'discard',
  importId: string,
  changes: Record<string, unknown>,
) => writeAudit(tx, actor, { action, entity: 'import-file', entityId: importId, changes });

export interface ImportView
  extends Pick<
    ImportHead,
    'id' | 'fileName' | 'state' | 'inBackground' | 'mapping' | 'options' | 'counts' | 'problem'
  > {
  /** What it would do; null while a worker finds that out, and once it is applied or discarded. */
  readonly plan: PlanSummary | null;
}

/** The dry run of an uploaded file against the workspace: as it is now, or as it was when a worker checked a large one. */
export const viewImport = useCase({
  permission: 'import data',
  input: z.uuid(),
  async run(deps, actor, importId): Promise<Outcome<ImportView>> {
    const head = await loadImportHead(deps.db, actor.fleetId, importId);
    if (!head) return notFound('import');
    if (head.state !== 'checked') return ok({ ...head, plan: null });
    if (head.inBackground) return ok(head);
    const row = await loadImport(deps.db, actor.fleetId, importId);
    if (!row) return notFound('import');
    const plan = await planImport(deps.db, row, deps);
    return plan.ok ? ok({ ...head, plan: summaryOf(plan.value) }) : fail('invalid', plan.error);
  },
});

export const listImports = useCase({
  permission: 'import data',
  async run(deps, actor) {
    return ok(await listImportRows(deps.db, actor.fleetId));
  },
});

const adjustInput = z.object({
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
      const header = headerOf(row.content, row.inBackground);
      if (!header.ok) return fail('invalid', header.error);
      const kind = input.kind ?? row.kind;
      const suggested = isKindName(kind) ? suggestMapping(kindOf(kind), header.value) : {};
      const chosen = input.mapping ?? (kind === row.kind ? row.mapping : suggested);
      const mapping = Object.fromEntries(Object.entries(chosen).filter(([, name]) => header.value.includes(name)));
      const options = { ...row.options, ...input.options };
      const again = row.inBackground ? CHECK_AGAIN : {};
      await tx
        .update(imports)
        .set({ kind, mapping, options, ...again })
        .where(eq(imports.id, row.id));
      if (row.inBackground) await deps.jobs.send(tx, 'check-import', { fleetId: actor.fleetId, importId: row.id });
      await rememberMapping(tx, actor.fleetId, kind, header.value, mapping, options);
      await auditFile(tx, actor, 'adjust', row.id, { kind, mapping, options });
      return ok(null);
    });
  },
});

const confirmInput = z.object({ importId: z.uuid(), digest: z.string().optional() });

/**
 * Applies what the dry run showed, in one transaction. Refused rows are left out; if the workspace has changed so that
 * the outcome would differ from what was shown, nothing is written. A large file is handed to a worker.
 */
export const confirmImport = useCase({
  permission: 'import data',
  input: confirmInput,
  async run(deps, actor, input): Promise<Outcome<{ counts: PlanSummary['counts'] }>> {
    return deps.db.transaction(async (tx) => {
      const row = await lockImport(tx, actor.fleetId, input.importId);
      if (!row) return notFound('import');
      if (row.state !== 'checked')
        return fail('conflict', 'This file was applied or discarded already, or is being worked on. Look at it again.');
      if (!row.inBackground) return applyImport(tx, deps, row, actor, input.digest);
      if (!row.plan || isOpen(row.plan)) return fail('invalid', OPEN_QUESTIONS);
      await tx.update(imports).set({ state: 'applying', problem: null }).where(eq(imports.id, row.id));
      await deps.jobs.send(tx, 'apply-import', {
        fleetId: actor.fleetId,
        importId: row.id,
        personId: actor.personId,
        digest: input.digest ?? row.plan.digest,
      });
      return ok({ counts: row.plan.counts });
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
        .set({ state: 'discarded', content: '', plan: null, refusedRows: null })
        .where(
          and(
            eq(imports.fleetId, actor.fleetId),
            eq(imports.id, importId),
            inArray(imports.state, ['checking', 'checked']),
          ),
        )
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
    const kept = await loadRefusedRows(deps.db, actor.fleetId, importId);
    if (kept !== null) return ok(kept);
    const row = await loadImport(deps.db, actor.fleetId, importId);
    if (row?.state !== 'checked' || row.inBackground) return notFound('open import');
    const plan = await planImport(deps.db, row, deps);
    return plan.ok ? ok(refusedCsv(plan.value)) : fail('invalid', plan.error);
  },
});
