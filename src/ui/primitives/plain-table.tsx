import { Table } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/**
 * Rows parted by hairlines on the paper, heads in soft ink. Scrolls sideways where the screen is narrow.
 *
 * @param numeric columns, from 1, whose figures stand under each other, head and all
 */
export function PlainTable({
  heads,
  numeric = [],
  children,
}: {
  heads: readonly ReactNode[];
  numeric?: readonly number[];
  children: ReactNode;
}) {
  const wide = heads.length > 4;
  return (
    // What scrolls must be reached by keyboard too.
    <Table.ScrollArea mb="4" css={{ whiteSpace: 'normal' }} tabIndex={wide ? 0 : undefined}>
      <Table.Root
        size="sm"
        minW={wide ? `${Math.min(760, heads.length * 110)}px` : undefined}
        css={{
          '& th': { color: 'soft', fontWeight: '400', bg: 'paper', _print: { bg: 'white' } },
          '& td': { verticalAlign: 'top' },
          ...Object.fromEntries(
            numeric.map((n) => [
              `& th:nth-of-type(${n}), & td:nth-of-type(${n})`,
              { textAlign: 'right', whiteSpace: 'nowrap' },
            ]),
          ),
          '& tr': { bg: 'paper', _print: { bg: 'white' } },
        }}
      >
        <Table.Header>
          <Table.Row>
            {heads.map((head) => (
              <Table.ColumnHeader key={String(head)}>{head}</Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>{children}</Table.Body>
      </Table.Root>
    </Table.ScrollArea>
  );
}
