import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { viewBench } from '@/server/bench/view-bench';
import { deps } from '@/server/deps';
import { ConvertBench } from '@/ui/bench/convert-bench';
import { SubPlaces } from '@/ui/frame/sub-places';
import { PageHead } from '@/ui/primitives/page';
import { keepResultAction } from '../actions';
import { BENCH_PLACES } from '../places';

export default page(async function ConvertBenchPage() {
  const actor = await requireActor();
  const view = await viewBench(deps(), actor);
  mustShow(view);
  return (
    <>
      <PageHead title="Units">Any figure in all its units; a slip is caught, never converted silently</PageHead>
      <SubPlaces label="Bench" places={BENCH_PLACES} />
      <ConvertBench data={view.value} system={actor.unitSystem} keep={keepResultAction} />
    </>
  );
});
