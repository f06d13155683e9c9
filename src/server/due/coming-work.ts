import { comingVisits } from '@/core/due/coming-visits';
import type { ComingWork } from '@/core/due/horizon';
import { groupBy } from '@/core/shared/group-by';
import { isTaskComponent } from '@/core/work/task';
import type { ComingRow } from '@/db/queries/due';
import type { engineTimes } from '../work-orders/engine-times';

const toComing = ({ component, p10, p50, p90 }: ComingRow) =>
  isTaskComponent(component) ? [{ component, due: { p10, p50, p90 } }] : [];

/** What is coming as visits with their bay time. @param engines by id of their family; vehicles of others are left out */
export const comingWork = (
  rows: readonly ComingRow[],
  engines: ReadonlyMap<string, Pick<ReturnType<typeof engineTimes>, 'minutesOf'>>,
): readonly ComingWork[] =>
  [...groupBy(rows, (row) => row.vehicleId).values()].flatMap((rowsOfVehicle) => {
    const engine = engines.get(rowsOfVehicle[0]?.engineFamilyId ?? '');
    return engine ? comingVisits(engine.minutesOf, rowsOfVehicle.flatMap(toComing)) : [];
  });
