import { and, eq } from 'drizzle-orm';
import { ceilingForm } from '@/contracts/forms/due';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { electrodeCeilings } from '@/db/schema';
import { refreshDue } from '../due/refresh-due';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';

/** Sets how far the shop lets plugs of an electrode go, whatever their sheet says; every vehicle is reckoned anew. */
export const setCeiling = useCase({
  permission: 'choose shop policies',
  input: ceilingForm.schema,
  async run(deps, actor, { electrode, km, why }): Promise<Outcome<{ undo: number }>> {
    return deps.db.transaction(async (tx) => {
      const { fleetId } = actor;
      const ceiling = and(eq(electrodeCeilings.fleetId, fleetId), eq(electrodeCeilings.electrode, electrode));
      const [before = null] = await tx
        .select({ km: electrodeCeilings.km, why: electrodeCeilings.why })
        .from(electrodeCeilings)
        .where(ceiling);
      if (km === '') await tx.delete(electrodeCeilings).where(ceiling);
      else
        await tx
          .insert(electrodeCeilings)
          .values({ fleetId, electrode, km, why })
          .onConflictDoUpdate({ target: [electrodeCeilings.fleetId, electrodeCeilings.electrode], set: { km, why } });
      await refreshDue(tx, fleetId, deps.today(), null);
      const undo = await writeAudit(tx, actor, {
        action: km === '' ? 'take back' : 'choose',
        entity: 'electrode-ceiling',
        entityId: electrode,
        changes: { km, why, before },
      });
      return ok({ undo });
    });
  },
});
