import { and, desc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { loadFamilies } from '@/db/queries/catalogue';
import { vehicles, workOrderCodes } from '@/db/schema';
import { readCodes } from '@/simulators/code-reader';
import type { Actor } from '../access';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';

const CODE = /^[PBCU][0-3][0-9A-F]{3}$/;

export const codesInput = z.object({
  workOrderId: z.uuid(),
  moment: z.enum(['before', 'after']),
  /** Typed by hand, parted by spaces; "none" where nothing is stored; empty: ask the reader. */
  typed: z.string().trim().max(300).default(''),
});

/** Reads the codes with the stand-in, or takes those typed by hand, and keeps them with the order. */
export const keepCodes = useCase({
  permission: 'record work',
  input: codesInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    const typed = input.typed
      .toUpperCase()
      .split(/[\s,;]+/)
      .filter((word) => word !== '' && word !== 'NONE');
    const wrong = typed.find((word) => !CODE.test(word));
    if (wrong) {
      const message = `“${wrong}” is no fault code: a letter P, B, C or U and four characters, as P0301.`;
      return fail('invalid', message, { typed: message });
    }
    return deps.db.transaction(async (tx) => {
      const locked = await lockOpenOrder(tx, actor, input.workOrderId);
      if (!locked.ok) return locked;
      const byHand = input.typed !== '';
      const codes = byHand
        ? typed.map((code) => ({ code, freeze: {} }))
        : await askReader(tx, actor, locked.value.vehicleId, input.moment === 'after');
      if (!codes) return notFound('vehicle');
      await tx.insert(workOrderCodes).values({
        fleetId: actor.fleetId,
        workOrderId: input.workOrderId,
        moment: input.moment,
        codes,
        source: byHand ? 'typed' : 'code reader, stand-in',
        readBy: actor.personId,
        readAt: deps.now(),
      });
      await writeAudit(tx, {
        fleetId: actor.fleetId,
        personId: actor.personId,
        action: 'codes',
        entity: 'work-order',
        entityId: input.workOrderId,
        changes: { moment: input.moment, what: codes.map(({ code }) => code).join(' ') || 'none' },
      });
      return ok(null);
    });
  },
});

async function askReader(tx: Tx, actor: Actor, vehicleId: string, after: boolean) {
  const [vehicle] = await tx.select().from(vehicles).where(eq(vehicles.id, vehicleId));
  const family = (await loadFamilies(tx, actor.fleetId)).find(({ id }) => id === vehicle?.engineFamilyId);
  return vehicle && family ? readCodes(vehicle.unitNumber, family.model.firingOrder.length, after) : null;
}

/** Clears what was read last. Nothing is cleared that was not kept first. */
export const clearCodes = useCase({
  permission: 'record work',
  input: z.uuid(),
  async run(deps, actor, workOrderId): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const locked = await lockOpenOrder(tx, actor, workOrderId);
      if (!locked.ok) return locked;
      const [last] = await tx
        .select({ id: workOrderCodes.id })
        .from(workOrderCodes)
        .where(and(eq(workOrderCodes.workOrderId, workOrderId), isNull(workOrderCodes.clearedAt)))
        .orderBy(desc(workOrderCodes.readAt))
        .limit(1);
      if (!last) return fail('conflict', 'Read and keep the codes first: what is cleared unread is lost.');
      await tx.update(workOrderCodes).set({ clearedAt: deps.now() }).where(eq(workOrderCodes.id, last.id));
      await writeAudit(tx, {
        fleetId: actor.fleetId,
        personId: actor.personId,
        action: 'clear codes',
        entity: 'work-order',
        entityId: workOrderId,
        changes: {},
      });
      return ok(null);
    });
  },
});
