import { Box, Flex, Table } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { DUE_STATES } from '@/core/interval/due';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { type DueItem, type DueList, dueFilter, listDue } from '@/server/due/list-due';
import { LifeRing } from '@/ui/drawings/life-ring';
import { DueFilterBar } from '@/ui/due/due-filter-bar';
import { bindingText, STATE_WORDS, sureText } from '@/ui/due/due-words';
import { dateText, distanceText, NONE, percentText, spanText, type UnitSystem } from '@/ui/format/format';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { openWorkOrderAction } from '../work-orders/actions';

export const metadata = { title: 'Due' };

const PAGE = 100;

type Search = Promise<Record<string, string | string[] | undefined>>;

export default async function DuePage({ searchParams }: { searchParams: Search }) {
  const actor = await requireActor();
  const query = new URLSearchParams(
    Object.entries(await searchParams).flatMap(([k, v]) => (typeof v === 'string' && v !== '' ? [[k, v]] : [])),
  );
  const filter = dueFilter.parse({ ...Object.fromEntries(query), descending: query.get('order') === 'reversed' });
  const page = Math.max(1, Number.parseInt(query.get('page') ?? '1', 10) || 1);
  const list = await listDue(deps(), actor, filter, { from: (page - 1) * PAGE, limit: PAGE });
  if (!list.ok) return <Empty>{list.error.message}</Empty>;
  const { items: shown, found, total } = list.value;
  return (
    <>
      <PageHead
        title="Due"
        actions={
          <ButtonLink href={`/due/csv?${query}`} download>
            CSV of this list
          </ButtonLink>
        }
      >
        <Summary list={list.value} />
      </PageHead>
      {total === 0 ? (
        <Empty>
          No vehicles yet.{' '}
          {may(actor, 'import data') ? (
            <TextLink href="/import">Import your fleet from CSV files</TextLink>
          ) : (
            'A supervisor imports them'
          )}
          : engine families, spec sheets, vehicles, odometer readings, service history.
        </Empty>
      ) : (
        <>
          <DueFilterBar
            depots={list.value.depots}
            groups={list.value.groups}
            states={DUE_STATES.map((state) => ({
              value: state,
              label: `${STATE_WORDS[state]} (${list.value.counts[state]})`,
            }))}
            chosen={{
              depot: filter.depot,
              group: filter.group,
              state: filter.state,
              search: filter.search,
              sort: filter.sort,
              order: query.get('order') ?? '',
            }}
          />
          {shown.length === 0 ? (
            <Empty>
              None of {total} vehicles fits this filter. <TextLink href="/due">Show all</TextLink>
            </Empty>
          ) : (
            <DueTable items={shown} system={actor.unitSystem} canOpen={may(actor, 'open work orders')} />
          )}
          <Pages page={page} pages={Math.ceil(found / PAGE)} query={query} />
        </>
      )}
    </>
  );
}

function Summary({ list: { counts, total } }: { list: DueList }) {
  const figures = [
    [counts.past, 'past a limit'],
    [counts.soon, 'due within 4 weeks'],
    [counts.inspect, 'to inspect, life only assumed'],
    [counts['no-match'], 'without a firm match'],
    [counts['no-odometer'], 'without a reading'],
  ] as const;
  return (
    <>
      {figures
        .filter(([n], i) => n > 0 || i < 2)
        .map(([n, words]) => (
          <span key={words}>
            <strong>{n}</strong> {words} ·{' '}
          </span>
        ))}
      {total} vehicles
    </>
  );
}

function DueTable({ items, system, canOpen }: { items: readonly DueItem[]; system: UnitSystem; canOpen: boolean }) {
  return (
    <Table.ScrollArea css={{ whiteSpace: 'normal' }}>
      <Table.Root
        size="sm"
        css={{
          '& th': { color: 'soft', fontWeight: '400', bg: 'paper' },
          '& td, & th': { px: '2' },
          '& tr': { bg: 'paper' },
        }}
      >
        <Table.Header>
          <Table.Row>
            <Table.ColumnHeader>Life used</Table.ColumnHeader>
            <Table.ColumnHeader>Vehicle</Table.ColumnHeader>
            <Table.ColumnHeader>Depot</Table.ColumnHeader>
            <Table.ColumnHeader>Due</Table.ColumnHeader>
            <Table.ColumnHeader>Limit that binds</Table.ColumnHeader>
            <Table.ColumnHeader textAlign="right">Odometer now</Table.ColumnHeader>
            <Table.ColumnHeader>How sure</Table.ColumnHeader>
            <Table.ColumnHeader>Work order</Table.ColumnHeader>
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {items.map((item) => (
            <DueLine key={item.vehicleId} item={item} system={system} canOpen={canOpen} />
          ))}
        </Table.Body>
      </Table.Root>
    </Table.ScrollArea>
  );
}

