import { eq } from 'drizzle-orm';
import { z } from 'zod';
import type { FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Querier } from '@/db/client';
import { lockFleet } from '@/db/locks';
import { writeAudit } from '@/db/queries/audit';
import { dutyCosts, fleets } from '@/db/schema';
import { fail, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { updateDueStatus } from './due-status';

const money = z.coerce.number('Give an amount.').int('Give a whole amount.').min(1, 'At least 1.').max(10_000_000);

export const costsInput = z.object({
  currency: z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^[A-Z]{3}$/, 'Give its three letters, such as EUR.'),
  failureCost: money,
  wearCostPerPercent: z.coerce.number('Give an amount.').min(0, 'Not below 0.').max(10_000),
  labourPerHour: z.coerce.number('Give an amount.').min(0, 'Not below 0.').max(10_000).default(60),
  downtimePerVisit: z.coerce.number('Give an amount.').min(0, 'Not below 0.').max(1_000_000).default(150),
  /** Of a vehicle out of service, an hour. */
  hourCost: z.coerce
    .number('Give an amount.')
    .int('Give a whole amount.')
    .min(0, 'Not below 0.')
    .max(100_000)
    .default(15),
  /** Of a booking that was agreed and is moved. */
  moveCost: z.coerce
    .number('Give an amount.')
    .int('Give a whole amount.')
    .min(0, 'Not below 0.')
    .max(100_000)
    .default(20),
  /** Of a break within a long day's work, minutes; 0: none. */
  breakMinutes: z.coerce
    .number('Give minutes.')
    .int('Give whole minutes.')
    .min(0, 'Not below 0.')
    .max(180, 'At most 180.')
    .default(30),
  /** Share of the bays' time that plug and coil service gets, in per cent. */
  bayPercent: z.coerce.number('Give a share.').min(1, 'At least 1 %.').max(100, 'At most 100 %.').default(100),
  /** By duty group; a group left out has the fleet's. */
  groups: z.record(z.string().min(1).max(120), money).default({}),
});
type CostsInput = z.output<typeof costsInput>;

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
  input: costsInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    if (!isCurrency(input.currency))
      return fail('invalid', `${input.currency} is no currency.`, {
        currency: 'Give the three letters of a currency.',
      });
    return deps.db.transaction(async (tx) => {
      const before = await loadCosts(tx, actor.fleetId);
      const { groups, bayPercent, ...own } = input;
      await tx
        .update(fleets)
        .set({ ...own, bayShare: bayPercent / 100 })
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
      await writeAudit(tx, actor, {
        action: 'change',
        entity: 'costs',
        entityId: actor.fleetId,
        changes: { from: before, to: input },
      });
      return ok(null);
    });
  },
});

/** Letters that the runtime can format as money. */
function isCurrency(code: string): boolean {
  return Intl.supportedValuesOf('currency').includes(code);
}
