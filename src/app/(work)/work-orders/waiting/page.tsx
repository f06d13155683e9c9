import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { cylinderText } from '@/core/engine/layout';
import { deps } from '@/server/deps';
import { listWaiting } from '@/server/work-orders/list-waiting';
import { instantText, NONE } from '@/text/format';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { PrintButton } from '@/ui/primitives/print-button';

const NEED_WORDS = {
  waits: 'a job waits for it',
  found_broken: 'found broken on arrival',
  new_seal: 'always new',
  likely_to_break: 'likely to break',
} as const;

export default page(async function WaitingPage() {
  const list = await listWaiting(deps(), await requireActor());
  mustShow(list);
  const { waits, draft } = list.value;
  return (
    <>
      <PageHead
        title="Jobs that have stopped, and the parts they wait for"
        actions={
          draft.length > 0 && (
            <>
              <ButtonLink href="/work-orders/waiting/csv" download>
                The order as CSV
              </ButtonLink>
              <PrintButton />
            </>
          )
        }
      >
        <strong>{waits.length}</strong> waiting · <strong>{draft.filter(({ order }) => order > 0).length}</strong> parts
        to order
      </PageHead>
      {waits.length === 0 && draft.length === 0 && (
        <Empty>
          No job is waiting. When a job stops halfway, because of a torn boot or the end of a shift, say so at the
          vehicle. What is open and what it waits for is then listed here, with the parts order drafted.
        </Empty>
      )}
      {waits.length > 0 && (
        <Section title="Jobs that wait">
          {waits.map(({ wait, who, order }) => (
            <Box key={wait.id} py="2" borderBottom="1px solid" borderColor="hair">
              <TextLink href={`/work-orders/${order.id}`}>{order.number}</TextLink> unit{' '}
              <strong>{order.unitNumber}</strong> {order.vehicleName}: {wait.reason}
              {wait.site && `, ${cylinderText(wait.site)}`}
              {wait.partNumber && (
                <>
                  , {wait.quantity} × <Code>{wait.partNumber}</Code>
                </>
              )}
              <Box color="soft" fontSize="sm">
                {who}, {instantText(wait.saidAt)}
              </Box>
            </Box>
          ))}
        </Section>
      )}
      {draft.length > 0 && (
        <Section title="Drafted order" aside="current numbers, less what lies here, in whole packs">
          <PlainTable
            heads={['Part', 'What', 'Why', 'Maker', 'Needed', 'On hand', 'To order', 'Pack', 'Lead', 'For orders']}
            numeric={[5, 6, 7, 8]}
          >
            {draft.map((line) => (
              <tr key={line.number}>
                <td>
                  <Code>{line.number}</Code>
                </td>
                <td>{line.what}</td>
                <td>{line.whys.map((why) => NEED_WORDS[why]).join(', ')}</td>
                <td>{line.maker ?? NONE}</td>
                <td>{line.needed}</td>
                <td>{line.onHand ?? NONE}</td>
                <td>
                  <strong>{line.order}</strong>
                </td>
                <td>{line.pack}</td>
                <td>{line.leadDays === null ? NONE : `${line.leadDays} days`}</td>
                <td>{line.orders.join(', ')}</td>
              </tr>
            ))}
          </PlainTable>
        </Section>
      )}
    </>
  );
});
