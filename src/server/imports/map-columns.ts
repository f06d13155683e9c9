import type { CsvRow, CsvTable } from './csv/parse';
import { type CellSource, clip } from './csv/row-reader';
import type { ImportKind, ImportKindName } from './kind';
import { allKinds } from './kinds';

/** Which column of the file feeds which of ours: our key to their header. */
type Mapping = Readonly<Record<string, string>>;

const plain = (name: string): string =>
  name
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_|_$/g, '');

/** Matches headers to columns by name, then by the names people use for them. */
export function suggestMapping(kind: ImportKind, header: readonly string[]): Mapping {
  const free = new Map(header.map((name) => [plain(name), name] as const).reverse());
  const mapping: Record<string, string> = {};
  for (const pass of [(key: string) => [key], (_: string, aliases: readonly string[]) => aliases]) {
    for (const column of kind.columns) {
      if (column.key in mapping) continue;
      const match = pass(column.key, column.aliases ?? []).find((name) => free.has(name));
      const name = match === undefined ? undefined : free.get(match);
      if (match === undefined || name === undefined) continue;
      mapping[column.key] = name;
      free.delete(match);
    }
  }
  return mapping;
}

/** The kind whose required columns the header names best. Null: it looks like none. */
export function guessKind(header: readonly string[], fileName: string): ImportKindName | null {
  const named = allKinds().find((kind) => plain(fileName).startsWith(plain(kind.name)));
  const scored = allKinds().map((kind) => {
    const mapping = suggestMapping(kind, header);
    const required = kind.columns.filter((column) => column.required);
    const score =
      required.filter((column) => column.key in mapping).length / required.length + Object.keys(mapping).length / 100;
    return { kind, score: score + (kind === named ? 0.3 : 0) };
  });
  const [best] = scored.sort((a, b) => b.score - a.score);
  return best && best.score >= 0.5 ? best.kind.name : null;
}

/** Required columns that nothing feeds. */
export function missingColumns(kind: ImportKind, mapping: Mapping): readonly string[] {
  return kind.columns.filter((column) => column.required && !mapping[column.key]).map((column) => column.key);
}

export function cellsOf(table: CsvTable, mapping: Mapping): (row: CsvRow) => CellSource {
  const at = new Map(Object.entries(mapping).map(([key, name]) => [key, table.header.indexOf(name)]));
  return (row) => ({
    cell: (key) => row.cells[at.get(key) ?? -1] ?? '',
    label: (key) => (mapping[key] && mapping[key] !== key ? `${key} (“${clip(mapping[key])}”)` : key),
  });
}
