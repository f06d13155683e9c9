import type { CSSProperties, ReactNode } from 'react';

/** Head texts as the sheet reads them for cards. */
const headProperties = (heads: readonly ReactNode[]): CSSProperties =>
  Object.fromEntries(
    heads.flatMap((head, i) => (typeof head === 'string' ? [[`--head-${i + 1}`, JSON.stringify(head)]] : [])),
  );

/**
 * Rows parted by hairlines on the paper, heads in soft ink. On a phone each row is a card: its first cell is the title, the
 * others stand beside their heads.
 *
 * @param numeric columns, from 1, whose figures stand under each other, head and all
 * @param dense one line a row
 */
export function PlainTable({
  heads,
  names = heads,
  sorted = [],
  numeric = [],
  dense = false,
  children,
}: {
  heads: readonly ReactNode[];
  /** The heads as text, where they are more than that. */
  names?: readonly ReactNode[];
  /** How each column is sorted, where a person may choose. */
  sorted?: readonly ('ascending' | 'descending' | 'none')[];
  numeric?: readonly number[];
  dense?: boolean;
  children: ReactNode;
}) {
  const wide = heads.length > 5;
  return (
    <ListFrame>
      <table
        className="list"
        data-wide={wide || undefined}
        data-dense={dense || undefined}
        data-numeric={numeric.join(' ') || undefined}
        style={headProperties(names)}
      >
        <thead>
          <tr>
            {heads.map((head, i) => (
              <th key={String(names[i])} scope="col" aria-sort={sorted[i]}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </ListFrame>
  );
}

/** Scrolls sideways what is wider than the screen. */
export const ListFrame = ({ children }: { children: ReactNode }) => (
  // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard too
  <div className="list-frame" tabIndex={0}>
    {children}
  </div>
);
