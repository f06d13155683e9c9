import { deps } from '@/server/deps';
import { viewFloor } from '@/server/work-orders/view-job';
import { setWorking, workTimeInput } from '@/server/work-orders/work-time';
import { asActor, inputProblem, readBody, reply } from '../../../http';

type Props = { params: Promise<{ id: string }> };

/** Says that the person who asks begins or stops to work at the order. */
export async function POST(request: Request, { params }: Props): Promise<Response> {
  return asActor(async (actor) => {
    const body = await readBody(request, workTimeInput.omit({ workOrderId: true }));
    if (!body.ok) return body.response;
    const input = workTimeInput.safeParse({ ...body.value, workOrderId: (await params).id });
    if (!input.success) return inputProblem(input.error);
    const set = await setWorking(deps(), actor, input.data);
    if (!set.ok) return reply(set);
    return reply(await viewFloor(deps(), actor, input.data.workOrderId), (job) => ({ job }));
  });
}
