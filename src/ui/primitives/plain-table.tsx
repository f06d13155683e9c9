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
  numeric = [],
  dense = false,
  children,
}: {
  heads: readonly ReactNode[];
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
        style={headProperties(heads)}
      >
        <thead>
          <tr>
            {heads.map((head) => (
              <th key={String(head)} scope="col">
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
