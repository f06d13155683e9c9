import { Table } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** Rows parted by hairlines on the paper, heads in soft ink. Scrolls sideways where the screen is narrow. */
export function PlainTable({ heads, children }: { heads: readonly ReactNode[]; children: ReactNode }) {
  return (
    <Table.ScrollArea mb="4" css={{ whiteSpace: 'normal' }}>
      <Table.Root
        size="sm"
        minW={heads.length > 4 ? '760px' : undefined}
        css={{
          '& th': { color: 'soft', fontWeight: '400', bg: 'paper', _print: { bg: 'white' } },
          '& td': { verticalAlign: 'top' },
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
