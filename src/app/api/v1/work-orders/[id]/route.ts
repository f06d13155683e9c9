import { z } from 'zod';
import { deps } from '@/server/deps';
import { viewWorkOrder } from '@/server/work-orders/view-work-order';
import { asActor, problem, reply } from '../../http';
import { toWorkOrderWhole } from '../../work-order-resources';

type Props = { params: Promise<{ id: string }> };

/** One work order with its sites, steps and counts. */
export async function GET(_: Request, { params }: Props): Promise<Response> {
  return asActor(async (actor) => {
    const id = z.uuid().safeParse((await params).id);
    if (!id.success) return problem(404, 'There is no such work order in this fleet.');
    return reply(await viewWorkOrder(deps(), actor, id.data), toWorkOrderWhole);
  });
}
