import { eq, inArray } from 'drizzle-orm';
import type { Counted } from '@/core/work/ask';
import { visitProcedure } from '@/core/work/procedure/generate';
import type { Procedure, Step } from '@/core/work/procedure/step';
import { hardestAccess } from '@/core/work/procedure/visit';
import type { Tx } from '@/db/client';
import { type CountRow, loadItemNotes } from '@/db/queries/work-entries';
import type { StepRow, WorkOrderRow } from '@/db/queries/work-orders';
import { workOrderCounts, workOrderSteps, workOrders } from '@/db/schema';
import { learnedFor } from './learned-of';
import type { FloorState } from './order-state';
import { earlierRemoval } from './previous-set';
import { procedureInput } from './procedure-of';

/**
 * Brings the steps and counts of an order to what its tasks ask for. What was done or answered stays on record; what nobody
 * has touched and no task asks for any more goes.
 *
 * @param reopen a step that now says more than when it was done is open again: for tasks that were put on
 */
export async function syncProcedure(
  tx: Tx,
  state: FloorState,
  { reopen }: { readonly reopen: boolean },
): Promise<void> {
  const { order } = state;
  const input = {
    ...procedureInput(state, await earlierRemoval(tx, order.vehicleId)),
    notes: await loadItemNotes(tx, order.fleetId, state.family.id),
  };
  const computed = visitProcedure(input);
  const procedure = visitProcedure({ ...input, correction: (await learnedFor(tx, state)).factor });
  await syncSteps(tx, state, procedure, reopen);
  await syncCounts(tx, state, procedure.counts);
  await tx
    .update(workOrders)
    .set({ minutes: procedure.minutes, computedMinutes: computed.minutes, access: hardestAccess(input) })
    .where(eq(workOrders.id, order.id));
}

const isTouched = (row: StepRow): boolean =>
  row.state !== 'open' || Object.keys(row.answers).length > 0 || row.kind === 'clear';

async function syncSteps(tx: Tx, { order, steps: rows }: FloorState, { steps }: Procedure, reopen: boolean) {
  const untouched = rows.filter((row) => !isTouched(row)).map(({ id }) => id);
  if (untouched.length > 0) await tx.delete(workOrderSteps).where(inArray(workOrderSteps.id, untouched));
  const kept = new Map(rows.filter(isTouched).map((row) => [row.key, row]));
  const fresh: (typeof workOrderSteps.$inferInsert)[] = [];
  for (const [place, step] of placed([...kept.values()], steps).entries()) {
    const row = kept.get(typeof step === 'string' ? step : step.key);
    const columns = typeof step === 'string' ? {} : columnsOf(step);
    if (!row) {
      if (typeof step !== 'string') fresh.push({ ...ownOf(order), ...columnsOf(step), place });
      continue;
    }
    const again = reopen && row.state === 'done' && typeof step !== 'string' && row.title !== step.title;
    const open = again ? ({ state: 'open', saidBy: null, saidAt: null } as const) : {};
    await tx
      .update(workOrderSteps)
      .set({ ...columns, place, ...open })
      .where(eq(workOrderSteps.id, row.id));
  }
  if (fresh.length > 0) await tx.insert(workOrderSteps).values(fresh);
}

/** The steps in their order; what is done and no longer asked for stands, by its key, at the end of its phase. */
function placed(touched: readonly StepRow[], steps: readonly Step[]): readonly (Step | string)[] {
  const wanted = new Set(steps.map(({ key }) => key));
  const kept = touched.filter((row) => !wanted.has(row.key));
  return steps.flatMap((step, i) => {
    const isLast = steps[i + 1]?.phase !== step.phase;
    const after = isLast ? kept.filter(({ phase }) => (phase ?? 'prove') === step.phase) : [];
    return [step, ...after.map(({ key }) => key)];
  });
}

const ownOf = ({ fleetId, id }: WorkOrderRow) => ({ fleetId, workOrderId: id });

const columnsOf = ({ tools, consumables, ...step }: Step) => ({
  ...step,
  tools: [...tools],
  consumables: [...consumables],
});

async function syncCounts(tx: Tx, { order, counts: rows }: FloorState, counts: readonly Counted[]): Promise<void> {
  const isCounted = ({ out, back }: CountRow): boolean => out !== null || back !== null;
  const untouched = rows.filter((row) => !isCounted(row)).map(({ id }) => id);
  if (untouched.length > 0) await tx.delete(workOrderCounts).where(inArray(workOrderCounts.id, untouched));
  const kept = new Map(rows.filter(isCounted).map((row) => [row.key, row.id]));
  const fresh: (typeof workOrderCounts.$inferInsert)[] = [];
  for (const { key, kind, what, count: expected, out: outStep, back: backStep } of counts) {
    const values = { key, kind, what, expected, outStep, backStep };
    const id = kept.get(key);
    if (id) await tx.update(workOrderCounts).set(values).where(eq(workOrderCounts.id, id));
    else fresh.push({ ...ownOf(order), ...values });
  }
  if (fresh.length > 0) await tx.insert(workOrderCounts).values(fresh);
}
