import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { viewBench } from '@/server/bench/view-bench';
import { deps } from '@/server/deps';
import { SparkBench } from '@/ui/bench/spark-bench';
import { SubPlaces } from '@/ui/frame/sub-places';
import { PageHead } from '@/ui/primitives/page';
import { keepResultAction } from '../actions';
import { BENCH_PLACES } from '../places';

export default page(async function SparkBenchPage() {
  const actor = await requireActor();
  const view = await viewBench(deps(), actor);
  mustShow(view);
  return (
    <>
      <PageHead title="Spark demand">What gap and pressure ask of the coil</PageHead>
      <SubPlaces label="Bench" places={BENCH_PLACES} />
      <SparkBench data={view.value} system={actor.unitSystem} keep={keepResultAction} />
    </>
  );
});
