import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { releaseSiteForm } from '@/contracts/forms/work-orders';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadPlaces, loadTasks } from '@/db/queries/work-orders';
import { taskPlaces, workOrders, workTasks } from '@/db/schema';
import { changedSheets } from '../catalogue/current-sheet';
import { loadWhose } from '../catalogue/fitment-of';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { needsRedo } from './order-state';
import { targetOf } from './place-record';

/** Works on by the sheets that are in force now. Places done under the ones before become the list of what is to be redone. */
export const takeOverSheet = useCase({
  permission: 'record work',
  input: z.uuid(),
  async run(deps, actor, workOrderId): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, workOrderId);
      const whose = await loadWhose(tx, order);
      if (!whose) return notFound('vehicle');
      const tasks = await loadTasks(tx, order.id);
      const changes = await changedSheets(tx, actor.fleetId, deps.today(), whose, tasks);
      if (changes.length === 0) return ok(null);
      // All of them or none: what was written before a refusal would stay.
      const lost = changes.find(({ to }) => to === null);
      if (lost) return fail('conflict', lost.changed);
      for (const { taskId, from, to, changed } of changes) {
        await tx.update(workTasks).set({ specSheetId: to }).where(eq(workTasks.id, taskId));
        await writeAudit(tx, actor, {
          action: 'take over sheet',
          entity: 'work-order',
          entityId: order.id,
          changes: { from, to, reason: changed },
        });
      }
      await tx
        .update(workOrders)
        .set({ version: order.version + 1 })
        .where(eq(workOrders.id, order.id));
      return ok(null);
    });
  },
});

/** Lets a place stand that was done under another sheet, with the reason. */
export const releaseSite = useCase({
  permission: 'release sites',
  input: releaseSiteForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, input.workOrderId);
      const tasks = (await loadTasks(tx, order.id)).map((row) => ({ row }));
      const place = (await loadPlaces(tx, order.id)).find((row) => targetOf(row) === input.target);
      if (!place || !needsRedo(place, tasks)) return fail('conflict', `“${input.target}” is not to be redone.`);
      await tx
        .update(taskPlaces)
        .set({ releasedReason: input.reason, releasedBy: actor.personId, version: place.version + 1 })
        .where(and(eq(taskPlaces.id, place.id), eq(taskPlaces.workOrderId, input.workOrderId)));
      await writeAudit(tx, actor, {
        action: 'release',
        entity: 'work-order',
        entityId: input.workOrderId,
        changes: { site: input.target, reason: input.reason },
      });
      return ok(null);
    });
  },
});
