'use client';

import {
  type ColumnDef,
  columnFilteringFeature,
  createFilteredRowModel,
  createSortedRowModel,
  filterFn_includesString,
  globalFilteringFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, Download } from 'lucide-react';
import { type ReactNode, useMemo, useRef } from 'react';
import { CSV_OPTIONS } from '@/text/csv';
import { Button } from './button';
import { TextControl } from './field-frame';
import { PlainTable } from './plain-table';
import { useSlashToSearch } from './slash-to-search';

export type Cell = string | number | null;

interface TableRow {
  readonly id: string;
  readonly isOver: boolean;
  readonly cells: readonly ReactNode[];
  readonly values: readonly Cell[];
}

interface Props {
  readonly noun: string;
  readonly heads: readonly string[];
  /** Whether each column can be sorted, and is saved in the file. */
  readonly sorts: readonly boolean[];
  /** Columns of figures, from 1. */
  readonly numeric: readonly number[];
  readonly rows: readonly TableRow[];
  readonly dense: boolean;
}

const features = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  globalFilteringFeature,
  sortedRowModel: createSortedRowModel(),
  filteredRowModel: createFilteredRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric },
  filterFns: { includesString: filterFn_includesString },
});

/** Fewer rows are seen at a glance: they need no search and no file. */
const SEARCHED_FROM = 8;
/** More rows are drawn only where they are in sight. */
const DRAWN_WHOLE = 200;
const ROW_PX = 40;

/** Rows that are searched, sorted by their heads and saved as a file in the browser; see `ListTable`. */
export function DataTable({ noun, heads, sorts, numeric, rows, dense }: Props) {
  const search = useRef<HTMLInputElement>(null);
  const columns = useMemo(() => heads.map(columnOf), [heads]);
  const table = useTable({
    features,
    columns,
    data: rows as TableRow[],
    getRowId: ({ id }) => id,
    globalFilterFn: 'includesString',
    getColumnCanGlobalFilter: () => true,
  });
  useSlashToSearch(search);
  const columnsNow = table.getAllLeafColumns();
  const shown = table.getRowModel().rows.map(({ original }) => original);
  return (
    <>
      {rows.length >= SEARCHED_FROM && (
        <div className="list-tools" data-no-print>
          <TextControl
            ref={search}
            type="search"
            aria-label={`Search ${noun} (press /)`}
            placeholder={`Search ${noun} ( / )`}
            onChange={({ target }) => table.setGlobalFilter(target.value)}
          />
          <span role="status">{shown.length < rows.length && `${shown.length} of ${rows.length}`}</span>
          <Button onClick={() => void saveCsv(noun, heads, sorts, shown)}>
            <Download size={16} /> CSV
          </Button>
        </div>
      )}
      <PlainTable
        dense={dense}
        numeric={numeric}
        sorted={columnsNow.map((column) => SORTED[column.getIsSorted() || 'none'])}
        heads={columnsNow.map((column, i) =>
          sorts[i] ? (
            <SortHead
              key={column.id}
              head={heads[i] ?? ''}
              sorted={column.getIsSorted()}
              sort={column.getToggleSortingHandler()}
            />
          ) : (
            heads[i]
          ),
        )}
        names={heads}
      >
        {shown.length > DRAWN_WHOLE ? <RowsInSight rows={shown} columns={heads.length} /> : shown.map(rowOf)}
      </PlainTable>
      {shown.length === 0 && rows.length > 0 && <p className="soft">Nothing here fits the search.</p>}
    </>
  );
}

const SORTED = { asc: 'ascending', desc: 'descending', none: 'none' } as const;

interface SortHeadProps {
  readonly head: string;
  readonly sorted: false | 'asc' | 'desc';
  readonly sort: ((event: unknown) => void) | undefined;
}

const SortHead = ({ head, sorted, sort }: SortHeadProps) => (
  <button type="button" className="sort" onClick={sort}>
    {head}
    {sorted === 'asc' && <ArrowUp size={14} />}
    {sorted === 'desc' && <ArrowDown size={14} />}
  </button>
);

const columnOf = (head: string, i: number): ColumnDef<typeof features, TableRow, unknown> => ({
  id: `${i} ${head}`,
  // What is not known stands last, whichever way the column is sorted.
  accessorFn: ({ values }) => values[i] ?? undefined,
  sortFn: 'alphanumeric',
  sortUndefined: 'last',
});

const rowOf = ({ id, isOver, cells }: TableRow) => (
  <tr key={id} className={isOver ? 'soft' : undefined}>
    {cells.map((cell, i) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: a row's cells are its columns, which do not change
      <td key={i}>{cell}</td>
    ))}
  </tr>
);

/** The rows in the window, with one empty row above and below as high as those that are not drawn. */
function RowsInSight({ rows, columns }: { rows: readonly TableRow[]; columns: number }) {
  const list = useWindowVirtualizer({ count: rows.length, estimateSize: () => ROW_PX, overscan: 20 });
  const items = list.getVirtualItems();
  const before = items[0]?.start ?? 0;
  const after = list.getTotalSize() - (items.at(-1)?.end ?? 0);
  const gap = (height: number) =>
    height > 0 && (
      <tr aria-hidden style={{ height }}>
        <td colSpan={columns} />
      </tr>
    );
  return (
    <>
      {gap(before)}
      {items.flatMap(({ index }) => {
        const row = rows[index];
        return row ? [rowOf(row)] : [];
      })}
      {gap(after)}
    </>
  );
}

async function saveCsv(
  noun: string,
  heads: readonly string[],
  sorts: readonly boolean[],
  rows: readonly TableRow[],
): Promise<void> {
  const saved = <V,>(values: readonly V[]): V[] => values.filter((_, i) => sorts[i]);
  const { stringify } = await import('csv-stringify/browser/esm/sync');
  const text = stringify([saved(heads), ...rows.map(({ values }) => saved(values))], CSV_OPTIONS);
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'text/csv' }));
  link.download = `${noun.replaceAll(' ', '-')}.csv`;
  link.click();
  URL.revokeObjectURL(link.href);
}