function DueLine({ item, system, canOpen }: { item: DueItem; system: UnitSystem; canOpen: boolean }) {
  const { due } = item;
  return (
    <Table.Row>
      <Table.Cell>
        <Flex align="center" gap="2" minW="76px">
          <LifeRing lifeUsed={item.lifeUsed} assumed={item.certainty === 'assumed'} />
          <span>
            {item.lifeUsed === null
              ? NONE
              : item.certainty === 'assumed' && item.lifeUsed > 2
                ? 'assumed'
                : percentText(item.lifeUsed)}
          </span>
        </Flex>
      </Table.Cell>
      <Table.Cell minW="190px">
        <TextLink href={`/vehicles/${item.vehicleId}`}>
          <strong>{item.unitNumber}</strong> {item.name}
        </TextLink>
        <Box color="soft" fontSize="sm">
          {item.engineCode}
          {item.partNumber && ` · ${item.partNumber}`}
        </Box>
      </Table.Cell>
      <Table.Cell>
        {item.depot}
        <Box color="soft" fontSize="sm">
          {item.dutyGroup}
        </Box>
      </Table.Cell>
      <Table.Cell whiteSpace="nowrap">
        <Box fontWeight={item.state === 'past' || item.state === 'soon' ? '650' : undefined}>
          {STATE_WORDS[item.state]}
        </Box>
        <Box color="soft" fontSize="sm">
          {item.state === 'inspect'
            ? 'nothing recorded: look first'
            : due && `${dateText(due.p50)}${due.p10 === due.p90 ? '' : ` (${spanText(due.p10, due.p90)})`}`}
        </Box>
      </Table.Cell>
      <Table.Cell>{bindingText(item, system)}</Table.Cell>
      <Table.Cell textAlign="right" whiteSpace="nowrap">
        {distanceText(item.odometerNowKm, system)}
        {item.suspectReadings > 0 && (
          <Box color="caution.ink" fontSize="sm">
            {item.suspectReadings} suspect
          </Box>
        )}
      </Table.Cell>
      <Table.Cell fontSize="sm" minW="150px">
        {item.state === 'no-match' ? item.fitmentWhy : sureText(item, system)}
      </Table.Cell>
      <Table.Cell whiteSpace="nowrap">
        {item.openWorkOrder ? (
          <>
            <TextLink href={`/work-orders/${item.openWorkOrder.id}`}>{item.openWorkOrder.number}</TextLink>
            <Box color="soft" fontSize="sm" whiteSpace="nowrap">
              {item.openWorkOrder.plannedOn ? dateText(item.openWorkOrder.plannedOn) : 'not planned'}
            </Box>
          </>
        ) : item.state === 'no-match' ? (
          <TextLink href={`/vehicles/${item.vehicleId}`}>Settle</TextLink>
        ) : (
          canOpen && (
            <ActionForm action={openWorkOrderAction} quiet>
              <input type="hidden" name="vehicleId" value={item.vehicleId} />
              <SubmitButton>
                Open
                <Box as="span" srOnly>
                  {' '}
                  a work order for unit {item.unitNumber}
                </Box>
              </SubmitButton>
            </ActionForm>
          )
        )}
      </Table.Cell>
    </Table.Row>
  );
}

function Pages({ page, pages, query }: { page: number; pages: number; query: URLSearchParams }) {
  if (pages <= 1) return null;
  const to = (n: number) => {
    const next = new URLSearchParams(query);
    next.set('page', String(n));
    return `/due?${next}`;
  };
  return (
    <Flex gap="4" mt="4" aria-label="Pages" as="nav">
      {page > 1 && <TextLink href={to(page - 1)}>Earlier rows</TextLink>}
      <span>
        Page {page} of {pages}
      </span>
      {page < pages && <TextLink href={to(page + 1)}>Later rows</TextLink>}
    </Flex>
  );
}
