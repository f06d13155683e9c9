import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { stepOf } from '@/core/work/procedure/step';
import { writeAudit } from '@/db/queries/audit';
import { workOrders } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { loadFloorState } from './order-state';
import { syncProcedure } from './sync-procedure';
import { wayOf } from './way-of';

/** Chooses which of two ways is taken to the plugs of this visit: its steps and minutes follow. */
export const chooseWay = useCase({
  permission: 'record work',
  input: z.object({
    workOrderId: z.uuid(),
    /** Key of the usual item, and of the one that is done. */
    usual: z.string().max(60),
    taken: z.string().max(60),
  }),
  async run(deps, actor, { workOrderId, usual, taken }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx): Promise<Outcome<null>> => {
      const order = await lockOpenOrder(tx, actor, workOrderId);
      const state = await loadFloorState(tx, order, deps.today());
      const choice = state && wayOf(state).choices.find((candidate) => candidate.usual.key === usual);
      if (!state || !choice) return notFound('choice of ways');
      if (![choice.usual, ...choice.others].some(({ key }) => key === taken))
        return fail('invalid', 'There is no such way here.', { taken: 'Choose one of the ways shown.' });
      const begun = state.steps.find((step) => step.key === stepOf('open', choice.taken) && step.state === 'done');
      if (begun && taken !== choice.taken)
        return fail('conflict', `“${begun.title}” is done already: the way back is the same.`);
      const ways = { ...order.ways, [usual]: taken };
      await tx.update(workOrders).set({ ways }).where(eq(workOrders.id, order.id));
      await syncProcedure(tx, { ...state, order: { ...order, ways } }, { reopen: false });
      await writeAudit(tx, actor, {
        action: 'choose way',
        entity: 'work-order',
        entityId: order.id,
        changes: { way: taken.replaceAll('_', ' ') },
      });
      return ok(null);
    });
  },
});
