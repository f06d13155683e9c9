import { and, desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { keepResultForm } from '@/contracts/forms/parts';
import type { WorkOrderId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { benchResults, people, workOrders } from '@/db/schema';
import { fail, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** Keeps a result of the bench, with a work order or by itself. */
export const keepResult = useCase({
  permission: 'keep bench results',
  input: keepResultForm.schema,
  async run(deps, actor, { workOrderNumber, ...kept }): Promise<Outcome<{ readonly workOrderId: WorkOrderId | null }>> {
    return deps.db.transaction(async (tx) => {
      const [order] =
        workOrderNumber === ''
          ? []
          : await tx
              .select({ id: workOrders.id })
              .from(workOrders)
              .where(and(eq(workOrders.fleetId, actor.fleetId), eq(workOrders.number, Number(workOrderNumber))));
      if (workOrderNumber !== '' && !order)
        return fail('invalid', `There is no work order ${workOrderNumber}.`, {
          workOrderNumber: 'See the list of work orders.',
        });
      const workOrderId = order?.id ?? null;
      const [row] = await tx
        .insert(benchResults)
        .values({ fleetId: actor.fleetId, ...kept, workOrderId, keptBy: actor.personId, keptAt: deps.now() })
        .returning({ id: benchResults.id });
      await writeAudit(tx, actor, {
        action: 'keep',
        entity: 'bench-result',
        entityId: row?.id ?? '',
        changes: { tool: kept.tool, summary: kept.summary, workOrder: workOrderNumber },
      });
      return ok({ workOrderId });
    });
  },
});

/** Kept results, the newest first; those of one order, or all. */
export const listKept = useCase({
  permission: 'read the fleet',
  input: z.uuid().optional(),
  async run(deps, actor, workOrderId) {
    const rows = await deps.db
      .select({ kept: benchResults, who: people.name, orderNumber: workOrders.number })
      .from(benchResults)
      .leftJoin(people, eq(people.id, benchResults.keptBy))
      .leftJoin(workOrders, eq(workOrders.id, benchResults.workOrderId))
      .where(
        and(
          eq(benchResults.fleetId, actor.fleetId),
          workOrderId === undefined ? undefined : eq(benchResults.workOrderId, workOrderId),
        ),
      )
      .orderBy(desc(benchResults.keptAt))
      .limit(50);
    return ok(rows);
  },
});
