import { openCounts } from '@/core/work/ask';
import { sayPlaces } from '@/core/work/say-places';
import type { PlaceState } from '@/core/work/task';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { Facts, Section } from '@/ui/primitives/page';

/** Where a job stands: done, open, soaking, cracked, counted. */
export function StandsOpen({ view: { tasks, steps, counts, leftOpen } }: { view: WorkOrderView }) {
  const places = tasks.flatMap((task) => task.places.map((place) => ({ ...place, component: task.row.component })));
  const names = (state: PlaceState) => sayPlaces(places.filter((place) => place.state === state)) || 'none';
  const opened = steps.filter((step) => step.phase === 'open' && step.state === 'done');
  const cracked = sayPlaces(leftOpen.cracked);
  const short = openCounts(counts.filter(({ out }) => out !== null));
  return (
    <Section title="What is still open">
      <Facts
        rows={[
          ['Done', names('done')],
          ['To do', names('open')],
          ['Soaking', sayPlaces(leftOpen.soaking) || 'none'],
          ['Cracked', cracked ? `${cracked}: do not crank before every piece is accounted for` : 'none'],
          ['Opened so far', opened.map(({ title }) => title).join('; ') || 'nothing'],
          ['Counts open', short.join(' ') || 'none'],
          ['Steps to go', String(steps.filter(({ perSite, state }) => !perSite && state === 'open').length)],
        ]}
      />
    </Section>
  );
}
