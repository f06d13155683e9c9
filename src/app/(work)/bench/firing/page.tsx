import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { viewBench } from '@/server/bench/view-bench';
import { deps } from '@/server/deps';
import { FiringBench } from '@/ui/bench/firing-bench';
import { SubPlaces } from '@/ui/frame/sub-places';
import { PageHead } from '@/ui/primitives/page';
import { keepResultAction } from '../actions';
import { BENCH_PLACES } from '../places';

export default page(async function FiringBenchPage() {
  const actor = await requireActor();
  const view = await viewBench(deps(), actor);
  mustShow(view);
  return (
    <>
      <PageHead title="Firing order and cap">Towers, companions and swapped leads</PageHead>
      <SubPlaces label="Bench" places={BENCH_PLACES} />
      <FiringBench data={view.value} system={actor.unitSystem} keep={keepResultAction} />
    </>
  );
});
