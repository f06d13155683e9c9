import { minutesText } from '@/text/minutes-words';
import { Section } from '@/ui/primitives/page';
import { StepList } from '@/ui/work-orders/step-list';
import { GatesSection } from '../gates-section';
import { doneText, orderPage } from '../order-page';
import { WaySection } from '../way-section';

export default orderPage(({ view, actor, live }) => (
  <div className="halves">
    <Section id="steps" title="Steps" aside={minutesText(view.order, view.learned)}>
      <StepList steps={view.steps} sitesText={doneText(view, false)} />
    </Section>
    <div>
      <WaySection view={view} actor={actor} live={live} />
      <GatesSection view={view} actor={actor} live={live} />
    </div>
  </div>
));
