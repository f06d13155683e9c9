import { stringify } from 'csv-stringify/sync';

export type Cell = string | number | null;

/**
 * RFC 4180 text. Cells that a spreadsheet would run as a formula are defused with a leading apostrophe.
 */
export function toCsv(header: readonly string[], rows: readonly (readonly Cell[])[]): string {
  return stringify([[...header], ...rows.map((row) => [...row])], {
    escape_formulas: true,
    record_delimiter: 'windows',
  });
}
