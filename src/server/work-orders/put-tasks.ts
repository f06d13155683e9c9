import { and, eq, inArray, sql } from 'drizzle-orm';
import { placeId } from '@/core/engine/places';
import type { TaskId, VehicleId } from '@/core/shared/kinds';
import { placeTarget } from '@/core/work/targets';
import { isTaskComponent } from '@/core/work/task';
import type { Tx } from '@/db/client';
import { violation } from '@/db/constraint-error';
import { loadFitted, type PlaceRow, type WorkOrderRow } from '@/db/queries/work-orders';
import { taskPlaces, workOrders, workTasks } from '@/db/schema';
import type { Actor } from '../access';
import { Refused } from '../failure';
import { targetOf } from './place-record';
import type { TaskPlan } from './plan-tasks';

/** Puts tasks on an order, with a record for each place. @throws Refused where a place is in another open task */
export async function putTasks(
  tx: Tx,
  actor: Actor,
  order: WorkOrderRow,
  plans: readonly TaskPlan[],
  releaseReason: string,
): Promise<readonly TaskId[]> {
  await refuseTaken(tx, order.vehicleId, plans);
  const first = await nextOrdinal(tx, order);
  const rows = await tx
    .insert(workTasks)
    .values(
      plans.map(({ action, component, why, note, findingKey, sheet, blockers }, i) => ({
        fleetId: order.fleetId,
        workOrderId: order.id,
        ordinal: first + i,
        action,
        component,
        why,
        note: note || null,
        findingKey: findingKey ?? null,
        specSheetId: sheet?.id ?? null,
        releaseReason: blockers.length > 0 ? releaseReason : null,
        createdBy: actor.personId,
      })),
    )
    .returning({ id: workTasks.id, ordinal: workTasks.ordinal });
  const ids = [...rows].sort((a, b) => a.ordinal - b.ordinal).map(({ id }) => id as TaskId);
  const expected = await expectedAt(tx, order.vehicleId);
  const places = plans.flatMap(({ component, places: chosen, sheet }, i) =>
    chosen.map(({ cylinder, position }) => ({
      fleetId: order.fleetId,
      workOrderId: order.id,
      taskId: ids[i] ?? '',
      vehicleId: order.vehicleId,
      component,
      cylinder,
      position,
      specSheetId: sheet?.id ?? null,
      ...expected.get(placeTarget(component, placeId({ cylinder, position }))),
    })),
  );
  // A place that was taken off, or went to another visit and comes back, keeps what was recorded of it here.
  await tx
    .insert(taskPlaces)
    .values(places)
    .onConflictDoUpdate({
      target: [taskPlaces.workOrderId, taskPlaces.component, taskPlaces.cylinder, taskPlaces.position],
      set: { taskId: sql`excluded.task_id`, specSheetId: sql`excluded.spec_sheet_id`, live: true, movedToId: null },
    });
  return ids;
}

async function nextOrdinal(tx: Tx, order: WorkOrderRow): Promise<number> {
  const [row] = await tx
    .select({ last: sql<number>`coalesce(max(${workTasks.ordinal}), 0)` })
    .from(workTasks)
    .where(eq(workTasks.workOrderId, order.id));
  return Number(row?.last ?? 0) + 1;
}

/** What should sit at each place by the record, by target. */
async function expectedAt(
  tx: Tx,
  vehicleId: VehicleId,
): Promise<ReadonlyMap<string, Pick<PlaceRow, 'expectedNumber' | 'expectedTag'>>> {
  return new Map(
    (await loadFitted(tx, vehicleId)).flatMap(({ fitted, number }) => {
      const { component, believedNumber, tag } = fitted;
      return isTaskComponent(component)
        ? [
            [
              targetOf({ ...fitted, component }),
              { expectedNumber: number ?? believedNumber, expectedTag: tag },
            ] as const,
          ]
        : [];
    }),
  );
}

/** Says which order has the place, before the constraint only says that one has. */
async function refuseTaken(tx: Tx, vehicleId: VehicleId, plans: readonly TaskPlan[]): Promise<void> {
  const wanted = new Set(
    plans.flatMap(({ component, places }) => places.map((p) => placeTarget(component, placeId(p)))),
  );
  const taken = await tx
    .select({
      component: taskPlaces.component,
      cylinder: taskPlaces.cylinder,
      position: taskPlaces.position,
      number: workOrders.number,
    })
    .from(taskPlaces)
    .innerJoin(workOrders, eq(workOrders.id, taskPlaces.workOrderId))
    .where(
      and(
        eq(taskPlaces.vehicleId, vehicleId),
        eq(taskPlaces.live, true),
        inArray(
          taskPlaces.component,
          plans.map(({ component }) => component),
        ),
      ),
    );
  const [hit] = taken.filter((place) => wanted.has(targetOf(place)));
  if (hit) throw alreadyOpen(hit.component, hit.number);
}

const alreadyOpen = (component: string, number?: number) =>
  new Refused({
    kind: 'conflict',
    message: `This vehicle already has an open work order for ${component === 'plug' ? 'its plugs' : `this ${component.replace('_', ' ')}`}${number === undefined ? '' : `: ${number}`}. Add to that one, or close it first.`,
  });

/** The refusal that a lost race for a place means; any other error goes on. */
export function orTaken(error: unknown): never {
  if (violation(error)?.constraint === 'task_places_in_one_open_task') throw alreadyOpen('part');
  throw error;
}
