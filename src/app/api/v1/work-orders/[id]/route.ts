import { deps } from '@/server/deps';
import { viewWorkOrder } from '@/server/work-orders/view-work-order';
import { toWorkOrderWhole } from '../../answers';
import { reply, route } from '../../http';

/** One work order with its sites, steps and counts. */
export const GET = route<{ id: string }>(async ({ actor, params: { id } }) =>
  reply(await viewWorkOrder(deps(), actor, id), toWorkOrderWhole),
);
