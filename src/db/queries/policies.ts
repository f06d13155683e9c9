import { eq } from 'drizzle-orm';
import type { Electrode } from '@/core/gap/check';
import { POLICY_IDS, type PolicyChoice } from '@/core/policy/policies';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier } from '../client';
import { electrodeCeilings, policyChoices } from '../schema';

/** All choices of a fleet; those of a policy that is no longer known are left out. */
export async function loadPolicyChoices(q: Querier, fleetId: FleetId): Promise<readonly PolicyChoice[]> {
  const rows = await q.select().from(policyChoices).where(eq(policyChoices.fleetId, fleetId));
  return rows.flatMap((row) => {
    const policy = POLICY_IDS.find((id) => id === row.policy);
    return policy ? [{ policy, scope: row.scope, scopeKey: row.scopeKey, option: row.option, why: row.why }] : [];
  });
}

/** The farthest that the shop lets plugs go, km, by electrode. */
export type Ceilings = ReadonlyMap<Electrode, number>;

export async function loadCeilings(q: Querier, fleetId: FleetId): Promise<Ceilings> {
  const rows = await q.select().from(electrodeCeilings).where(eq(electrodeCeilings.fleetId, fleetId));
  return new Map(rows.map((row) => [row.electrode, row.km]));
}

/** Those that concern one vehicle. */
export const choicesFor = (
  choices: readonly PolicyChoice[],
  vehicle: { readonly id: string; readonly dutyGroup: string },
): readonly PolicyChoice[] =>
  choices.filter(
    ({ scope, scopeKey }) =>
      scope === 'shop' ||
      (scope === 'group' && scopeKey === vehicle.dutyGroup) ||
      (scope === 'vehicle' && scopeKey === vehicle.id),
  );
