import type { FleetId, SpecSheetId, TaskId } from '@/core/shared/kinds';
import { PART_WORDS } from '@/core/work/say-places';
import type { Querier } from '@/db/client';
import { loadSheets } from '@/db/queries/catalogue';
import type { TaskRow } from '@/db/queries/work-orders';
import { fitmentFor, type VehicleFitment } from './fitment-of';

/** A task that works by another sheet than the one that is in force. */
interface ChangedSheet {
  readonly taskId: TaskId;
  readonly from: SpecSheetId;
  /** Null: no sheet has a firm match any more. */
  readonly to: SpecSheetId | null;
  readonly changed: string;
}

/** The tasks of an order for whose vehicle another sheet is in force today than the one they work by. */
export async function changedSheets(
  q: Querier,
  fleetId: FleetId,
  today: string,
  { vehicle, family }: Pick<VehicleFitment, 'vehicle' | 'family'>,
  tasks: readonly TaskRow[],
): Promise<readonly ChangedSheet[]> {
  const sheets = await loadSheets(q, fleetId, today, { familyIds: [family.id] });
  return tasks.flatMap(({ id: taskId, component, specSheetId: from }): readonly ChangedSheet[] => {
    if (from === null) return [];
    const what = component === 'plug' ? '' : ` for the ${PART_WORDS[component]}`;
    const { fitment } = fitmentFor({ vehicle, family, sheets }, component);
    if (fitment.kind !== 'match') {
      const changed = `No sheet${what} has a firm match for this vehicle any more. Resolve it on the vehicle’s page.`;
      return [{ taskId, from, to: null, changed }];
    }
    const { spec } = fitment;
    if (spec.id === from) return [];
    const changed = `Another sheet is in force now${what}: ${spec.sourceDocument}, revision ${spec.revision}, ${spec.part.number}.`;
    return [{ taskId, from, to: spec.id, changed }];
  });
}

/** The same in words for the order; null: every task works by the sheet in force. */
export async function sheetChange(...asked: Parameters<typeof changedSheets>): Promise<string | null> {
  const changed = await changedSheets(...asked);
  return changed.length === 0 ? null : [...new Set(changed.map((change) => change.changed))].join(' ');
}
