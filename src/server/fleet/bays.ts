import { and, asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { violation } from '@/db/constraint-error';
import { writeAudit } from '@/db/queries/audit';
import { bays, depots } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

export const bayInput = z.object({ depotId: z.uuid(), name: z.string().trim().min(1, 'Give the bay a name.').max(40) });

export const addBay = useCase({
  permission: 'manage bays',
  input: bayInput,
  async run(deps, actor, input): Promise<Outcome<{ bayId: string }>> {
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
      if (violation(error)?.code === 'unique')
        return fail('invalid', `This depot already has a bay “${input.name}”.`, { name: 'Choose another name.' });
      throw error;
    }
  },
});

export const listBays = useCase({
  permission: 'read the fleet',
  async run({ db }, actor) {
    const rows = await db
      .select({ id: bays.id, name: bays.name, depotId: bays.depotId, depot: depots.name })
      .from(bays)
      .innerJoin(depots, eq(depots.id, bays.depotId))
      .where(eq(bays.fleetId, actor.fleetId))
      .orderBy(asc(depots.name), asc(bays.name));
    return ok(rows);
  },
});

/** Depots of the fleet by name, for pickers. */
export const listDepots = useCase({
  permission: 'read the fleet',
  async run({ db }, actor) {
    const rows = await db
      .select({ id: depots.id, name: depots.name })
      .from(depots)
      .where(eq(depots.fleetId, actor.fleetId))
      .orderBy(asc(depots.name));
    return ok(rows);
  },
});
