import { may } from '@/server/access';
import { CloseSection } from './close-section';
import { orderPage } from './order-page';
import { EngineSection, PartsSection } from './parts-section';
import { ScheduleSection } from './schedule-section';
import { StandsOpen } from './stands-open';
import { TasksSection } from './tasks-section';

export default orderPage(({ view, actor, live }) => (
  <div className="thirds">
    <div>
      <TasksSection view={view} actor={actor} live={live} />
      <CloseSection view={view} actor={actor} live={live} />
    </div>
    <div>
      <PartsSection view={view} system={actor.unitSystem} live={live} />
    </div>
    <div>
      <EngineSection view={view} live={live} />
      {live && <StandsOpen view={view} />}
      {live && may(actor, 'plan work orders') && <ScheduleSection view={view} actor={actor} />}
    </div>
  </div>
));
