import type { PlainDate } from '@/core/calendar/plain-date';
import type { DateOrder } from '@/core/calendar/read-date';
import type { FleetId, PersonId } from '@/core/shared/kinds';
import type { SummaryRow } from '@/core/shared/plan-summary';
import type { Querier, Tx } from '@/db/client';
import type { JobQueue } from '../queue';
import type { RowReader } from './csv/row-reader';

export const IMPORT_KINDS = [
  'engine-families',
  'access-items',
  'number-codes',
  'parts',
  'supersessions',
  'cross-references',
  'spec-sheets',
  'vehicles',
  'odometer',
  'engine-hours',
  'service-history',
  'bays',
  'absences',
] as const;
export type ImportKindName = (typeof IMPORT_KINDS)[number];

export interface Column {
  readonly key: string;
  readonly help: string;
  readonly required?: boolean;
  readonly aliases?: readonly string[];
  /** Where only these can stand. */
  readonly choices?: readonly string[];
  readonly example: string;
}

/** Columns that every file of readings begins with. */
export const READING_COLUMNS: readonly Column[] = [
  {
    key: 'unit_number',
    required: true,
    help: 'The vehicle',
    example: '32',
    aliases: ['unit_no', 'fleet_number', 'vehicle'],
  },
  { key: 'read_on', required: true, help: 'Day of the reading', example: '2026-11-02', aliases: ['date', 'day', 'on'] },
];

export interface PlannedRow<W = unknown> extends SummaryRow {
  readonly write?: W;
}

export interface RawRow {
  readonly line: number;
  readonly reader: RowReader;
}

export interface PlanScope {
  readonly fleetId: FleetId;
  readonly today: PlainDate;
  readonly options: ImportOptions;
  readonly jobs: JobQueue;
}

export interface ImportOptions {
  readonly dateOrder?: DateOrder;
  readonly unit?: 'km' | 'mi';
}

interface KindFacts {
  readonly name: ImportKindName;
  readonly title: string;
  readonly about: string;
  readonly columns: readonly Column[];
  /** More rows of the template, where one does not show what the file can say. */
  readonly moreExamples?: readonly Readonly<Record<string, string>>[];
  /** Columns that hold days: they may need the question of day and month. */
  readonly dateColumns: readonly string[];
  /** What must be here before, in words for the person. */
  readonly needs: readonly ImportKindName[];
}

/** Judged rows, and the way to write those that add or change something. */
export interface Prepared {
  readonly rows: readonly PlannedRow[];
  apply(tx: Tx, personId: PersonId | null): Promise<void>;
}

/** One kind of file: its columns, how rows are judged against what is here, and how they are written. */
export interface ImportKind extends KindFacts {
  prepare(q: Querier, scope: PlanScope, rows: readonly RawRow[]): Promise<Prepared>;
}

interface KindRules<W> extends KindFacts {
  plan(q: Querier, scope: PlanScope, rows: readonly RawRow[]): Promise<readonly PlannedRow<W>[]>;
  apply(tx: Tx, scope: PlanScope, writes: readonly W[], personId: PersonId | null): Promise<void>;
}

/** Ties the two halves of a kind together, so that what is written is what was judged. */
export function defineKind<W>({ plan, apply, ...facts }: KindRules<W>): ImportKind {
  return {
    ...facts,
    async prepare(q, scope, raw) {
      const rows = await plan(q, scope, raw);
      return {
        rows,
        apply: (tx, personId) =>
          apply(
            tx,
            scope,
            rows.flatMap((row) => row.write ?? []),
            personId,
          ),
      };
    },
  };
}

/** Rows that name the same thing twice in one file: the same again is skipped, a contradiction is refused. */
export class SeenBefore {
  private readonly seen = new Map<string, { line: number; content: string }>();

  check(key: string, line: number, content: unknown): { verdict: 'skip' | 'refuse'; reason: string } | null {
    const text = JSON.stringify(content);
    const before = this.seen.get(key);
    if (!before) {
      this.seen.set(key, { line, content: text });
      return null;
    }
    return before.content === text
      ? { verdict: 'skip', reason: `the same as line ${before.line}` }
      : { verdict: 'refuse', reason: `line ${before.line} already gives this with other values` };
  }
}

/** Names of the fields in which two records differ. */
export function differences(
  before: Readonly<Record<string, unknown>>,
  after: Readonly<Record<string, unknown>>,
): string[] {
  return Object.keys(after).filter((key) => canonical(before[key]) !== canonical(after[key]));
}

/** The database gives the keys of a stored object back in its own order. */
const canonical = (value: unknown): string =>
  JSON.stringify(value ?? null, (_, inner: unknown) =>
    typeof inner === 'object' && inner !== null && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
