import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { viewBench } from '@/server/bench/view-bench';
import { deps } from '@/server/deps';
import { GapBench } from '@/ui/bench/gap-bench';
import { SubPlaces } from '@/ui/frame/sub-places';
import { PageHead } from '@/ui/primitives/page';
import { keepResultAction } from './actions';
import { BENCH_PLACES } from './places';

export default page(async function GapBenchPage() {
  const actor = await requireActor();
  const view = await viewBench(deps(), actor);
  mustShow(view);
  return (
    <>
      <PageHead title="Gap set">Every new plug, and the batch, before one is fitted</PageHead>
      <SubPlaces label="Bench" places={BENCH_PLACES} />
      <GapBench data={view.value} system={actor.unitSystem} keep={keepResultAction} />
    </>
  );
});
