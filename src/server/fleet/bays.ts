import { and, asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { bayForm, depotForm } from '@/contracts/forms/people';
import { weekFromText } from '@/core/planning/presence';
import type { BayId, DepotId, FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { violation } from '@/db/constraint-error';
import { writeAudit } from '@/db/queries/audit';
import { depotHours, loadWays } from '@/db/queries/depots';
import { bays, bookings, depots, depotWays } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

export const addBay = useCase({
  permission: 'manage bays',
  input: bayForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ bayId: BayId }>> {
    try {
      return await deps.db.transaction(async (tx) => {
        const [depot] = await tx
          .select()
          .from(depots)
          .where(and(eq(depots.fleetId, actor.fleetId), eq(depots.id, input.depotId)));
        if (!depot) return notFound('depot');
        const [bay] = await tx
          .insert(bays)
          .values({ fleetId: actor.fleetId, ...input })
          .returning();
        if (!bay) throw new Error('the bay was not written');
        await writeAudit(tx, actor, {
          action: 'create',
          entity: 'bay',
          entityId: bay.id,
          changes: { depot: depot.name, name: input.name },
        });
        return ok({ bayId: bay.id });
      });
    } catch (error) {
      return orTaken(error, input.name);
    }
  },
});

/** A name that another bay of the depot has. @throws any other error */
function orTaken(error: unknown, name: string) {
  if (violation(error)?.code !== 'unique') throw error;
  return fail('invalid', `This depot already has a bay “${name}”.`, { name: 'Choose another name.' });
}

const WORD = z.string().trim().toLowerCase().min(1).max(40);

/** Words in a list as a person types them: "hybrid, lift". */
export const wordsText = z
  .string()
  .max(400)
  .transform((text) => [
    ...new Set(
      text
        .split(/[,;|]/)
        .map((word) => word.trim())
        .filter(Boolean),
    ),
  ])
  .pipe(z.array(WORD).max(20));

/** Hours by weekday as a person types them; empty: as usual. */
export const hoursText = z
  .string()
  .trim()
  .max(300)
  .refine(
    (text) => text === '' || weekFromText(text) !== null,
    'Write it like Mon Tue Wed Thu 08:00-16:00, Fri 08:00-12:00.',
  )
  .transform((text) => (text === '' ? null : weekFromText(text)));

/** Changes the name of a bay, what it takes, and its own hours: what is booked in it stays booked in it. */
export const changeBay = useCase({
  permission: 'manage bays',
  input: bayForm.schema
    .pick({ name: true })
    .extend({ bayId: z.uuid(), can: wordsText.optional(), hours: hoursText.optional() }),
  async run(deps, actor, { bayId, name, can, hours }): Promise<Outcome<null>> {
    try {
      return await deps.db.transaction(async (tx) => {
        const bay = await lockBay(tx, actor.fleetId, bayId);
        if (!bay) return notFound('bay');
        const values = { name, can: can ?? bay.can, hours: hours === undefined ? bay.hours : hours };
        await tx
          .update(bays)
          .set({ ...values, version: bay.version + 1 })
          .where(eq(bays.id, bay.id));
        await writeAudit(tx, actor, {
          action: 'change',
          entity: 'bay',
          entityId: bayId,
          changes: { from: { name: bay.name, can: bay.can, hours: bay.hours }, to: values },
        });
        return ok(null);
      });
    } catch (error) {
      return orTaken(error, name);
    }
  },
});

/** Takes a bay away that nothing was ever booked in, or whose bookings have been moved. */
export const removeBay = useCase({
  permission: 'manage bays',
  input: z.object({ bayId: z.uuid() }),
  async run(deps, actor, { bayId }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const bay = await lockBay(tx, actor.fleetId, bayId);
      if (!bay) return notFound('bay');
      const booked = await tx.$count(bookings, eq(bookings.bayId, bay.id));
      if (booked > 0)
        return fail(
          'conflict',
          `${bay.name} has ${booked === 1 ? 'a booking' : `${booked} bookings`}. Plan ${booked === 1 ? 'it' : 'them'} into another bay first.`,
        );
      await tx.delete(bays).where(eq(bays.id, bay.id));
      await writeAudit(tx, actor, { action: 'remove', entity: 'bay', entityId: bayId, changes: { name: bay.name } });
      return ok(null);
    });
  },
});

