import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { viewBench } from '@/server/bench/view-bench';
import { deps } from '@/server/deps';
import { LeadBench } from '@/ui/bench/lead-bench';
import { SubPlaces } from '@/ui/frame/sub-places';
import { PageHead } from '@/ui/primitives/page';
import { keepResultAction } from '../actions';
import { BENCH_PLACES } from '../places';

export default page(async function LeadBenchPage() {
  const actor = await requireActor();
  const view = await viewBench(deps(), actor);
  mustShow(view);
  return (
    <>
      <PageHead title="Leads">A new set to the old places by length</PageHead>
      <SubPlaces label="Bench" places={BENCH_PLACES} />
      <LeadBench data={view.value} system={actor.unitSystem} keep={keepResultAction} />
    </>
  );
});
