import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { decideForm } from '@/contracts/forms/misfire';
import { cause } from '@/contracts/misfire';
import { storyOf, whereNow } from '@/core/misfire/case-entry';
import { afterDecision, type Decision } from '@/core/misfire/case-state';
import type { Hypothesis } from '@/core/misfire/misfire-case';
import { remedyTask, suspectOf } from '@/core/misfire/remedy-task';
import { ok } from '@/core/shared/result';
import { isLive } from '@/core/work/order-state';
import type { TaskComponent } from '@/core/work/task';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { type CaseRow, loadCaseEntries, lockCase } from '@/db/queries/misfire';
import { listWorkOrderRows } from '@/db/queries/work-orders';
import { dueInputs, misfireCases } from '@/db/schema';
import { CASE_STATE_WORDS, causeText } from '@/text/misfire-words';
import type { Actor } from '../access';
import { fitmentFor, fitmentOf, type VehicleFitment } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import { refreshWeekCost } from '../due/refresh-due';
import { fail, notFound, type Outcome, Refused } from '../failure';
import { useCase } from '../use-case';
import { addTasks } from '../work-orders/change-tasks';
import { openWorkOrder } from '../work-orders/open-work-order';
import type { TaskInput } from '../work-orders/plan-tasks';
import { appendEntries, entriesOf } from './keep-entries';
import { reopen } from './reopen-case';
import { finishWatch, watch } from './watch';

/** The case, locked, that a decision can be made of. @throws Refused where it cannot */
async function caseFor(tx: Tx, actor: Actor, caseId: string, decision: Decision): Promise<CaseRow> {
  const misfire = await lockCase(tx, actor.fleetId, caseId);
  if (!misfire) throw new Refused({ kind: 'not-found', message: 'There is no such misfire in this fleet.' });
  if (afterDecision(misfire.state, decision) !== null) return misfire;
  throw new Refused({
    kind: 'conflict',
    message: `Misfire ${misfire.number} is “${CASE_STATE_WORDS[misfire.state].toLowerCase()}” now, so this cannot be decided. Look at it again.`,
  });
}

async function keepDecision(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  misfire: CaseRow,
  decided: { readonly decision: Decision; readonly words: string; readonly cause: Hypothesis | null },
): Promise<void> {
  await appendEntries(tx, misfire, [
    { id: randomUUID(), at: deps.now(), said: { kind: 'decided', ...decided }, saidBy: actor.personId },
  ]);
  await writeAudit(tx, actor, {
    action: 'decide',
    entity: 'misfire-case',
    entityId: misfire.id,
    changes: decided,
  });
}

/** Drafts the work that cures a cause: on the open visit of the vehicle, or on a new one. */
export const mendCase = useCase({
  permission: 'open work orders',
  input: z.object({ caseId: z.uuid(), cause, releaseReason: z.string().max(300).default('') }),
  async run(deps, actor, { caseId, cause: chosen, releaseReason }): Promise<Outcome<{ workOrderId: string }>> {
    return deps.db.transaction(async (tx): Promise<Outcome<{ workOrderId: string }>> => {
      const misfire = await caseFor(tx, actor, caseId, 'mend');
      const fitment = await fitmentOf(tx, actor.fleetId, deps.today(), misfire.vehicleId);
      const task = fitment && (await taskFor(tx, misfire, fitment, chosen));
      if (!fitment) return notFound('vehicle');
      if (!task)
        return fail(
          'conflict',
          `${causeText(chosen)}: that is no part of the ignition. Refer it, with what was found.`,
        );
      const within = { ...deps, db: tx };
      const [open] = (await listWorkOrderRows(tx, actor.fleetId, { vehicleId: misfire.vehicleId })).filter(isLive);
      const order = open
        ? await addTasks(within, actor, { workOrderId: open.id, tasks: [task], releaseReason })
        : await openWorkOrder(within, actor, { vehicleId: misfire.vehicleId, tasks: [task], releaseReason });
      if (!order.ok) throw new Refused(order.error);
      const workOrderId = 'workOrderId' in order.value ? order.value.workOrderId : (open?.id ?? '');
      await finishWatch(deps, tx, actor, misfire, 'It is mended.');
      await tx
        .update(misfireCases)
        .set({ state: 'mending', workOrderId, watchUntilKm: null })
        .where(eq(misfireCases.id, misfire.id));
      await keepDecision(deps, tx, actor, misfire, { decision: 'mend', words: task.note, cause: chosen });
      await refreshWeekCost(tx, actor.fleetId, deps.today(), misfire.vehicleId);
      return ok({ workOrderId });
    });
  },
});

/** The task for a cause, where the part sits now; null: no part of the ignition. */
async function taskFor(
  tx: Tx,
  misfire: CaseRow,
  fitment: VehicleFitment,
  chosen: Hypothesis,
): Promise<TaskInput | null> {
  const remedy = remedyTask(chosen);
  if (!remedy) return null;
  const { away } = storyOf(entriesOf(await loadCaseEntries(tx, misfire.id)));
  const part = suspectOf(remedy.component);
  const component = soldAs(fitment, remedy.component);
  const cylinders = remedy.cylinders?.map((home) => (part ? whereNow(away, part, home) : home));
  return {
    action: remedy.action,
    component,
    places: component === 'lead_set' || !cylinders ? 'all' : cylinders.map(String),
    why: 'misfire',
    note: `Misfire ${misfire.number}: ${causeText(chosen)}`,
  };
}

/** What a part comes with where no sheet names it alone: a lead in its set, a boot on its coil. */
const COMES_WITH: Readonly<Partial<Record<TaskComponent, readonly TaskComponent[]>>> = {
  lead: ['lead_set'],
  boot: ['coil', 'rail'],
};

function soldAs(fitment: VehicleFitment, component: TaskComponent): TaskComponent {
  const isKnown = (candidate: TaskComponent): boolean => fitmentFor(fitment, candidate).fitment.kind === 'match';
  return isKnown(component) ? component : (COMES_WITH[component]?.find(isKnown) ?? component);
}

/** Refers a case to others, watches it, closes it or goes on with it; each with the reason. */
export const decideCase = useCase({
  permission: 'record work',
  input: decideForm.schema,
  async run(deps, actor, { caseId, decision, words, cause: chosen }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const misfire = await caseFor(tx, actor, caseId, decision);
      const [status] = await tx.select().from(dueInputs).where(eq(dueInputs.vehicleId, misfire.vehicleId));
      const km = status?.odometerKm ?? null;
      if (decision === 'reopen') await reopen(deps, tx, actor, misfire, words);
      else if (decision === 'watch') await watch(deps, tx, actor, misfire, km, words);
      else {
        await finishWatch(deps, tx, actor, misfire, words);
        const ended = decision === 'close' ? { endedOn: deps.today(), endedKm: km } : {};
        const state = decision === 'close' ? ('closed' as const) : ('referred' as const);
        await tx
          .update(misfireCases)
          .set({ state, ...ended })
          .where(eq(misfireCases.id, misfire.id));
        await keepDecision(deps, tx, actor, misfire, { decision, words, cause: chosen });
      }
      await refreshWeekCost(tx, actor.fleetId, deps.today(), misfire.vehicleId);
      return ok(null);
    });
  },
});
