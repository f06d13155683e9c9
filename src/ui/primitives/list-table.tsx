import type { ReactNode } from 'react';
import { NONE } from '@/text/format';
import { type Cell, DataTable } from './data-table';

/** A column of a list: what it is sorted, searched and saved by, and how it is drawn. One of buttons alone has no value. */
export interface Column<T> {
  readonly head: string;
  readonly value?: (item: T) => Cell;
  /** Left out: the value as it is. */
  readonly cell?: (item: T) => ReactNode;
  /** Figures stand under each other. */
  readonly numeric?: boolean;
}

interface Props<T> {
  readonly items: readonly T[];
  readonly idOf: (item: T) => string;
  readonly columns: readonly Column<T>[];
  /** What the list is of, in the plural: names the search field and the file. */
  readonly noun: string;
  readonly dense?: boolean;
  /** Rows in soft ink: what is over. */
  readonly isOver?: (item: T) => boolean;
}

/** A list that a person searches, sorts by its heads and saves as CSV; drawn on the server, with links and forms in its cells. */
export const ListTable = <T,>({ items, idOf, columns, noun, dense = false, isOver = () => false }: Props<T>) => (
  <DataTable
    noun={noun}
    dense={dense}
    heads={columns.map(({ head }) => head)}
    sorts={columns.map(({ value }) => value !== undefined)}
    numeric={columns.flatMap(({ numeric }, i) => (numeric ? [i + 1] : []))}
    rows={items.map((item) => ({
      id: idOf(item),
      isOver: isOver(item),
      values: columns.map(({ value }) => value?.(item) ?? null),
      cells: columns.map(({ value, cell }) => (cell ? cell(item) : (value?.(item) ?? NONE))),
    }))}
  />
);
