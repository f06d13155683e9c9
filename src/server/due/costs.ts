import { eq } from 'drizzle-orm';
import type { z } from 'zod';
import { costsForm } from '@/contracts/forms/due';
import type { FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Querier } from '@/db/client';
import { lockFleet } from '@/db/locks';
import { writeAudit } from '@/db/queries/audit';
import { dutyCosts, fleets } from '@/db/schema';
import { fail, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { updateDueStatus } from './due-status';

type CostsInput = z.output<typeof costsForm.schema>;

export async function loadCosts(q: Querier, fleetId: FleetId): Promise<CostsInput> {
  const [fleet] = await q.select().from(fleets).where(eq(fleets.id, fleetId));
  const groups = await q.select().from(dutyCosts).where(eq(dutyCosts.fleetId, fleetId));
  return {
    currency: fleet?.currency ?? 'EUR',
    failureCost: fleet?.failureCost ?? 0,
    wearCostPerPercent: fleet?.wearCostPerPercent ?? 0,
    labourPerHour: fleet?.labourPerHour ?? 0,
    downtimePerVisit: fleet?.downtimePerVisit ?? 0,
    hourCost: fleet?.hourCost ?? 0,
    moveCost: fleet?.moveCost ?? 0,
    breakMinutes: fleet?.breakMinutes ?? 0,
    bayPercent: (fleet?.bayShare ?? 1) * 100,
    groups: Object.fromEntries(groups.map((row) => [row.dutyGroup, row.failureCost])),
  };
}

/** What a failure on the road, wear past the limit, work and a day off the road cost. */
export const viewCosts = useCase({
  permission: 'read the fleet',
  async run(deps, actor): Promise<Outcome<CostsInput>> {
    return ok(await loadCosts(deps.db, actor.fleetId));
  },
});

/** Sets the costs; the due status of every vehicle is computed anew. */
export const setCosts = useCase({
  permission: 'set costs',
  input: costsForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ undo: number }>> {
    if (!isCurrency(input.currency))
      return fail('invalid', `${input.currency} is no currency.`, {
        currency: 'Give the three letters of a currency.',
      });
    return deps.db.transaction(async (tx) => {
      const before = await loadCosts(tx, actor.fleetId);
      const { groups, bayPercent, ...amounts } = input;
      await tx
        .update(fleets)
        .set({ ...amounts, bayShare: bayPercent / 100 })
        .where(eq(fleets.id, actor.fleetId));
      await tx.delete(dutyCosts).where(eq(dutyCosts.fleetId, actor.fleetId));
      const rows = Object.entries(groups).map(([dutyGroup, failureCost]) => ({
        fleetId: actor.fleetId,
        dutyGroup,
        failureCost,
      }));
      if (rows.length > 0) await tx.insert(dutyCosts).values(rows);
      await lockFleet(tx, actor.fleetId, true);
      await updateDueStatus(tx, actor.fleetId, deps.today(), null);
      const undo = await writeAudit(tx, actor, {
        action: 'change',
        entity: 'costs',
        entityId: actor.fleetId,
        changes: { from: before, to: input },
      });
      return ok({ undo });
    });
  },
});

/** Letters that the runtime can format as money. */
function isCurrency(code: string): boolean {
  return Intl.supportedValuesOf('currency').includes(code);
}
