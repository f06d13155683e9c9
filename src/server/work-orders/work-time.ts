import { and, eq, isNull } from 'drizzle-orm';
import { workTimeInput } from '@/contracts/order-entry';
import { ok } from '@/core/shared/result';
import { workTimes } from '@/db/schema';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';

/** Says that a person begins, or stops, to work at an order. Said twice it changes nothing. */
export const setWorking = useCase({
  permission: 'record work',
  input: workTimeInput,
  async run(deps, actor, { workOrderId, working }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      await lockOpenOrder(tx, actor, workOrderId);
      const mine = and(
        eq(workTimes.workOrderId, workOrderId),
        eq(workTimes.personId, actor.personId),
        isNull(workTimes.toAt),
      );
      const [open] = await tx.select({ id: workTimes.id }).from(workTimes).where(mine);
      if (working && !open)
        await tx
          .insert(workTimes)
          .values({ fleetId: actor.fleetId, workOrderId, personId: actor.personId, fromAt: deps.now() });
      if (!working) await tx.update(workTimes).set({ toAt: deps.now() }).where(mine);
      return ok(null);
    });
  },
});

/** Hours of all people together, as bay time is estimated for one: minutes. A span that is open runs until now. */
export const minutesWorked = (
  spans: readonly { readonly fromAt: Date; readonly toAt: Date | null }[],
  now: Date,
): number =>
  Math.round(spans.reduce((sum, { fromAt, toAt }) => sum + ((toAt ?? now).getTime() - fromAt.getTime()), 0) / 60_000);
