import { deps } from '@/server/deps';
import { closeInput, closeWorkOrder } from '@/server/work-orders/close-work-order';
import { asActor, inputProblem, readBody, reply } from '../../../http';
import { closeBody } from '../../../work-order-resources';

type Props = { params: Promise<{ id: string }> };

/** Verifies and closes a work order: the reading, the plugs and the next due date move together. */
export async function POST(request: Request, { params }: Props): Promise<Response> {
  return asActor(async (actor) => {
    const body = await readBody(request, closeBody);
    if (!body.ok) return body.response;
    const input = closeInput.safeParse({ workOrderId: (await params).id, ...body.value });
    if (!input.success) return inputProblem(input.error);
    return reply(await closeWorkOrder(deps(), actor, input.data), () => ({ closed: true }));
  });
}
