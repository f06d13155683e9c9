import { z } from 'zod';
import { deps } from '@/server/deps';
import { judgeFinding, verdictInput } from '@/server/findings/judge-finding';
import { viewWorkOrder } from '@/server/work-orders/view-work-order';
import { asActor, inputProblem, problem, readBody, reply } from '../../../http';
import { toFinding } from '../../../resources';
import { verdictBody } from '../../../work-order-resources';

type Props = { params: Promise<{ id: string }> };

/** What the removed parts of an order say, and what people said to that. */
export async function GET(_: Request, { params }: Props): Promise<Response> {
  return asActor(async (actor) => {
    const id = z.uuid().safeParse((await params).id);
    if (!id.success) return problem(404, 'There is no such work order in this fleet.');
    return reply(await viewWorkOrder(deps(), actor, id.data), ({ findings }) => ({ items: findings.map(toFinding) }));
  });
}

/** What a person makes of a finding: both sides are kept. */
export async function POST(request: Request, { params }: Props): Promise<Response> {
  return asActor(async (actor) => {
    const body = await readBody(request, verdictBody);
    if (!body.ok) return body.response;
    const { finding, instead, ...rest } = body.value;
    const input = verdictInput.safeParse({
      ...rest,
      workOrderId: (await params).id,
      findingKey: finding,
      insteadText: instead,
    });
    if (!input.success) return inputProblem(input.error);
    return reply(await judgeFinding(deps(), actor, input.data), () => ({ kept: true }));
  });
}
