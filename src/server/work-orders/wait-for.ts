import { and, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { waitForm } from '@/contracts/forms/work-orders';
import { partKey } from '@/core/catalogue/match';
import { type Layout, siteName } from '@/core/engine/layout';
import { type SiteKey, siteId } from '@/core/engine/model';
import { placeId } from '@/core/engine/places';
import { ok } from '@/core/shared/result';
import type { Stop } from '@/core/work/stop';
import { writeAudit } from '@/db/queries/audit';
import { findActivePerson } from '@/db/queries/people';
import type { WaitRow } from '@/db/queries/work-entries';
import { loadPlaces } from '@/db/queries/work-orders';
import { parts, workOrderWaits, workTimes } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';

/** Says why a job stands still and which part it waits for. Everybody's clock stops; who takes over sees what is open. */
export const waitFor = useCase({
  permission: 'record work',
  input: waitForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      await lockOpenOrder(tx, actor, input.workOrderId);
      const place = input.site === '' ? null : placeCalled(await loadPlaces(tx, input.workOrderId), input.site);
      if (place === undefined) {
        const message = `No task of this order is at ${input.site}. Choose one of its places.`;
        return fail('invalid', message, { site: message });
      }
      const next = input.nextPersonId === '' ? null : await findActivePerson(tx, actor.fleetId, input.nextPersonId);
      if (next === undefined) return notFound('person');
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
        site: place && placeId(place),
        reason: input.reason,
        note: input.note || null,
        nextPersonId: next?.id ?? null,
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
        changes: { reason: input.reason, part: input.partNumber || null, note: input.note || null },
      });
      return ok(null);
    });
  },
});

/** A place by what screens call it; undefined: none is called so. A cylinder with one plug is called by its number alone. */
function placeCalled<P extends SiteKey>(places: readonly P[], name: string): P | undefined {
  const asked = name.toUpperCase();
  const exact = places.find((place) => placeId(place) === asked);
  const ofCylinder = places.filter((place) => String(place.cylinder) === asked);
  return exact ?? (new Set(ofCylinder.map(placeId)).size === 1 ? ofCylinder[0] : undefined);
}

/** Why a job stands, as screens show it. @param layout names its place */
export const stopOf = ({ wait, who, next }: WaitRow, layout: Layout): Stop => {
  const place = layout.sites.find((site) => siteId(site) === wait.site);
  return {
    id: wait.id,
    reason: wait.reason,
    by: who,
    at: wait.saidAt.toISOString(),
    note: wait.note,
    next,
    place: place ? siteName(layout, place) : wait.site,
    part: wait.partNumber && `${wait.quantity} × ${wait.partNumber}`,
  };
};

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
