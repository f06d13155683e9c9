import { verdictBody } from '@/contracts/http/work-orders';
import { deps } from '@/server/deps';
import { judgeFinding } from '@/server/findings/judge-finding';
import { viewWorkOrder } from '@/server/work-orders/view-work-order';
import { toFinding } from '../../../answers';
import { readBody, reply, route } from '../../../http';

/** What the removed parts of an order say, and what people said to that. */
export const GET = route<{ id: string }>(async ({ actor, params: { id } }) =>
  reply(await viewWorkOrder(deps(), actor, id), ({ findings }) => ({ items: findings.map(toFinding) })),
);

/** What a person makes of a finding: both sides are kept. */
export const POST = route<{ id: string }>(async ({ request, actor, params: { id }, once }) => {
  const body = await readBody(request, verdictBody);
  if (!body.ok) return body.response;
  const { finding: findingKey, instead: insteadText, ...rest } = body.value;
  const done = await once(body.text, (within) =>
    judgeFinding(within, actor, { ...rest, workOrderId: id, findingKey, insteadText }),
  );
  return reply(done, () => ({ kept: true }));
});
