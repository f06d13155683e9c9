import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { deps } from '@/server/deps';
import { viewCosts } from '@/server/due/costs';
import { listDepots } from '@/server/fleet/bays';
import { viewWhatIf } from '@/server/planning/what-if';
import { dateText } from '@/text/format';
import { WhatIfLab } from '@/ui/planning/what-if-lab';
import { Empty, PageHead } from '@/ui/primitives/page';
import { keepWhatIfAction } from '../actions';

export default page(async function WhatIfPage() {
  const actor = await requireActor();
  const fleet = await viewWhatIf(deps(), actor);
  mustShow(fleet);
  const costs = await viewCosts(deps(), actor);
  mustShow(costs);
  const depots = await listDepots(deps(), actor);
  mustShow(depots);
  const { problem, jobs } = fleet.value;
  const today = deps().today();
  return (
    <>
      <PageHead title="What if">
        A second plan from {dateText(today)}, worked out on this screen. Nothing changes until it is kept and adopted.
      </PageHead>
      {jobs.length === 0 ? (
        <Empty>Nothing is open or due, so there is nothing to plan another way.</Empty>
      ) : (
        <WhatIfLab
          problem={problem}
          jobs={jobs}
          depots={depots.value}
          today={today}
          currency={costs.value.currency}
          keep={keepWhatIfAction}
        />
      )}
    </>
  );
});
