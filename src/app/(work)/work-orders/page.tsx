import { Flex, Table } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { isLive } from '@/core/work/order-state';
import { deps } from '@/server/deps';
import { listWorkOrders } from '@/server/work-orders/view-work-order';
import { dateText, NONE } from '@/text/format';
import { ORDER_STATES } from '@/text/order-words';
import { TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { SubNav } from '@/ui/primitives/sub-nav';

import { ORDER_PLACES } from './places';

export const metadata = { title: 'Work orders' };

const PAGE = 200;

export default page(async function WorkOrdersPage({ searchParams }: { searchParams: Promise<{ below?: string }> }) {
  const below = Number((await searchParams).below);
  const cursor = Number.isInteger(below) && below > 0 ? below : undefined;
  const list = await listWorkOrders(deps(), await requireActor(), { limit: PAGE, cursor });
  mustShow(list);
  const { items, nextCursor } = list.value;
  const open = items.filter(isLive).length;
  return (
    <>
      <PageHead title="Work orders">
        <strong>{open}</strong> open · {items.length - open} closed or cancelled
        {(cursor || nextCursor) && ' on this page'}
      </PageHead>
      <SubNav label="Work orders" places={ORDER_PLACES} />
      {items.length === 0 ? (
        <Empty>
          No work orders yet. Open one from the <TextLink href="/due">due list</TextLink> or from a vehicle: it brings
          the part, gap, torque, steps and a record for each cylinder.
        </Empty>
      ) : (
        <PlainTable heads={['Number', 'Vehicle', 'Engine', 'Depot', 'State', 'Planned', 'Bay', 'Person', 'Closed']}>
          {items.map((order) => (
            <Table.Row key={order.id}>
              <Table.Cell>
                <TextLink href={`/work-orders/${order.id}`}>{order.number}</TextLink>
              </Table.Cell>
              <Table.Cell>
                <strong>{order.unitNumber}</strong> {order.vehicleName}
              </Table.Cell>
              <Table.Cell>{order.engineCode}</Table.Cell>
              <Table.Cell>{order.depot}</Table.Cell>
              <Table.Cell>{ORDER_STATES[order.state]}</Table.Cell>
              <Table.Cell whiteSpace="nowrap">
                {order.startsAt ? `${dateText(order.startsAt)} ${order.startsAt.slice(11)}` : NONE}
              </Table.Cell>
              <Table.Cell>{order.bay ?? NONE}</Table.Cell>
              <Table.Cell>{order.person ?? NONE}</Table.Cell>
              <Table.Cell whiteSpace="nowrap">{dateText(order.closedOn)}</Table.Cell>
            </Table.Row>
          ))}
        </PlainTable>
      )}
      <Flex mt="3" gap="4">
        {cursor && <TextLink href="/work-orders">The latest</TextLink>}
        {nextCursor && <TextLink href={`/work-orders?below=${nextCursor}`}>Earlier work orders</TextLink>}
      </Flex>
    </>
  );
});
