import { Box, Flex, Table } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { DueItem } from '@/core/due/due-item';
import type { UnitSystem } from '@/core/units/person-units';
import { bindingText, STATE_WORDS, sureText } from '@/text/due-words';
import { dateText, distanceText, moneyText, NONE, percentText, spanText } from '@/text/format';
import { LifeRing } from '../drawings/life-ring';
import { TextLink } from '../primitives/links';

/** Columns that can be left out; vehicle and due date always stand. */
export const DUE_COLUMNS = ['life', 'pressure', 'depot', 'limit', 'odometer', 'sure', 'order'] as const;
export type DueColumn = (typeof DUE_COLUMNS)[number];

export const COLUMN_WORDS: Readonly<Record<DueColumn, string>> = {
  life: 'Life used',
  pressure: 'Pressure',
  depot: 'Depot',
  limit: 'Limit that binds',
  odometer: 'Odometer now',
  sure: 'How sure',
  order: 'Work order',
};

interface Props {
  readonly items: readonly DueItem[];
  readonly system: UnitSystem;
  readonly currency: string;
  readonly hidden: ReadonlySet<DueColumn>;
  /** One line a vehicle. */
  readonly dense: boolean;
  /** What can be done where there is no work order. */
  readonly action: (item: DueItem) => ReactNode;
}

/** What would break into three lines otherwise. */
const WIDTHS: Readonly<Partial<Record<string, string>>> = { vehicle: '200px', sure: '150px', limit: '110px' };

const NUMERIC: ReadonlySet<DueColumn> = new Set(['pressure', 'odometer']);

export function DueTable({ items, hidden, dense, ...rest }: Props) {
  const order = ['life', 'vehicle', 'depot', 'due', 'pressure', 'limit', 'odometer', 'sure', 'order'] as const;
  const shown = order.filter((column) => column === 'vehicle' || column === 'due' || !hidden.has(column));
  const words = { ...COLUMN_WORDS, vehicle: 'Vehicle', due: 'Due' };
  return (
    <Table.ScrollArea css={{ whiteSpace: 'normal' }} tabIndex={0}>
      <Table.Root
        size="sm"
        css={{
          '& th': { color: 'soft', fontWeight: '400', bg: 'paper', _print: { bg: 'white' } },
          '& td, & th': { px: '2', py: dense ? '0.5' : undefined },
          '& tr': { bg: 'paper', _print: { bg: 'white' }, breakInside: 'avoid' },
        }}
      >
        <Table.Header>
          <Table.Row>
            {shown.map((column) => (
              <Table.ColumnHeader key={column} textAlign={NUMERIC.has(column as DueColumn) ? 'right' : undefined}>
                {words[column]}
              </Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {items.map((item) => (
            <Table.Row key={item.vehicleId}>
              {shown.map((column) => (
                <Table.Cell
                  key={column}
                  textAlign={NUMERIC.has(column as DueColumn) ? 'right' : undefined}
                  minW={dense ? undefined : WIDTHS[column]}
                  whiteSpace={column === 'sure' || column === 'limit' || column === 'vehicle' ? undefined : 'nowrap'}
                >
                  {cellOf(column, item, { ...rest, dense })}
                </Table.Cell>
              ))}
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
    </Table.ScrollArea>
  );
}

type CellProps = Omit<Props, 'items' | 'hidden'>;

function cellOf(column: DueColumn | 'vehicle' | 'due', item: DueItem, props: CellProps): ReactNode {
  const { system, currency, dense, action } = props;
  switch (column) {
    case 'life':
      return <Life item={item} />;
    case 'vehicle':
      return (
        <Second dense={dense} second={[item.engineCode, item.partNumber].filter(Boolean).join(' · ')}>
          <TextLink href={`/vehicles/${item.vehicleId}`}>
            <strong>{item.unitNumber}</strong> {item.name}
          </TextLink>
        </Second>
      );
    case 'depot':
      return (
        <Second dense={dense} second={item.dutyGroup}>
          {item.depot}
        </Second>
      );
    case 'due':
      return (
        <Second dense={dense} second={dueText(item)}>
          <Box as="span" fontWeight={item.state === 'past' || item.state === 'soon' ? '650' : undefined}>
            {STATE_WORDS[item.state]}
          </Box>
        </Second>
      );
    case 'pressure':
      return item.pressure === null ? NONE : `${moneyText(item.pressure, currency)} a week`;
    case 'limit':
      return bindingText(item, system);
    case 'odometer':
      return (
        <>
          {distanceText(item.odometerNowKm, system)}
          {item.suspectReadings > 0 && (
            <Box color="caution.ink" fontSize="sm">
              {item.suspectReadings} suspect
            </Box>
          )}
        </>
      );
    case 'sure':
      return <Box fontSize="sm">{item.state === 'no-match' ? item.fitmentWhy : sureText(item, system)}</Box>;
    case 'order':
      return item.openWorkOrder ? (
        <Second
          dense={dense}
          second={item.openWorkOrder.plannedOn ? dateText(item.openWorkOrder.plannedOn) : 'not planned'}
        >
          <TextLink href={`/work-orders/${item.openWorkOrder.id}`}>{item.openWorkOrder.number}</TextLink>
        </Second>
      ) : (
        action(item)
      );
  }
}

function Second({ dense, second, children }: { dense: boolean; second: ReactNode; children: ReactNode }) {
  return (
    <>
      {children}
      <Box as={dense ? 'span' : 'div'} color="soft" fontSize="sm" ml={dense ? '2' : undefined}>
        {second}
      </Box>
    </>
  );
}

function Life({ item }: { item: DueItem }) {
  const assumed = item.certainty === 'assumed';
  return (
    <Flex align="center" gap="2" minW="76px">
      <LifeRing lifeUsed={item.lifeUsed} assumed={assumed} />
      <span>{lifeWords(item.lifeUsed, assumed)}</span>
    </Flex>
  );
}

function dueText({ state, due }: DueItem): string {
  if (state === 'inspect') return 'nothing recorded: look first';
  if (!due) return '';
  return `${dateText(due.p50)}${due.p10 === due.p90 ? '' : ` (${spanText(due.p10, due.p90)})`}`;
}

/** An assumed history that says “three times over” says only that nobody knows. */
function lifeWords(lifeUsed: number | null, assumed: boolean): string {
  if (lifeUsed === null) return NONE;
  return assumed && lifeUsed > 2 ? 'assumed' : percentText(lifeUsed);
}
