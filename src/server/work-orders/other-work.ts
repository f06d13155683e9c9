import { and, eq, isNotNull } from 'drizzle-orm';
import { layoutOf } from '@/core/engine/layout';
import type { VisitWork } from '@/core/engine/other-work';
import type { VehicleId } from '@/core/shared/kinds';
import { err, ok, type Result } from '@/core/shared/result';
import { type LastDone, type OtherWorkDue, otherWorkDue } from '@/core/work/other-work';
import { banksOpened } from '@/core/work/procedure/visit';
import { type Proposal, visitTaskOf } from '@/core/work/proposal';
import type { Querier } from '@/db/client';
import type { EngineFamily } from '@/db/queries/catalogue';
import { dueInputs, workOrderSteps, workOrders } from '@/db/schema';
import type { VehicleFitment } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** When each piece of other work was done last, by the closed orders of a vehicle. */
async function loadLastDone(q: Querier, vehicleId: VehicleId): Promise<ReadonlyMap<string, LastDone>> {
  const rows = await q
    .select({ list: workOrders.otherWork, key: workOrderSteps.key, on: workOrders.closedOn, km: workOrders.closedKm })
    .from(workOrders)
    .innerJoin(workOrderSteps, eq(workOrderSteps.workOrderId, workOrders.id))
    .where(
      and(
        eq(workOrders.vehicleId, vehicleId),
        eq(workOrderSteps.kind, 'other'),
        eq(workOrderSteps.state, 'done'),
        isNotNull(workOrders.closedOn),
      ),
    )
    .orderBy(workOrders.closedOn);
  return new Map(
    rows.flatMap(({ list, key, on, km }) => {
      const item = list[Number(key.slice(key.lastIndexOf('_') + 1)) - 1];
      return item && on !== null && km !== null ? [[item.what, { on, km }] as const] : [];
    }),
  );
}

/** What else of its engine could be done on a visit with these tasks. */
export async function otherWorkOf(
  { db, today }: Deps,
  { vehicle, family }: VehicleFitment,
  proposals: readonly Proposal[],
): Promise<readonly OtherWorkDue[]> {
  if (family.otherWork.length === 0) return [];
  const layout = layoutOf(family.model);
  const tasks = proposals.flatMap((proposal) => (proposal.isTaken ? (visitTaskOf(layout, proposal) ?? []) : []));
  const [reading] = await db
    .select({ km: dueInputs.odometerKm })
    .from(dueInputs)
    .where(eq(dueInputs.vehicleId, vehicle.id));
  return otherWorkDue({
    today: today(),
    odometer: reading?.km ?? null,
    items: family.otherWork,
    lastDone: await loadLastDone(db, vehicle.id),
    opened: new Set([...banksOpened({ layout, tasks })].flatMap((n) => layout.model.banks[n - 1]?.place ?? [])),
  });
}

/** As it is kept on an order; what the family has not is refused by name. */
export function chosenOtherWork(
  { otherWork, code }: EngineFamily,
  names: readonly string[],
): Result<VisitWork[], Failure> {
  const unknown = names.find((name) => !otherWork.some(({ what }) => what === name));
  if (unknown !== undefined) {
    const known = otherWork.map(({ what }) => what).join(', ') || 'none';
    return err({
      kind: 'invalid',
      message: `“${unknown.slice(0, 60)}” is no other work of ${code}; put down for it: ${known}.`,
    });
  }
  return ok(otherWork.flatMap(({ what, kind, minutes }) => (names.includes(what) ? [{ what, kind, minutes }] : [])));
}
