import { and, eq, isNull } from 'drizzle-orm';
import { policyOptionForm } from '@/contracts/forms/due';
import { policyOf } from '@/core/policy/policies';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { policyChoices, vehicles } from '@/db/schema';
import { refreshDue } from '../due/refresh-due';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** Chooses an option for the shop, a duty group or a vehicle, or takes such a choice back. */
export const choosePolicyOption = useCase({
  permission: 'choose shop policies',
  input: policyOptionForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ undo: number }>> {
    const policy = policyOf(input.policy);
    if (input.option !== '' && !policy.options.some((option) => option.id === input.option))
      return fail('invalid', `${policy.name} has no such option.`, { option: 'Choose one of the list.' });
    if (input.option !== '' && input.why.length < 3)
      return fail('invalid', 'Say why, so that the next person can tell.', { why: 'Say why, in a few words.' });
    return deps.db.transaction(async (tx) => {
      const concerned = await tx
        .select({ id: vehicles.id, unitNumber: vehicles.unitNumber, dutyGroup: vehicles.dutyGroup })
        .from(vehicles)
        .where(eq(vehicles.fleetId, actor.fleetId));
      const group = concerned.filter((v) => v.dutyGroup === input.scopeName);
      const vehicle = concerned.find((v) => v.unitNumber === input.scopeName);
      if (input.scope === 'group' && group.length === 0)
        return fail('invalid', 'No vehicle is in this duty group.', { scopeName: 'Choose one of the list.' });
      if (input.scope === 'vehicle' && !vehicle) return notFound('vehicle');
      const scopeKey = { shop: null, group: input.scopeName, vehicle: vehicle?.id ?? null }[input.scope];
      const [before = null] = await tx
        .delete(policyChoices)
        .where(
          and(
            eq(policyChoices.fleetId, actor.fleetId),
            eq(policyChoices.policy, input.policy),
            eq(policyChoices.scope, input.scope),
            scopeKey === null ? isNull(policyChoices.scopeKey) : eq(policyChoices.scopeKey, scopeKey),
          ),
        )
        .returning({ option: policyChoices.option, why: policyChoices.why });
      if (input.option !== '')
        await tx.insert(policyChoices).values({
          fleetId: actor.fleetId,
          policy: input.policy,
          scope: input.scope,
          scopeKey,
          option: input.option,
          why: `${input.why} (${actor.name})`,
          chosenBy: actor.personId,
          chosenAt: deps.now(),
        });
      if (input.policy === 'interval' || input.policy === 'engine_hours')
        await refreshDue(
          tx,
          actor.fleetId,
          deps.today(),
          { shop: null, group: group.map(({ id }) => id), vehicle: [vehicle?.id ?? ''] }[input.scope],
        );
      const undo = await writeAudit(tx, actor, {
        action: input.option === '' ? 'take back' : 'choose',
        entity: 'policy',
        entityId: input.policy,
        changes: { scope: input.scope, of: input.scopeName, option: input.option, why: input.why, before },
      });
      return ok({ undo });
    });
  },
});
