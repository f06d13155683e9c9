import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { cylinderText } from '@/core/engine/layout';
import { deps } from '@/server/deps';
import { listWaiting } from '@/server/work-orders/list-waiting';
import { instantText } from '@/text/format';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';

export default page(async function WaitingPage() {
  const list = await listWaiting(deps(), await requireActor());
  mustShow(list);
  const waits = list.value;
  return (
    <>
      <PageHead title="Jobs that have stopped" actions={<ButtonLink href="/parts/to-order">Parts to order</ButtonLink>}>
        <strong>{waits.length}</strong> waiting
      </PageHead>
      {waits.length === 0 && (
        <Empty>
          No job is waiting. When a job stops halfway, because of a torn boot or the end of a shift, say so at the
          vehicle. The job and what it waits for are then listed here, and its parts stand under To order.
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
    </>
  );
});
