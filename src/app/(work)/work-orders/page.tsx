import { Flex } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { isLive } from '@/core/work/order-state';
import { deps } from '@/server/deps';
import { listToday } from '@/server/work-orders/list-today';
import { listWorkOrders } from '@/server/work-orders/view-work-order';
import { dateText } from '@/text/format';
import { ORDER_STATES } from '@/text/order-words';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';

const PAGE = 60;

type Search = Promise<{ below?: string; show?: string }>;

export default page(async function WorkOrdersPage({ searchParams }: { searchParams: Search }) {
  const { below, show } = await searchParams;
  return show === 'today' ? <Today /> : <All below={Number(below)} />;
});

/** What is booked for today, or was for a day before and is still open. */
async function Today() {
  const actor = await requireActor();
  const list = await listToday(deps(), actor);
  mustShow(list);
  const own = list.value.filter(({ personId }) => personId === actor.personId).length;
  return (
    <>
      <PageHead title="Work of today" actions={<ButtonLink href="/work-orders">All work orders</ButtonLink>}>
        <strong>{list.value.length}</strong> booked for today or before and still open
        {own > 0 && ` · ${own} of them for you, which stand first`}
      </PageHead>
      {list.value.length === 0 ? (
        <Empty>
          Nothing is booked for today. <TextLink href="/work-orders">All work orders</TextLink> has what is open, the{' '}
          <TextLink href="/plan">week</TextLink> what comes.
        </Empty>
      ) : (
        <Orders items={list.value} />
      )}
    </>
  );
}

/** All there are, the latest first. */
async function All({ below }: { below: number }) {
  const cursor = Number.isInteger(below) && below > 0 ? below : undefined;
  const list = await listWorkOrders(deps(), await requireActor(), { limit: PAGE, cursor });
  mustShow(list);
  const { items, nextCursor } = list.value;
  const open = items.filter(isLive).length;
  return (
    <>
      <PageHead title="Work orders" actions={<ButtonLink href="/work-orders?show=today">Work of today</ButtonLink>}>
        <strong>{open}</strong> open · {items.length - open} closed or cancelled
        {(cursor || nextCursor) && ' on this page'}
      </PageHead>
      {items.length === 0 ? (
        <Empty>
          No work orders yet. Open one from the <TextLink href="/due">due list</TextLink> or from a vehicle: it brings
          the part, gap, torque, steps and a record for each cylinder.
        </Empty>
      ) : (
        <Orders items={items} />
      )}
      <Flex mt="3" gap="4">
        {cursor && <TextLink href="/work-orders">The latest</TextLink>}
        {nextCursor && <TextLink href={`/work-orders?below=${nextCursor}`}>Earlier work orders</TextLink>}
      </Flex>
    </>
  );
}

type Order = Extract<Awaited<ReturnType<typeof listToday>>, { ok: true }>['value'][number];

function Orders({ items }: { items: readonly Order[] }) {
  return (
    <PlainTable heads={['Number', 'Vehicle', 'Engine', 'Depot', 'State', 'Planned', 'Bay', 'Person', 'Closed']}>
      {items.map((order) => (
        <tr key={order.id}>
          <td>
            <TextLink href={`/work-orders/${order.id}`}>{order.number}</TextLink>
          </td>
          <td>
            <strong>{order.unitNumber}</strong> {order.vehicleName}
          </td>
          <td>{order.engineCode}</td>
          <td>{order.depot}</td>
          <td>{ORDER_STATES[order.state]}</td>
          <td className="nowrap or-none">
            {order.startsAt && `${dateText(order.startsAt)} ${order.startsAt.slice(11)}`}
          </td>
          <td className="or-none">{order.bay}</td>
          <td className="or-none">{order.person}</td>
          <td className="nowrap or-none">{order.closedOn && dateText(order.closedOn)}</td>
        </tr>
      ))}
    </PlainTable>
  );
}
