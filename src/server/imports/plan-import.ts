import { createHash } from 'node:crypto';
import { DATE_ORDERS, type DateOrder, orderOf } from '@/core/calendar/read-date';
import { type PlanQuestion, type PlanSummary, rowsToShow, type Verdict } from '@/core/shared/plan-summary';
import { err, ok, type Result } from '@/core/shared/result';
import type { Querier } from '@/db/client';
import type { ImportRow } from '@/db/queries/imports';
import type { Deps } from '../deps';
import { toCsv } from '../exports/csv';
import { type CsvTable, parseCsv } from './csv/parse';
import { RowReader } from './csv/row-reader';
import type { ImportKind, ImportOptions, PlannedRow, PlanScope, Prepared } from './kind';
import { isKindName, kindOf } from './kinds';
import { cellsOf, missingColumns } from './map-columns';

interface ImportPlan {
  readonly kind: ImportKind;
  readonly table: CsvTable;
  readonly scope: PlanScope;
  /** Must be answered before the rows can be judged. */
  readonly questions: readonly PlanQuestion[];
  readonly missing: readonly string[];
  readonly rows: readonly PlannedRow[];
  /** Writes what the rows add and change. */
  readonly apply: Prepared['apply'];
  readonly counts: Readonly<Record<Verdict, number>>;
  /** Changes when what the rows would do changes. */
  readonly digest: string;
}

/** What a file would do to the workspace as it stands now; writes nothing. */
export async function planImport(
  q: Querier,
  row: ImportRow,
  { today, jobs }: Pick<Deps, 'today' | 'jobs'>,
): Promise<Result<ImportPlan, string>> {
  if (!isKindName(row.kind)) return err('This file has no kind yet.');
  const kind = kindOf(row.kind);
  const table = parseCsv(row.content);
  if (!table.ok) return table;
  const missing = missingColumns(kind, row.mapping);
  const options = readOptions(row.options);
  const { questions, dateOrder } = dateQuestion(kind, table.value, row, options);
  const scope: PlanScope = { fleetId: row.fleetId, today: today(), options, jobs };
  const ready = missing.length === 0 && questions.length === 0;
  const source = cellsOf(table.value, row.mapping);
  const raw = ready
    ? table.value.rows.map((line) => ({ line: line.line, reader: new RowReader(source(line), dateOrder) }))
    : [];
  const prepared = await kind.prepare(q, scope, raw);
  const rows = prepared.rows;
  const counts = { add: 0, change: 0, skip: 0, refuse: 0 };
  for (const planned of rows) counts[planned.verdict] += 1;
  const digest = createHash('sha256').update(JSON.stringify(rows)).digest('hex');
  return ok({ kind, table: table.value, scope, questions, missing, rows, apply: prepared.apply, counts, digest });
}

function readOptions(options: Readonly<Record<string, string>>): ImportOptions {
  return {
    dateOrder: DATE_ORDERS.find((order) => order === options.dateOrder),
    unit: options.unit === 'km' || options.unit === 'mi' ? options.unit : undefined,
  };
}

function dateQuestion(
  kind: ImportKind,
  table: CsvTable,
  row: ImportRow,
  options: ImportOptions,
): { questions: PlanQuestion[]; dateOrder?: DateOrder } {
  const at = kind.dateColumns.map((key) => table.header.indexOf(row.mapping[key] ?? '')).filter((index) => index >= 0);
  const texts = table.rows.flatMap((line) => at.map((index) => line.cells[index] ?? ''));
  const order = orderOf(texts);
  if (order === 'day-first' || order === 'month-first') return { questions: [], dateOrder: order };
  const example = texts.find((text) => /^\s*\d{1,2}[-/.]\d{1,2}[-/.]\d{2,4}/.test(text));
  if (!example || options.dateOrder) return { questions: [], dateOrder: options.dateOrder };
  const text =
    order === 'mixed'
      ? `Some days in this file can only be day first and others only month first. Which one holds? The others are refused.`
      : `“${example.slice(0, 12)}” can be read two ways, and no row of the file decides. Which comes first?`;
  const choices = [
    { value: 'day-first', label: 'The day (18/04/2026)' },
    { value: 'month-first', label: 'The month (04/18/2026)' },
  ];
  return { questions: [{ key: 'dateOrder', text, choices }] };
}

/** A plan as far as it is shown and kept. */
export const summaryOf = ({ kind, table, questions, missing, rows, counts, digest }: ImportPlan): PlanSummary => ({
  kind: kind.name,
  header: table.header,
  rowCount: table.rows.length,
  questions,
  missing,
  counts,
  doubtful: rows.filter(({ verdict, reasons }) => verdict === 'add' && reasons.length > 0).length,
  rows: rowsToShow(rows),
  digest,
});

/** The refused rows as they stood in the file, with a column of reasons: to mend and upload again. */
export function refusedCsv({ rows, table }: ImportPlan): string {
  const reasons = new Map(
    rows.filter(({ verdict }) => verdict === 'refuse').map((row) => [row.line, row.reasons.join('; ')]),
  );
  const refused = table.rows.filter(({ line }) => reasons.has(line));
  return toCsv(
    [...table.header, 'why_refused'],
    refused.map((row) => [...table.header.map((_, i) => row.cells[i] ?? ''), reasons.get(row.line) ?? '']),
  );
}
