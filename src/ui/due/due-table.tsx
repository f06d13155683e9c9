'use client';

import NextLink from 'next/link';
import { memo, type ReactNode } from 'react';
import { LifeRing } from '../drawings/life-ring';
import { type FormAction, PressForm } from '../primitives/action-form';
import { useFormState } from '../primitives/form-state';
import { ListFrame } from '../primitives/plain-table';
import { WeekCost } from '../primitives/week-cost';
import { COLUMN_WORDS, type DueColumn, type DueRow } from './due-row';

const ORDER = ['life', 'vehicle', 'depot', 'due', 'pressure', 'limit', 'odometer', 'sure', 'order'] as const;
type Column = (typeof ORDER)[number];
const WORDS: Readonly<Record<Column, string>> = { ...COLUMN_WORDS, vehicle: 'Vehicle', due: 'Due' };

/** The due list: a table where there is room, cards on a phone. One form round it all opens work orders. */
export function DueTable({
  rows,
  hidden,
  dense,
  openOrder,
}: {
  rows: readonly DueRow[];
  hidden: readonly DueColumn[];
  /** One line a vehicle. */
  dense: boolean;
  openOrder: FormAction;
}) {
  const shown = ORDER.filter((column) => !hidden.some((left) => left === column));
  return (
    <PressForm action={openOrder} quiet>
      <ListFrame>
        <table className="list due-list" data-keep data-dense={dense || undefined}>
          <thead>
            <tr>
              {shown.map((column) => (
                <th key={column} scope="col" className={`due-${column}`}>
                  {WORDS[column]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <Row key={row.id} row={row} shown={shown} />
            ))}
          </tbody>
        </table>
      </ListFrame>
    </PressForm>
  );
}

const Row = memo(function Row({ row, shown }: { row: DueRow; shown: readonly Column[] }) {
  return (
    <tr>
      {shown.map((column) => (
        <td key={column} className={`due-${column}`} title={wholeOf(column, row)}>
          {cellOf(column, row)}
        </td>
      ))}
    </tr>
  );
});

/** What one line may cut off. */
function wholeOf(column: Column, row: DueRow): string | undefined {
  if (column === 'due') return [row.due, row.also].filter(Boolean).join('; ') || undefined;
  if (column === 'vehicle') return row.engine;
  if (column === 'depot') return row.group;
  return column === 'sure' || column === 'limit' ? row[column] : undefined;
}

function cellOf(column: Column, row: DueRow): ReactNode {
  switch (column) {
    case 'life':
      return (
        <>
          <LifeRing lifeUsed={row.lifeUsed} assumed={row.assumed} />
          <span>{row.life}</span>
        </>
      );
    case 'vehicle':
      return (
        <>
          <NextLink href={`/vehicles/${row.id}`} className="link" prefetch={false}>
            <strong>{row.unit}</strong> {row.name}
          </NextLink>
          <Second>{row.engine}</Second>
        </>
      );
    case 'depot':
      return (
        <>
          {row.depot}
          <Second>{row.group}</Second>
        </>
      );
    case 'due':
      return (
        <>
          {row.trouble && <strong>{row.trouble} · </strong>}
          {row.what}: {row.urgent ? <strong>{row.state}</strong> : row.state}
          <Second>{row.due}</Second>
          {row.also && <Second>{row.also}</Second>}
        </>
      );
    case 'odometer':
      return (
        <>
          {row.odometer}
          {row.suspects > 0 && <span className="doubtful">{row.suspects} suspect</span>}
        </>
      );
    case 'pressure':
      return (
        <>
          <WeekCost unit={row.isWhole ? row.unit : null} amount={row.pressure} currency={row.currency} />
          {row.pressure !== null && ' a week'}
        </>
      );
    case 'order':
      return <Order row={row} />;
    default:
      return row[column];
  }
}

const Second = ({ children }: { children: ReactNode }) => <span className="second">{children}</span>;

function Order({ row: { id, unit, order, next } }: { row: DueRow }) {
  const { pending } = useFormState();
  if (order)
    return (
      <>
        <NextLink href={`/work-orders/${order.id}`} className="link" prefetch={false}>
          {order.number}
        </NextLink>
        <Second>{order.when}</Second>
      </>
    );
  if (next === 'open')
    return (
      <button type="submit" className="button" name="vehicleId" value={id} disabled={pending}>
        Open<span className="aloud"> a work order for unit {unit}</span>
      </button>
    );
  if (next === null) return null;
  return (
    <NextLink href={`/vehicles/${id}${next === 'waits' ? '#pressure' : ''}`} className="link" prefetch={false}>
      {next === 'waits' ? 'Waits' : 'Resolve'}
    </NextLink>
  );
}
