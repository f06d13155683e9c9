/* What an uploaded file would do, as far as a page shows it: a file of half a million rows has a plan of its own size. */

export const VERDICTS = ['refuse', 'change', 'add', 'skip'] as const;
export type Verdict = (typeof VERDICTS)[number];

export interface SummaryRow {
  readonly line: number;
  readonly verdict: Verdict;
  /** The row's subject in words: "unit 32". */
  readonly what: string;
  readonly reasons: readonly string[];
}

export interface PlanQuestion {
  readonly key: 'dateOrder' | 'unit';
  readonly text: string;
  readonly choices: readonly { readonly value: string; readonly label: string }[];
}

export interface PlanSummary {
  readonly kind: string;
  readonly header: readonly string[];
  readonly rowCount: number;
  /** Must be answered before the rows can be judged. */
  readonly questions: readonly PlanQuestion[];
  readonly missing: readonly string[];
  readonly counts: Readonly<Record<Verdict, number>>;
  /** Added rows with a reason to look at them. */
  readonly doubtful: number;
  /** The first rows of each verdict, in order of line; the doubtful of those added first of all. */
  readonly rows: readonly SummaryRow[];
  /** Changes when what the rows would do changes. */
  readonly digest: string;
}

/** So many rows of each verdict are shown. */
export const MAX_SHOWN = 200;

/** The rows that are worth showing: the first of each verdict, and of those added the doubtful ones. */
export function rowsToShow(rows: readonly SummaryRow[]): readonly SummaryRow[] {
  const isDoubtful = ({ verdict, reasons }: SummaryRow): boolean => verdict === 'add' && reasons.length > 0;
  const first = (some: readonly SummaryRow[]) => some.slice(0, MAX_SHOWN);
  const shown = new Set([
    ...first(rows.filter(isDoubtful)),
    ...VERDICTS.flatMap((verdict) => first(rows.filter((row) => row.verdict === verdict && !isDoubtful(row)))),
  ]);
  return rows
    .filter((row) => shown.has(row))
    .map(({ line, verdict, what, reasons }) => ({ line, verdict, what, reasons }));
}
