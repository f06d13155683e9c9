import { stringify } from 'csv-stringify/sync';
import { CSV_OPTIONS } from '@/text/csv';

export type Cell = string | number | null;

/** A table as the text of a CSV file, see `CSV_OPTIONS`. */
export function toCsv(header: readonly string[], rows: readonly (readonly Cell[])[]): string {
  return stringify([[...header], ...rows.map((row) => [...row])], CSV_OPTIONS);
}
