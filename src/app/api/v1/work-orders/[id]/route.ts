import { deps } from '@/server/deps';
import { viewWorkOrder } from '@/server/work-orders/view-work-order';
import { reply, route } from '../../http';
import { toWorkOrderWhole } from '../../work-order-resources';

/** One work order with its sites, steps and counts. */
export const GET = route<{ id: string }>(async ({ actor, params: { id } }) =>
  reply(await viewWorkOrder(deps(), actor, id), toWorkOrderWhole),
);
