import { Box } from '@chakra-ui/react';
import { openCounts } from '@/core/work/ask';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { instantText } from '@/text/format';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { Facts, Section } from '@/ui/primitives/page';
import { endWaitAction } from '../actions';

/** Where a job stands: done, open, counted, awaited. */
export function StandsOpen({ view, live }: { view: WorkOrderView; live: boolean }) {
  const { sites, steps, counts, waits, order } = view;
  const names = (chosen: typeof sites) => chosen.map(({ name }) => name).join(' ') || 'none';
  const opened = steps.filter((step) => step.phase === 'open' && step.state === 'done');
  const short = openCounts(counts.filter(({ out }) => out !== null));
  const waiting = waits.filter(({ wait }) => wait.endedAt === null);
  return (
    <Section title="What is still open">
      <Facts
        rows={[
          ['Sites done', names(sites.filter(({ doneAt }) => doneAt !== null))],
          ['Sites to do', names(sites.filter(({ doneAt }) => doneAt === null))],
          ['Opened so far', opened.map(({ title }) => title).join('; ') || 'nothing'],
          ['Counts open', short.join(' ') || 'none'],
          ['Steps to go', String(steps.filter(({ perSite, state }) => !perSite && state === 'open').length)],
        ]}
      />
      {waiting.map(({ wait, who }) => (
        <Box key={wait.id} mt="3" color="caution.ink">
          <strong>Waits:</strong> {wait.reason}
          {wait.site && `, site ${wait.site}`}
          {wait.partNumber && `, ${wait.quantity} × ${wait.partNumber}`}
          {wait.partWhat && ` (${wait.partWhat})`}. {who}, {instantText(wait.saidAt)}
          {live && (
            <ActionForm action={endWaitAction} quiet>
              <input type="hidden" name="workOrderId" value={order.id} />
              <input type="hidden" name="waitId" value={wait.id} />
              <SubmitButton>It is there, go on</SubmitButton>
            </ActionForm>
          )}
        </Box>
      ))}
    </Section>
  );
}
