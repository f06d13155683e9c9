import { verdictForm } from '@/contracts/forms/work-orders';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { lockWorkOrder } from '@/db/queries/work-orders';
import { findingVerdicts } from '@/db/schema';
import { may } from '../access';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { loadFloorState } from '../work-orders/order-state';
import { findingsOf } from './findings-of';

/**
 * Confirms, rejects or corrects a finding. What the core found and what the person says are both kept. One that stops the
 * work is for a supervisor.
 */
export const judgeFinding = useCase({
  permission: 'record work',
  input: verdictForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    const { workOrderId, verdict, insteadText, reason } = input;
    if (verdict === 'rejected' && reason.length < 3)
      return fail('invalid', 'Say why it does not hold.', { reason: 'Say why, in a few words.' });
    if (verdict === 'corrected' && insteadText.length < 3)
      return fail('invalid', 'Say what it is instead.', { insteadText: 'Say what it is, in a few words.' });
    return deps.db.transaction(async (tx) => {
      const order = await lockWorkOrder(tx, actor.fleetId, workOrderId);
      const state = order ? await loadFloorState(tx, order, deps.today()) : null;
      if (!order || !state) return notFound('work order');
      const findings = await findingsOf(tx, state);
      const finding = findings.find(({ key, past }) => key === input.findingKey && !past);
      if (!finding) return fail('conflict', 'This finding no longer shows: the record has been changed meanwhile.');
      if (finding.urgency === 'stop' && !may(actor, 'decide on findings that stop work'))
        return fail(
          'forbidden',
          'A finding that stops the work is for a supervisor. Leave the vehicle where it stands.',
        );
      const { key, verdict: _, past: __, answers: ___, ...found } = finding;
      const values = {
        found,
        verdict,
        insteadText: insteadText || null,
        reason: reason || null,
        saidBy: actor.personId,
        saidAt: deps.now(),
      };
      await tx
        .insert(findingVerdicts)
        .values({ fleetId: actor.fleetId, workOrderId: order.id, findingKey: key, ...values })
        .onConflictDoUpdate({ target: [findingVerdicts.workOrderId, findingVerdicts.findingKey], set: values });
      await writeAudit(tx, actor, {
        action: verdict,
        entity: 'work-order',
        entityId: order.id,
        changes: { finding: key, found, insteadText, reason },
      });
      return ok(null);
    });
  },
});
