import { z } from 'zod';
import { deps } from '@/server/deps';
import { viewFloor } from '@/server/work-orders/view-job';
import { asActor, problem, reply } from '../../../http';

type Props = { params: Promise<{ id: string }> };

/** An order as a device at the vehicle carries it. */
export async function GET(_: Request, { params }: Props): Promise<Response> {
  return asActor(async (actor) => {
    const id = z.uuid().safeParse((await params).id);
    if (!id.success) return problem(404, 'There is no such work order in this fleet.');
    return reply(await viewFloor(deps(), actor, id.data), (job) => ({ job }));
  });
}
