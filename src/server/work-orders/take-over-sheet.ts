import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { siteId } from '@/core/engine/model';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadSites } from '@/db/queries/work-orders';
import { workOrderSites, workOrders } from '@/db/schema';
import { currentSheet } from '../catalogue/current-sheet';
import { fail, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { needsRedo } from './view-job';

/** Works on by the sheet that is in force now. Sites done under the one before become the list of what is to be redone. */
export const takeOverSheet = useCase({
  permission: 'record work',
  input: z.uuid(),
  async run(deps, actor, workOrderId): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, workOrderId);
      const now = await currentSheet(tx, actor.fleetId, deps.today(), order);
      if (!now) return ok(null);
      if (now.specSheetId === null) return fail('conflict', now.changed);
      await tx
        .update(workOrders)
        .set({ specSheetId: now.specSheetId, version: order.version + 1 })
        .where(eq(workOrders.id, order.id));
      await writeAudit(tx, actor, {
        action: 'take over sheet',
        entity: 'work-order',
        entityId: order.id,
        changes: { from: order.specSheetId, to: now.specSheetId, reason: now.changed },
      });
      return ok(null);
    });
  },
});

export const releaseSiteInput = z.object({
  workOrderId: z.uuid(),
  site: z.string().trim().max(4),
  reason: z.string().trim().min(3, 'Say why it may stay as it is.').max(300),
});

/** Lets a site stand that was done under another sheet, with the reason. */
export const releaseSite = useCase({
  permission: 'release sites',
  input: releaseSiteInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, input.workOrderId);
      const site = (await loadSites(tx, input.workOrderId)).find((row) => siteId(row) === input.site);
      if (!site || !needsRedo(site, order)) return fail('conflict', `Site ${input.site} is not to be redone.`);
      await tx
        .update(workOrderSites)
        .set({ releasedReason: input.reason, releasedBy: actor.personId, version: site.version + 1 })
        .where(and(eq(workOrderSites.id, site.id), eq(workOrderSites.workOrderId, input.workOrderId)));
      await writeAudit(tx, actor, {
        action: 'release',
        entity: 'work-order',
        entityId: input.workOrderId,
        changes: { site: input.site, reason: input.reason },
      });
      return ok(null);
    });
  },
});
