import { requireActor } from '@/app/actor';
import { pageOf, queryOf } from '@/app/list-query';
import { mustShow, page } from '@/app/shown-page';
import { DUE_STATES } from '@/core/due/due';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewCosts } from '@/server/due/costs';
import { type DueList, dueFilter, listDue } from '@/server/due/list-due';
import { listViews } from '@/server/due/saved-views';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { heldText, STATE_WORDS } from '@/text/due-words';
import { DueFilterBar } from '@/ui/due/due-filter-bar';
import { DUE_COLUMNS, dueRow } from '@/ui/due/due-row';
import { DueTable } from '@/ui/due/due-table';
import { SavedViews } from '@/ui/due/saved-views';
import { LinkMenu } from '@/ui/primitives/link-menu';
import { TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { PageLinks } from '@/ui/primitives/page-links';
import { openWorkOrderAction } from '../work-orders/actions';
import { removeViewAction, saveViewAction } from './actions';

const PAGE = 50;

type Search = Promise<Record<string, string | string[] | undefined>>;

export default page(async function DuePage({ searchParams }: { searchParams: Search }) {
  const actor = await requireActor();
  const query = queryOf(await searchParams);
  // What costs most each week stands first, unless another order is asked for: on paper and in files as on screen.
  if (!query.has('sort')) query.set('sort', 'pressure');
  const filter = dueFilter.parse({ ...Object.fromEntries(query), descending: query.get('order') === 'reversed' });
  const page = pageOf(query);
  const [list, views, costs] = await Promise.all([
    listDue(deps(), actor, { ...filter, page: { from: (page - 1) * PAGE, limit: PAGE } }),
    listViews(deps(), actor),
    viewCosts(deps(), actor),
  ]);
  const comfortable = query.get('rows') === 'comfortable';
  const hidden = DUE_COLUMNS.filter((column) => query.get('hide')?.split(',').includes(column));
  mustShow(list);
  const { items: shown, matching, total } = list.value;
  const words = {
    system: actor.unitSystem,
    currency: costs.ok ? costs.value.currency : 'EUR',
    canOpen: may(actor, 'open work orders'),
    isWhole: !filter.component,
  };
  return (
    <>
      <Head list={list.value} views={views.ok ? views.value : []} query={query} />
      {total === 0 ? (
        <NoVehicles mayImport={may(actor, 'import data')} />
      ) : (
        <>
          <DueFilterBar
            components={list.value.components.map((value) => ({ value, label: COMPONENT_WORDS[value] }))}
            depots={list.value.depots}
            groups={list.value.groups}
            states={DUE_STATES.map((state) => ({
              value: state,
              label: `${STATE_WORDS[state]} (${list.value.counts[state]})`,
            }))}
            chosen={{
              component: filter.component,
              depot: filter.depot,
              group: filter.group,
              state: filter.state,
              search: filter.search,
              sort: filter.sort,
              order: query.get('order') ?? '',
              hide: hidden,
              comfortable,
            }}
          />
          {shown.length === 0 ? (
            <Empty>
              None of {total} vehicles fits this filter. <TextLink href="/due">Show all</TextLink>
            </Empty>
          ) : (
            <DueTable
              rows={shown.map((item) => dueRow(item, words))}
              hidden={hidden}
              dense={!comfortable}
              openOrder={openWorkOrderAction}
            />
          )}
          <PageLinks path="/due" page={page} count={matching} pageSize={PAGE} query={query.toString()} />
        </>
      )}
    </>
  );
});

const NoVehicles = ({ mayImport }: { mayImport: boolean }) => (
  <Empty>
    No vehicles yet.{' '}
    {mayImport ? <TextLink href="/import">Import your fleet from CSV files</TextLink> : 'A supervisor imports them'}:
    engine families, spec sheets, vehicles, odometer readings, service history.
  </Empty>
);

function Summary({ list: { counts, total, tested } }: { list: DueList }) {
  const figures = [
    [counts.past, 'past a limit'],
    [counts.soon, 'due within 4 weeks'],
    [counts.inspect, 'to inspect'],
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
      {tested && ` · ${heldText(tested)}`}
    </>
  );
}

type Views = Extract<Awaited<ReturnType<typeof listViews>>, { ok: true }>['value'];

const Head = ({ list, views, query }: { list: DueList; views: Views; query: URLSearchParams }) => (
  <PageHead
    title="Due"
    actions={
      <>
        <SavedViews views={views} query={String(query)} save={saveViewAction} remove={removeViewAction} />
        <LinkMenu
          label="Print, files"
          links={[
            { href: `/due/print?${query}`, label: 'To print, by depot' },
            { href: `/due/csv?${query}`, label: 'CSV of this list', isFile: true },
            { href: `/due/ics?${query}`, label: 'Calendar', isFile: true },
          ]}
        />
      </>
    }
  >
    <Summary list={list} />
  </PageHead>
);
