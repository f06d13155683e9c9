import { z } from 'zod';
import { costsForm } from '@/contracts/forms/due';
import { ABSENCE_OF } from '@/core/planning/absence-of';
import type { AuditEntity } from '@/core/shared/audit';
import { builtOn, changeGroup, type UNDOABLE, undoableKind } from '@/core/shared/undo';
import type { Tx } from '@/db/client';
import { auditOf, loadAudit } from '@/db/queries/audit';
import { lockWorkOrder } from '@/db/queries/work-orders';
import { instantText } from '@/text/format';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { setCosts } from '../due/costs';
import { undoDeferral } from '../due/defer';
import { fail, notFound, type Outcome, Refused } from '../failure';
import { resolveReadings } from '../odometer/resolve-readings';
import { putAbsenceBack, removeAbsence } from '../planning/absences';
import { planWorkOrder, unplanWorkOrder } from '../planning/plan-work-order';
import { choosePolicyOption } from '../policies/choose-policy-option';
import { setCeiling } from '../policies/set-ceiling';
import { useCase } from '../use-case';
import { putTaskBack, takeOffTask } from '../work-orders/change-tasks';
import { orTaken } from '../work-orders/put-tasks';

/** How many later changes of one thing are looked through for what was built on a change. */
const LOOKED_THROUGH = 1000;

interface Undoing {
  readonly deps: Deps;
  readonly tx: Tx;
  readonly actor: Actor;
  /** What the change was done to. */
  readonly id: string;
  readonly changes: unknown;
}

const slot = z.object({
  day: z.string(),
  start: z.string(),
  minutes: z.number(),
  bayId: z.uuid(),
  personId: z.uuid(),
});
const booking = z.object({ before: slot.nullable() });
const tasks = z.object({ taskIds: z.array(z.uuid()) });
const task = z.object({ taskId: z.uuid() });
const deferral = z.object({ vehicles: z.array(z.uuid()), at: z.string() });
const absenceRow = z.object({
  id: z.uuid(),
  of: z.enum(ABSENCE_OF),
  ofId: z.uuid(),
  what: z.string(),
  fromDay: z.string(),
  toDay: z.string(),
  fromMin: z.number().nullable(),
  toMin: z.number().nullable(),
  rule: z.string().nullable(),
  except: z.array(z.string()),
  uid: z.string().nullable(),
});
const absence = z.object({ row: absenceRow });
const costs = z.object({ from: costsForm.schema });
const limit = z.object({ before: z.object({ km: z.number(), why: z.string() }).nullable() });
const choice = z.object({
  scope: z.enum(['shop', 'group', 'vehicle']),
  of: z.string(),
  before: z.object({ option: z.string(), why: z.string() }).nullable(),
});
const reading = z.object({ reading: z.object({ vehicleId: z.uuid(), readOn: z.string(), odometerKm: z.number() }) });

/** Each undoes one kind of change. A change that was recorded before it could be undone lacks what is needed, and is refused. */
const UNDO: Readonly<Record<(typeof UNDOABLE)[number], (undoing: Undoing) => Promise<Outcome<unknown>>>> = {
  async 'work-order add tasks'({ deps, actor, id, changes }) {
    for (const taskId of tasks.parse(changes).taskIds) {
      const off = await takeOffTask(deps, actor, { workOrderId: id, taskId, reason: 'undone' });
      if (!off.ok) return off;
    }
    return { ok: true, value: null };
  },
  async 'work-order take off task'({ deps, tx, actor, id, changes }) {
    return (
      refusal(actor, 'open work orders') ??
      putTaskBack(deps, tx, actor, { workOrderId: id, taskId: task.parse(changes).taskId }).catch(orTaken)
    );
  },
  'work-order plan': rebook,
  'work-order unplan': rebook,
  'vehicle defer': undefer,
  'vehicle block': undefer,
  'odometer record': ({ deps, actor, changes }) =>
    resolveReadings(deps, actor, { items: [reading.parse(changes).reading], how: 'reject', reason: 'undone' }),
  'absence create': ({ deps, actor, id }) => removeAbsence(deps, actor, { absenceId: id }),
  'absence remove': async ({ tx, actor, changes }) =>
    refusal(actor, 'manage bays') ?? putAbsenceBack(tx, actor, absence.parse(changes).row),
  'costs change': ({ deps, actor, changes }) => setCosts(deps, actor, costs.parse(changes).from),
  'electrode-ceiling choose': relimit,
  'electrode-ceiling take back': relimit,
  'policy choose': rechoose,
  'policy take back': rechoose,
};

/** Sets the distance limit of an electrode as it was before, or none. */
async function relimit({ deps, actor, id, changes }: Undoing): Promise<Outcome<unknown>> {
  const { before } = limit.parse(changes);
  return setCeiling.withUnknown(deps, actor, { electrode: id, km: before?.km ?? '', why: before?.why ?? '' });
}

/** Chooses the option of a policy that was in force before, or none. */
async function rechoose({ deps, actor, id, changes }: Undoing): Promise<Outcome<unknown>> {
  const { scope, of: scopeName, before } = choice.parse(changes);
  const { option, why } = before ?? { option: '', why: '' };
  return choosePolicyOption.withUnknown(deps, actor, { policy: id, scope, scopeName, option, why });
}

/** Puts an order where it was booked before, or off the plan. */
async function rebook({ deps, actor, id, changes }: Undoing): Promise<Outcome<unknown>> {
  const { before } = booking.parse(changes);
  return before ? planWorkOrder(deps, actor, { workOrderId: id, ...before }) : unplanWorkOrder(deps, actor, id);
}

async function undefer({ deps, tx, actor, changes }: Undoing): Promise<Outcome<unknown>> {
  const { vehicles, at } = deferral.parse(changes);
  return refusal(actor, 'defer work') ?? undoDeferral(deps, tx, actor, { vehicleIds: vehicles, at });
}

/**
 * Undoes a change by its line of the record; the record keeps both. Refused, naming who, where somebody has built on the
 * change since, and for whoever may not make the change.
 */
export const undoChange = useCase({
  permission: 'read the fleet',
  input: z.object({ undo: z.coerce.number().int() }),
  async run(deps, actor, { undo }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const change = await loadAudit(tx, actor.fleetId, undo);
      const kind = change && undoableKind(change.entity, change.action);
      if (!kind) return notFound('change to undo');
      // Nobody changes the order between the look at what came since and the undoing; deferrals and readings go by their rows.
      if (change.entity === 'work-order') await lockWorkOrder(tx, actor.fleetId, change.entityId);
      const entity = change.entity as AuditEntity;
      const later = builtOn(entity, change, await auditOf(tx, actor.fleetId, entity, change.entityId, LOOKED_THROUGH));
      if (later)
        return fail(
          'conflict',
          `${later.who ?? 'Isobar'} has changed the ${changeGroup(entity, later.action)?.what} since, ${instantText(later.at)}. Undo that first, or change it by hand.`,
        );
      const within = { ...deps, db: tx };
      const done = await UNDO[kind]({ deps: within, tx, actor, id: change.entityId, changes: change.changes }).catch(
        tooOld,
      );
      if (!done.ok) throw new Refused(done.error);
      return { ok: true, value: null };
    });
  },
});

/** A change from before changes could be undone. */
function tooOld(error: unknown): Outcome<never> {
  if (error instanceof z.ZodError)
    return fail('conflict', 'This change was made before changes could be undone. Change it by hand.');
  throw error;
}
