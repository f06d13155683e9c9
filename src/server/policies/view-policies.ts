import { asc, eq } from 'drizzle-orm';
import { POLICIES, policyInForce } from '@/core/policy/policies';
import { ok } from '@/core/shared/result';
import { loadCeilings, loadPolicyChoices } from '@/db/queries/policies';
import { vehicles } from '@/db/schema';
import { useCase } from '../use-case';

/** Every policy with the shop's option in force and where groups and vehicles differ. */
export const viewPolicies = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const choices = await loadPolicyChoices(deps.db, actor.fleetId);
    const fleet = await deps.db
      .select({ id: vehicles.id, unitNumber: vehicles.unitNumber, name: vehicles.name, dutyGroup: vehicles.dutyGroup })
      .from(vehicles)
      .where(eq(vehicles.fleetId, actor.fleetId))
      .orderBy(asc(vehicles.unitNumber));
    const unitOf = new Map(fleet.map((vehicle) => [vehicle.id, vehicle.unitNumber]));
    const shop = choices.filter((choice) => choice.scope === 'shop');
    return ok({
      policies: POLICIES.map((policy) => ({
        inForce: policyInForce(policy.id, shop),
        exceptions: choices
          .filter((choice) => choice.policy === policy.id && choice.scope !== 'shop')
          .flatMap((choice) => {
            const option = policy.options.find((s) => s.id === choice.option);
            const key = choice.scopeKey ?? '';
            const scopeName = choice.scope === 'group' ? key : (unitOf.get(key) ?? key);
            return option ? [{ scope: choice.scope, of: scopeName, option, why: choice.why }] : [];
          }),
      })),
      ceilings: await loadCeilings(deps.db, actor.fleetId),
      groups: [...new Set(fleet.map((vehicle) => vehicle.dutyGroup))].sort(),
    });
  },
});
