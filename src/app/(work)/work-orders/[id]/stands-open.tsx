import { Box } from '@chakra-ui/react';
import { openCounts } from '@/core/work/ask';
import { sayPlaces } from '@/core/work/say-places';
import type { PlaceState } from '@/core/work/task';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { instantText } from '@/text/format';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { Facts, Section } from '@/ui/primitives/page';
import { endWaitAction } from '../actions';

/** Where a job stands: done, open, counted, awaited. */
export function StandsOpen({ view, live }: { view: WorkOrderView; live: boolean }) {
  const { tasks, steps, counts, waits, order } = view;
  const places = tasks.flatMap((task) => task.places.map((place) => ({ ...place, component: task.row.component })));
  const names = (state: PlaceState) => sayPlaces(places.filter((place) => place.state === state)) || 'none';
  const opened = steps.filter((step) => step.phase === 'open' && step.state === 'done');
  const short = openCounts(counts.filter(({ out }) => out !== null));
  const waiting = waits.filter(({ wait }) => wait.endedAt === null);
  return (
    <Section title="What is still open">
      <Facts
        rows={[
          ['Done', names('done')],
          ['To do', names('open')],
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
