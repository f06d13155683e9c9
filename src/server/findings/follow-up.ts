import { and, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { finishFollowUpForm, followUpForm } from '@/contracts/forms/work-orders';
import type { Km } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { readQuantity } from '@/core/units/read-quantity';
import { writeAudit } from '@/db/queries/audit';
import { loadFollowUps } from '@/db/queries/findings';
import { findActivePerson } from '@/db/queries/people';
import { loadWorkOrder } from '@/db/queries/work-orders';
import { followUps, vehicles } from '@/db/schema';
import { refreshWeekCost } from '../due/refresh-due';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** Puts something down to be done later, with who sees to it and when. */
export const addFollowUp = useCase({
  permission: 'record work',
  input: followUpForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ followUpId: string }>> {
    if (input.dueOn === '' && input.dueAt === '')
      return fail('invalid', 'Say by when.', { dueOn: 'Give a day, or a distance beside it.' });
    if (input.dueOn !== '' && input.dueOn < deps.today())
      return fail('invalid', 'The day has passed.', { dueOn: 'Give today or a day to come.' });
    return deps.db.transaction(async (tx) => {
      const order = await loadWorkOrder(tx, actor.fleetId, input.workOrderId);
      const [vehicle] = order ? await tx.select().from(vehicles).where(eq(vehicles.id, order.vehicleId)) : [];
      if (!order || !vehicle) return notFound('work order');
      const owner = await findActivePerson(tx, actor.fleetId, input.ownerId);
      if (!owner) return notFound('person');
      let dueKm: Km | null = null;
      if (input.dueAt !== '') {
        const read = readQuantity({ kind: 'distance', text: input.dueAt, personUnit: vehicle.odometerUnit });
        if (read.verdict !== 'ok') return fail('invalid', read.message, { dueAt: read.message });
        dueKm = read.valueSi;
      }
      const [row] = await tx
        .insert(followUps)
        .values({
          fleetId: actor.fleetId,
          vehicleId: vehicle.id,
          workOrderId: order.id,
          findingKey: input.findingKey || null,
          what: input.what,
          ownerId: owner.id,
          dueOn: input.dueOn || null,
          dueKm,
          dueKmAsTyped: input.dueAt || null,
          createdBy: actor.personId,
        })
        .returning({ id: followUps.id });
      await writeAudit(tx, actor, {
        action: 'add follow-up',
        entity: 'work-order',
        entityId: order.id,
        changes: { what: input.what, dueOn: input.dueOn, dueAt: input.dueAt },
      });
      await refreshWeekCost(tx, actor.fleetId, deps.today(), vehicle.id);
      return ok({ followUpId: row?.id ?? '' });
    });
  },
});

/** Marks a follow-up done, with what came of it. */
export const finishFollowUp = useCase({
  permission: 'record work',
  input: finishFollowUpForm.schema,
  async run(deps, actor, { followUpId, outcome }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [row] = await tx
        .update(followUps)
        .set({ doneAt: deps.now(), doneBy: actor.personId, outcome })
        .where(and(eq(followUps.fleetId, actor.fleetId), eq(followUps.id, followUpId), isNull(followUps.doneAt)))
        .returning({
          vehicleId: followUps.vehicleId,
          workOrderId: followUps.workOrderId,
          caseId: followUps.misfireCaseId,
          what: followUps.what,
        });
      if (!row) return notFound('open follow-up');
      await writeAudit(tx, actor, {
        action: 'finish follow-up',
        ...(row.workOrderId
          ? { entity: 'work-order' as const, entityId: row.workOrderId }
          : { entity: 'misfire-case' as const, entityId: row.caseId ?? '' }),
        changes: { what: row.what, outcome },
      });
      await refreshWeekCost(tx, actor.fleetId, deps.today(), row.vehicleId);
      return ok(null);
    });
  },
});

/** Follow-ups of the fleet, the open and soonest first; each says whether it is due by day or by distance. */
export const listFollowUps = useCase({
  permission: 'read the fleet',
  input: z.object({ open: z.boolean().optional() }).optional(),
  async run(deps, actor, filter = {}) {
    const rows = await loadFollowUps(deps.db, actor.fleetId, filter);
    return ok(rows.map((row) => ({ ...row, isDue: isDue(row, deps.today()) })));
  },
});

type Row = Awaited<ReturnType<typeof loadFollowUps>>[number];

const isDue = ({ followUp, odometerKm }: Row, today: string): boolean =>
  followUp.doneAt === null &&
  ((followUp.dueOn !== null && followUp.dueOn <= today) ||
    (followUp.dueKm !== null && odometerKm !== null && followUp.dueKm <= odometerKm));

export type FollowUpItem = Extract<Awaited<ReturnType<typeof listFollowUps>>, { ok: true }>['value'][number];
