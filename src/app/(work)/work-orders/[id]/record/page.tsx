import { may } from '@/server/access';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { instantText } from '@/text/format';
import { Section } from '@/ui/primitives/page';
import { HistorySection } from '../history-section';
import { orderPage } from '../order-page';
import { PartTable } from '../part-table';
import { SiteTable } from '../site-table';

export default orderPage(({ view, actor, live }) => (
  <>
    <SiteTable view={view} actor={actor} />
    <PartTable view={view} actor={actor} />
    <FromTheBench view={view} />
    <HistorySection view={view} mayUndo={live && may(actor, 'open work orders')} />
  </>
));

function FromTheBench({ view: { kept } }: { view: WorkOrderView }) {
  if (kept.length === 0) return null;
  return (
    <Section id="bench" title="From the bench">
      {kept.map(({ kept: result, who }) => (
        <div key={result.id}>
          {result.summary}{' '}
          <span className="soft small">
            {who}, {instantText(result.keptAt)}
          </span>
        </div>
      ))}
    </Section>
  );
}
