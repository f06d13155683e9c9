import { and, desc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { codesInput } from '@/contracts/order-entry';
import type { VehicleId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { loadFamilies } from '@/db/queries/catalogue';
import { vehicles, workOrderCodes } from '@/db/schema';
import type { Actor } from '../access';
import { fail, notFound, type Outcome } from '../failure';
import { portsOf } from '../ports/ports';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';

const CODE = /^[PBCU][0-3][0-9A-F]{3}$/;

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
      const order = await lockOpenOrder(tx, actor, input.workOrderId);
      const byHand = input.typed !== '';
      const read = byHand
        ? ok({ codes: typed.map((code) => ({ code, freeze: {} })), source: 'typed' })
        : await askReader(tx, actor, order.vehicleId, input.moment === 'after');
      if (!read.ok) return read;
      const { codes, source } = read.value;
      await tx.insert(workOrderCodes).values({
        fleetId: actor.fleetId,
        workOrderId: input.workOrderId,
        moment: input.moment,
        codes: [...codes],
        source,
        readBy: actor.personId,
        readAt: deps.now(),
      });
      await writeAudit(tx, actor, {
        action: 'codes',
        entity: 'work-order',
        entityId: input.workOrderId,
        changes: { moment: input.moment, what: codes.map(({ code }) => code).join(' ') || 'none' },
      });
      return ok(null);
    });
  },
});

async function askReader(tx: Tx, actor: Actor, vehicleId: VehicleId, after: boolean) {
  const [vehicle] = await tx.select().from(vehicles).where(eq(vehicles.id, vehicleId));
  const [family] = vehicle ? await loadFamilies(tx, actor.fleetId, [vehicle.engineFamilyId]) : [];
  if (!vehicle || !family) return notFound('vehicle');
  const { codeReader } = await portsOf(tx, actor.fleetId);
  if (!codeReader) {
    const message = 'No code reader is connected. Read the codes with your own and type them.';
    return fail('conflict', message, { typed: message });
  }
  const { unitNumber } = vehicle;
  const codes = codeReader.read({ unitNumber, cylinders: family.model.firingOrder.length, after });
  return ok({ codes, source: codeReader.name });
}

/** Clears what was read last. Nothing is cleared that was not kept first. */
export const clearCodes = useCase({
  permission: 'record work',
  input: z.uuid(),
  async run(deps, actor, workOrderId): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      await lockOpenOrder(tx, actor, workOrderId);
      const [last] = await tx
        .select({ id: workOrderCodes.id })
        .from(workOrderCodes)
        .where(and(eq(workOrderCodes.workOrderId, workOrderId), isNull(workOrderCodes.clearedAt)))
        .orderBy(desc(workOrderCodes.readAt))
        .limit(1);
      if (!last) return fail('conflict', 'Read and keep the codes first: what is cleared unread is lost.');
      await tx.update(workOrderCodes).set({ clearedAt: deps.now() }).where(eq(workOrderCodes.id, last.id));
      await writeAudit(tx, actor, { action: 'clear codes', entity: 'work-order', entityId: workOrderId, changes: {} });
      return ok(null);
    });
  },
});
