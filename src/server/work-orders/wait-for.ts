import { and, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { partKey } from '@/core/catalogue/match';
import { placeId } from '@/core/engine/places';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadPlaces } from '@/db/queries/work-orders';
import { parts, workOrderWaits, workTimes } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';

export const waitInput = z.object({
  workOrderId: z.uuid(),
  reason: z.string().trim().min(3, 'Say in a few words why it stops.').max(200),
  site: z.string().trim().max(4).default(''),
  partNumber: z.string().trim().max(40).default(''),
  partWhat: z.string().trim().max(80).default(''),
  quantity: z.coerce.number().int('A whole number.').min(1, 'At least 1.').max(100).default(1),
});

/** Says why a job stands still and which part it waits for. Everybody's clock stops; who takes over sees what is open. */
export const waitFor = useCase({
  permission: 'record work',
  input: waitInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      await lockOpenOrder(tx, actor, input.workOrderId);
      const places = await loadPlaces(tx, input.workOrderId);
      if (input.site !== '' && !places.some((place) => placeId(place) === input.site.toUpperCase())) {
        const message = `This engine has no site ${input.site}. Write it as 3A.`;
        return fail('invalid', message, { site: message });
      }
      const [known] = input.partNumber
        ? await tx
            .select({ number: parts.number })
            .from(parts)
            .where(and(eq(parts.fleetId, actor.fleetId), eq(parts.numberKey, partKey(input.partNumber))))
        : [];
      if (input.partNumber && !known && input.partWhat === '') {
        const message = 'The catalogue does not know this number. Say what the part is, so that it can be ordered.';
        return fail('invalid', message, { partWhat: message });
      }
      await tx.insert(workOrderWaits).values({
        fleetId: actor.fleetId,
        workOrderId: input.workOrderId,
        site: input.site === '' ? null : input.site.toUpperCase(),
        reason: input.reason,
        partNumber: input.partNumber === '' ? null : (known?.number ?? input.partNumber),
        partWhat: input.partWhat || null,
        quantity: input.partNumber === '' ? null : input.quantity,
        saidBy: actor.personId,
        saidAt: deps.now(),
      });
      await tx
        .update(workTimes)
        .set({ toAt: deps.now() })
        .where(and(eq(workTimes.workOrderId, input.workOrderId), isNull(workTimes.toAt)));
      await writeAudit(tx, actor, {
        action: 'wait',
        entity: 'work-order',
        entityId: input.workOrderId,
        changes: { reason: input.reason, part: input.partNumber || null },
      });
      return ok(null);
    });
  },
});

/** The part is there, or the night is over: the job goes on. */
export const endWait = useCase({
  permission: 'record work',
  input: z.object({ workOrderId: z.uuid(), waitId: z.uuid() }),
  async run(deps, actor, { workOrderId, waitId: id }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      await lockOpenOrder(tx, actor, workOrderId);
      const [ended] = await tx
        .update(workOrderWaits)
        .set({ endedAt: deps.now() })
        .where(
          and(eq(workOrderWaits.workOrderId, workOrderId), eq(workOrderWaits.id, id), isNull(workOrderWaits.endedAt)),
        )
        .returning({ reason: workOrderWaits.reason });
      if (!ended) return notFound('wait');
      await writeAudit(tx, actor, {
        action: 'go on',
        entity: 'work-order',
        entityId: workOrderId,
        changes: { reason: ended.reason },
      });
      return ok(null);
    });
  },
});
