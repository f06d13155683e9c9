import { and, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { workOrders, workTimes } from '@/db/schema';
import { sheetChange } from '../catalogue/current-sheet';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { missingOf } from './missing-of';
import { loadFloorState } from './order-state';

/** The person who did the work says that it is done, and signs with their name. A supervisor verifies and closes. */
export const handOver = useCase({
  permission: 'record work',
  input: z.uuid(),
  async run(deps, actor, workOrderId): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, workOrderId);
      const state = await loadFloorState(tx, order, deps.today());
      if (!state) return notFound('work order');
      const tasks = state.tasks.map(({ row }) => row);
      const sheet = await sheetChange(tx, actor.fleetId, deps.today(), state, tasks);
      // A finding that stops the work is for the supervisor, who sees it next: here none is asked.
      const missing = await missingOf(tx, state, [], sheet);
      if (missing.length > 0)
        return fail('conflict', `This order is not done yet. ${missing.map(({ says }) => says).join(' ')}`);
      await tx
        .update(workTimes)
        .set({ toAt: deps.now() })
        .where(and(eq(workTimes.workOrderId, workOrderId), isNull(workTimes.toAt)));
      await tx
        .update(workOrders)
        .set({ handedOverBy: actor.personId, handedOverAt: deps.now(), version: order.version + 1 })
        .where(eq(workOrders.id, workOrderId));
      await writeAudit(tx, actor, { action: 'hand over', entity: 'work-order', entityId: workOrderId, changes: {} });
      return ok(null);
    });
  },
});
