import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { groupBy } from '@/core/shared/group-by';
import { deps } from '@/server/deps';
import { viewCosts } from '@/server/due/costs';
import { dueFilter, listDue } from '@/server/due/list-due';
import { dateText } from '@/text/format';
import { dueRow } from '@/ui/due/due-row';
import { DueTable } from '@/ui/due/due-table';
import { ButtonLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { PrintButton } from '@/ui/primitives/print-button';
import { openWorkOrderAction } from '../../work-orders/actions';

type Search = Promise<Record<string, string | undefined>>;

/** Without a state chosen, paper gets what wants work: nobody pins up the rest. */
const WANTS_WORK: ReadonlySet<string> = new Set(['past', 'soon', 'inspect', 'deferred', 'blocked']);
const HIDDEN = ['depot', 'sure'] as const;

/** The due list on paper: a sheet for each depot. */
export default page(async function PrintPage({ searchParams }: { searchParams: Search }) {
  const actor = await requireActor();
  const query = await searchParams;
  const filter = dueFilter.parse({ ...query, descending: query.order === 'reversed' });
  const [list, costs] = await Promise.all([listDue(deps(), actor, filter), viewCosts(deps(), actor)]);
  mustShow(list);
  const items = filter.state ? list.value.items : list.value.items.filter((item) => WANTS_WORK.has(item.state));
  const words = {
    system: actor.unitSystem,
    currency: costs.ok ? costs.value.currency : 'EUR',
    canOpen: false,
    isWhole: !filter.component,
  };
  const depots = [...groupBy(items, (item) => item.depot)].sort(([a], [b]) => a.localeCompare(b));
  return (
    <>
      <Box data-no-print>
        <PageHead
          title="Due, by depot"
          actions={
            <>
              <ButtonLink href={`/due?${new URLSearchParams(query as Record<string, string>)}`}>
                Back to the list
              </ButtonLink>
              <PrintButton />
            </>
          }
        >
          {items.length} vehicles, a sheet for each depot; A4 and Letter
        </PageHead>
      </Box>
      {depots.length === 0 && <Empty>Nothing is due by this filter.</Empty>}
      {depots.map(([depot, rows], i) => (
        <Box as="section" key={depot} mb="8" css={{ breakBefore: i > 0 ? 'page' : undefined }}>
          <Box as="h2" fontSize="18px" fontWeight="650" mb="2">
            {depot}: {rows.length} due, {dateText(deps().today())}
          </Box>
          <DueTable
            rows={rows.map((item) => dueRow(item, words))}
            hidden={HIDDEN}
            dense
            openOrder={openWorkOrderAction}
          />
        </Box>
      ))}
    </>
  );
});
