import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { deps } from '@/server/deps';
import { viewFloor } from '@/server/work-orders/view-job';
import { ButtonLink } from '@/ui/primitives/links';
import { Empty } from '@/ui/primitives/page';
import { FloorWithWrench } from './floor-with-wrench';

type Props = { params: Promise<{ id: string }> };

export default page(async function FloorPage({ params }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const job = await viewFloor(deps(), actor, id);
  mustShow(job);
  if (!job.value.live)
    return (
      <Empty>
        This work order is not open for you to record on. What was recorded stands on its page.{' '}
        <ButtonLink href={`/work-orders/${id}`}>Work order {job.value.orderNumber}</ButtonLink>
      </Empty>
    );
  return <FloorWithWrench first={job.value} />;
});
