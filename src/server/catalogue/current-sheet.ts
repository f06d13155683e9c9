import type { FleetId, SpecSheetId } from '@/core/shared/kinds';
import type { Querier } from '@/db/client';
import type { WorkOrderRow } from '@/db/queries/work-orders';
import { fitmentOf } from './fitment-of';

/**
 * The sheet in force for an order's vehicle today, where it is another than the one that the order works by.
 *
 * @returns null where the order's own is in force; `specSheetId` null where no sheet has a firm match any more
 */
export async function currentSheet(
  q: Querier,
  fleetId: FleetId,
  today: string,
  order: Pick<WorkOrderRow, 'vehicleId' | 'specSheetId'>,
): Promise<{ readonly specSheetId: SpecSheetId | null; readonly changed: string } | null> {
  const found = await fitmentOf(q, fleetId, today, order.vehicleId);
  if (found?.fitment.kind !== 'match')
    return {
      specSheetId: null,
      changed: 'No sheet has a firm match for this vehicle any more. Resolve it on the vehicle’s page.',
    };
  const { spec } = found.fitment;
  if (spec.id === order.specSheetId) return null;
  return {
    specSheetId: spec.id,
    changed: `Another sheet is in force now: ${spec.sourceDocument}, revision ${spec.revision}, ${spec.part.number}.`,
  };
}
