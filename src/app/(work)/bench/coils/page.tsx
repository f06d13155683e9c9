import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { deps } from '@/server/deps';
import { viewCosts } from '@/server/due/costs';
import { CoilBench } from '@/ui/bench/coil-bench';
import { SubPlaces } from '@/ui/frame/sub-places';
import { PageHead } from '@/ui/primitives/page';
import { BENCH_PLACES } from '../places';

export default page(async function CoilBenchPage() {
  const costs = await viewCosts(deps(), await requireActor());
  mustShow(costs);
  return (
    <>
      <PageHead title="One coil or all">
        One coil has failed: what it costs to leave the others in, against replacing them while it is open
      </PageHead>
      <SubPlaces label="Bench" places={BENCH_PLACES} />
      <CoilBench currency={costs.value.currency} />
    </>
  );
});
