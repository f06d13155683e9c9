import { and, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { POLICY_IDS, policyOf } from '@/core/policy/policies';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { policyChoices, vehicles } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { refreshStatus } from '../due/refresh-due';
import { fail, notFound, type Outcome } from '../failure';

export const schoolInput = z.object({
  policy: z.enum(POLICY_IDS),
  scope: z.enum(['shop', 'group', 'vehicle']),
  /** The duty group's name or the vehicle's unit number; empty for the shop. */
  scopeName: z.string().trim().max(120).default(''),
  /** Empty: take the choice back. */
  school: z.string().max(40),
  why: z.string().trim().max(300).default(''),
});

/** Chooses a school for the shop, a duty group or a vehicle, or takes such a choice back. */
export async function chooseSchool(
  deps: Deps,
  actor: Actor,
  input: z.output<typeof schoolInput>,
): Promise<Outcome<null>> {
  const refused = refusal(actor, 'choose shop policies');
  if (refused) return refused;
  const policy = policyOf(input.policy);
  if (input.school !== '' && !policy.schools.some((school) => school.id === input.school))
    return fail('invalid', `${policy.name} has no such school.`, { school: 'Choose one of the list.' });
  if (input.school !== '' && input.why.length < 3)
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
    const scopeKey = input.scope === 'shop' ? null : input.scope === 'group' ? input.scopeName : (vehicle?.id ?? null);
    await tx
      .delete(policyChoices)
      .where(
        and(
          eq(policyChoices.fleetId, actor.fleetId),
          eq(policyChoices.policy, input.policy),
          eq(policyChoices.scope, input.scope),
          scopeKey === null ? isNull(policyChoices.scopeKey) : eq(policyChoices.scopeKey, scopeKey),
        ),
      );
    if (input.school !== '')
      await tx.insert(policyChoices).values({
        fleetId: actor.fleetId,
        policy: input.policy,
        scope: input.scope,
        scopeKey,
        school: input.school,
        why: `${input.why} (${actor.name})`,
        chosenBy: actor.personId,
        chosenAt: deps.now(),
      });
    if (input.policy === 'interval' || input.policy === 'engine_hours')
      await refreshStatus(
        tx,
        actor.fleetId,
        deps.today(),
        input.scope === 'shop' ? null : input.scope === 'group' ? group.map((v) => v.id) : [vehicle?.id ?? ''],
      );
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: input.school === '' ? 'take back' : 'choose',
      entity: 'policy',
      entityId: input.policy,
      changes: { scope: input.scope, of: input.scopeName, school: input.school, why: input.why },
    });
    return ok(null);
  });
}
