import { and, eq, inArray } from 'drizzle-orm';
import type { Counted } from '@/core/work/ask';
import type { Procedure, Step } from '@/core/work/procedure/step';
import type { Tx } from '@/db/client';
import type { CountRow } from '@/db/queries/work-entries';
import type { StepRow, WorkOrderRow } from '@/db/queries/work-orders';
import { workOrderCounts, workOrderSteps, workOrders } from '@/db/schema';
import type { FloorState } from './order-state';
import { earlierRemoval } from './previous-set';
import { procedureOf } from './procedure-of';

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
  const procedure = procedureOf(state, await earlierRemoval(tx, order.vehicleId));
  await syncSteps(tx, state, procedure, reopen);
  await syncCounts(tx, state, procedure.counts);
  await tx.update(workOrders).set({ minutes: procedure.minutes }).where(eq(workOrders.id, order.id));
}

const isTouched = (row: StepRow): boolean =>
  row.state !== 'open' || Object.keys(row.answers).length > 0 || row.kind === 'clear';

async function syncSteps(tx: Tx, { order, steps: rows }: FloorState, { steps }: Procedure, reopen: boolean) {
  const known = new Map(rows.map((row) => [row.key, row]));
  const wanted = new Set(steps.map(({ key }) => key));
  const gone = rows.filter((row) => !wanted.has(row.key) && !isTouched(row));
  if (gone.length > 0)
    await tx.delete(workOrderSteps).where(
      inArray(
        workOrderSteps.id,
        gone.map(({ id }) => id),
      ),
    );
  for (const [place, entry] of placed(rows, steps).entries()) {
    if (typeof entry === 'string') {
      await tx
        .update(workOrderSteps)
        .set({ place })
        .where(and(eq(workOrderSteps.workOrderId, order.id), eq(workOrderSteps.key, entry)));
      continue;
    }
    const row = known.get(entry.key);
    const again = reopen && row?.state === 'done' && row.title !== entry.title;
    const open = again ? ({ state: 'open', saidBy: null, saidAt: null } as const) : {};
    if (row)
      await tx
        .update(workOrderSteps)
        .set({ ...columnsOf(entry), place, ...open })
        .where(eq(workOrderSteps.id, row.id));
  }
  const fresh = placed(rows, steps).flatMap((entry, place) =>
    typeof entry !== 'string' && !known.has(entry.key) ? [{ ...columnsOf(entry), ...ownOf(order), place }] : [],
  );
  if (fresh.length > 0) await tx.insert(workOrderSteps).values(fresh);
}

/** The steps in their order; what is done and no longer asked for stands, by its key, at the end of its phase. */
function placed(rows: readonly StepRow[], steps: readonly Step[]): readonly (Step | string)[] {
  const wanted = new Set(steps.map(({ key }) => key));
  const kept = rows.filter((row) => !wanted.has(row.key) && isTouched(row));
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
  const known = new Map(rows.map((row) => [row.key, row]));
  const wanted = new Set(counts.map(({ key }) => key));
  const isCounted = ({ out, back }: CountRow): boolean => out !== null || back !== null;
  const gone = rows.filter((row) => !wanted.has(row.key) && !isCounted(row));
  if (gone.length > 0)
    await tx.delete(workOrderCounts).where(
      inArray(
        workOrderCounts.id,
        gone.map(({ id }) => id),
      ),
    );
  for (const count of counts) {
    const { key, kind, what, count: expected, out: outStep, back: backStep } = count;
    const row = known.get(key);
    const values = { key, kind, what, expected, outStep, backStep };
    if (row) await tx.update(workOrderCounts).set(values).where(eq(workOrderCounts.id, row.id));
    else await tx.insert(workOrderCounts).values({ ...ownOf(order), ...values });
  }
}
