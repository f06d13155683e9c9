import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { viewBench } from '@/server/bench/view-bench';
import { deps } from '@/server/deps';
import { TorqueBench } from '@/ui/bench/torque-bench';
import { SubPlaces } from '@/ui/frame/sub-places';
import { PageHead } from '@/ui/primitives/page';
import { keepResultAction } from '../actions';
import { BENCH_PLACES } from '../places';

export default page(async function TorqueBenchPage() {
  const actor = await requireActor();
  const view = await viewBench(deps(), actor);
  mustShow(view);
  return (
    <>
      <PageHead title="Torque">From the dry spec to the figure on this wrench</PageHead>
      <SubPlaces label="Bench" places={BENCH_PLACES} />
      <TorqueBench data={view.value} system={actor.unitSystem} keep={keepResultAction} />
    </>
  );
});
