import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { workOrderSteps } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { notFound, type Outcome } from '../failure';
import { takeOpenOrder } from './take-order';

export const stepInput = z.object({
  workOrderId: z.uuid(),
  stepId: z.uuid(),
  state: z.enum(['open', 'done', 'not_done']),
});

/** Marks a step done, not done, or open again: three answers, never mixed up. */
export async function markStep(deps: Deps, actor: Actor, input: z.output<typeof stepInput>): Promise<Outcome<null>> {
  const refused = refusal(actor, 'record work');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const taken = await takeOpenOrder(tx, actor, input.workOrderId);
    if (!taken.ok) return taken;
    const order = taken.value;
    const [step] = await tx
      .update(workOrderSteps)
      .set({
        state: input.state,
        saidBy: input.state === 'open' ? null : actor.personId,
        saidAt: input.state === 'open' ? null : deps.now(),
      })
      .where(
        and(
          eq(workOrderSteps.workOrderId, order.id),
          eq(workOrderSteps.id, input.stepId),
          eq(workOrderSteps.perSite, false),
        ),
      )
      .returning({ key: workOrderSteps.key });
    if (!step) return notFound('step');
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'step',
      entity: 'work-order',
      entityId: order.id,
      changes: { step: step.key, state: input.state },
    });
    return ok(null);
  });
}
