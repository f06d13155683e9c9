import { requireActor } from '@/app/actor';
import { NotShown } from '@/app/not-shown';
import { viewBench } from '@/server/bench/view-bench';
import { deps } from '@/server/deps';
import { SparkBench } from '@/ui/bench/spark-bench';
import { PageHead } from '@/ui/primitives/page';
import { SubNav } from '@/ui/primitives/sub-nav';
import { keepResultAction } from '../actions';
import { BENCH_PLACES } from '../places';

export const metadata = { title: 'Bench: spark demand' };

export default async function SparkBenchPage() {
  const actor = await requireActor();
  const view = await viewBench(deps(), actor);
  if (!view.ok) return <NotShown error={view.error} />;
  return (
    <>
      <PageHead title="Spark demand">What gap and pressure ask of the coil</PageHead>
      <SubNav label="Bench" places={BENCH_PLACES} />
      <SparkBench data={view.value} system={actor.unitSystem} keep={keepResultAction} />
    </>
  );
}
