import { requireActor } from '@/app/actor';
import { pageOf, queryOf } from '@/app/list-query';
import { mustShow, page } from '@/app/shown-page';
import { deps } from '@/server/deps';
import { listDepots } from '@/server/fleet/bays';
import { listPeople } from '@/server/fleet/people';
import { listToday } from '@/server/work-orders/list-today';
import { findWorkOrders, orderFilter } from '@/server/work-orders/list-work-orders';
import { dateText } from '@/text/format';
import { ORDER_STATES } from '@/text/order-words';
import type { Choice } from '@/ui/primitives/field-frame';
import { FilterBar } from '@/ui/primitives/filter-bar';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { PageLinks } from '@/ui/primitives/page-links';
import { PlainTable } from '@/ui/primitives/plain-table';

const PAGE = 50;

type Search = Promise<Record<string, string | string[] | undefined>>;

export default page(async function WorkOrdersPage({ searchParams }: { searchParams: Search }) {
  const query = queryOf(await searchParams);
  return query.get('show') === 'today' ? <Today /> : <All query={query} />;
});

/** What is booked for today, or was for a day before and is still open. */
async function Today() {
  const actor = await requireActor();
  const list = await listToday(deps(), actor);
  mustShow(list);
  const mine = list.value.filter(({ personId }) => personId === actor.personId).length;
  return (
    <>
      <PageHead title="Work of today" actions={<ButtonLink href="/work-orders">All work orders</ButtonLink>}>
        <strong>{list.value.length}</strong> booked for today or before and still open
        {mine > 0 && ` · ${mine} of them for you, which stand first`}
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

/** All that fit the filter, a page at a time. */
async function All({ query }: { query: URLSearchParams }) {
  const actor = await requireActor();
  const filter = orderFilter.parse(Object.fromEntries(query));
  const shown = pageOf(query);
  const [list, people, depots] = await Promise.all([
    findWorkOrders(deps(), actor, { ...filter, page: { from: (shown - 1) * PAGE, limit: PAGE } }),
    listPeople(deps(), actor),
    listDepots(deps(), actor),
  ]);
  mustShow(list);
  mustShow(depots);
  const { items, found, open } = list.value;
  return (
    <>
      <PageHead
        title="Work orders"
        actions={
          <>
            <ButtonLink href="/work-orders?show=today">Work of today</ButtonLink>
            <ButtonLink href={`/work-orders/csv?${query}`} download>
              CSV of this list
            </ButtonLink>
          </>
        }
      >
        <strong>{open}</strong> open · {found} in this list
      </PageHead>
      <FilterBar
        action="/work-orders"
        search={{ placeholder: 'Number, unit, engine ( / )', chosen: filter.search }}
        filters={[
          { name: 'state', label: 'State', choices: STATES, chosen: filter.state, all: 'All states' },
          {
            name: 'depot',
            label: 'Depot',
            choices: depots.value.map(({ name }) => ({ value: name, label: name })),
            chosen: filter.depot,
            all: 'All depots',
          },
          {
            name: 'person',
            label: 'Person',
            choices: people.ok ? people.value.filter(({ role }) => role === 'technician').map(toChoice) : [],
            chosen: filter.person,
            all: 'All people',
          },
          { name: 'from', label: 'From', chosen: filter.from },
          { name: 'to', label: 'to', chosen: filter.to },
          { name: 'sort', label: 'Sort by', choices: SORTS, chosen: filter.sort },
        ]}
      />
      {items.length === 0 ? <NoOrders filtered={[...query].length > 0} /> : <Orders items={items} />}
      <PageLinks path="/work-orders" page={shown} count={found} pageSize={PAGE} query={query.toString()} />
    </>
  );
}

const STATES: readonly Choice[] = [
  { value: 'open', label: 'Not closed' },
  ...Object.entries(ORDER_STATES).map(([value, label]) => ({ value, label })),
];
const SORTS: readonly Choice[] = [
  { value: 'latest', label: 'Latest number first' },
  { value: 'day', label: 'By day' },
  { value: 'unit', label: 'By unit number' },
];
const toChoice = ({ id, name }: { id: string; name: string }): Choice => ({ value: id, label: name });

const NoOrders = ({ filtered }: { filtered: boolean }) => (
  <Empty>
    {filtered ? (
      <>
        No work order fits this filter. <TextLink href="/work-orders">Show all</TextLink>
      </>
    ) : (
      <>
        No work orders yet. Open one from the <TextLink href="/due">due list</TextLink> or from a vehicle: the order
        brings the part, gap, torque, steps and a record for each cylinder.
      </>
    )}
  </Empty>
);

type Order = Extract<Awaited<ReturnType<typeof listToday>>, { ok: true }>['value'][number];

function Orders({ items }: { items: readonly Order[] }) {
  return (
    <PlainTable dense heads={['Number', 'Vehicle', 'Engine', 'Depot', 'State', 'Planned', 'Bay', 'Person', 'Closed']}>
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