async function lockBay(tx: Tx, fleetId: FleetId, bayId: string) {
  const [bay] = await tx
    .select()
    .from(bays)
    .where(and(eq(bays.fleetId, fleetId), eq(bays.id, bayId)))
    .for('update');
  return bay;
}

export const listBays = useCase({
  permission: 'read the fleet',
  async run({ db }, actor) {
    const rows = await db
      .select({
        id: bays.id,
        name: bays.name,
        depotId: bays.depotId,
        depot: depots.name,
        hours: depotHours,
        can: bays.can,
        ownHours: bays.hours,
        version: bays.version,
      })
      .from(bays)
      .innerJoin(depots, eq(depots.id, bays.depotId))
      .where(eq(bays.fleetId, actor.fleetId))
      .orderBy(asc(depots.name), asc(bays.name));
    return ok(rows);
  },
});

/** When and by which clock a depot works. Bookings that stand stay where they are. */
export const changeDepot = useCase({
  permission: 'manage bays',
  input: depotForm.schema,
  async run(deps, actor, { depotId, ...input }): Promise<Outcome<null>> {
    const { timeZone, workingDays, opens, closes, deliveryDays, deliveryFrom, ways } = input;
    return deps.db.transaction(async (tx) => {
      const values = {
        timeZone,
        workingDays: [...new Set(workingDays)].sort(),
        opensMin: opens,
        closesMin: closes,
        deliveryDays: [...new Set(deliveryDays)].sort(),
        deliveryFromMin: deliveryFrom,
      };
      const [depot] = await tx
        .update(depots)
        .set(values)
        .where(and(eq(depots.fleetId, actor.fleetId), eq(depots.id, depotId)))
        .returning();
      if (!depot) return notFound('depot');
      const all = await tx.select({ id: depots.id }).from(depots).where(eq(depots.fleetId, actor.fleetId));
      const named = Object.entries(ways).filter(([id]) => id !== depotId && all.some((depot) => depot.id === id));
      for (const [otherId, minutes] of named) await keepWay(tx, actor.fleetId, [depot.id, otherId as DepotId], minutes);
      await writeAudit(tx, actor, {
        action: 'change',
        entity: 'depot',
        entityId: depotId,
        changes: { ...values, ways: Object.fromEntries(named) },
      });
      return ok(null);
    });
  },
});

async function keepWay(tx: Tx, fleetId: FleetId, ends: readonly DepotId[], minutes: number): Promise<void> {
  const [depotId, otherId] = [...ends].sort();
  if (depotId === undefined || otherId === undefined) return;
  await tx
    .insert(depotWays)
    .values({ fleetId, depotId, otherId, minutes })
    .onConflictDoUpdate({ target: [depotWays.depotId, depotWays.otherId], set: { minutes } });
}

/** Depots of the fleet by name, with when they work. */
export const listDepots = useCase({
  permission: 'read the fleet',
  async run({ db }, actor) {
    const rows = await db
      .select({
        id: depots.id,
        name: depots.name,
        timeZone: depots.timeZone,
        hours: depotHours,
        deliveryDays: depots.deliveryDays,
        deliveryFromMin: depots.deliveryFromMin,
      })
      .from(depots)
      .where(eq(depots.fleetId, actor.fleetId))
      .orderBy(asc(depots.name));
    return ok(rows);
  },
});

/** How far each depot is from each other, minutes. */
export const listWays = useCase({
  permission: 'read the fleet',
  async run({ db }, actor) {
    const rows = await db
      .select({ id: depots.id, name: depots.name })
      .from(depots)
      .where(eq(depots.fleetId, actor.fleetId))
      .orderBy(asc(depots.name));
    const way = await loadWays(db, actor.fleetId);
    return ok(
      rows.flatMap((from) =>
        rows.flatMap((to) =>
          from === to ? [] : [{ from: from.id, to: to.id, name: to.name, minutes: way(from.id, to.id) }],
        ),
      ),
    );
  },
});
