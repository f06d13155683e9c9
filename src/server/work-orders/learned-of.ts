import { type Learned, learntMinutes, type TimeRatio } from '@/core/work/procedure/learned';
import type { ProcedureEngine } from '@/core/work/procedure/step';
import { hardestAccess, type VisitTask } from '@/core/work/procedure/visit';
import type { Querier } from '@/db/client';
import type { EngineFamily } from '@/db/queries/catalogue';
import { loadTimeRatios } from '@/db/queries/work-entries';
import type { FloorState } from './order-state';
import { procedureInput } from './procedure-of';

/** Worked over computed, of the closed visits of one family. */
export const ratiosOf = async (
  q: Querier,
  { fleetId, id }: Pick<EngineFamily, 'fleetId' | 'id'>,
): Promise<readonly TimeRatio[]> => (await loadTimeRatios(q, fleetId, id)).get(id) ?? [];

/** What the closed visits of its family say of the minutes of an order. */
export async function learnedFor(q: Querier, state: FloorState): Promise<Learned> {
  return learntMinutes(await ratiosOf(q, state.family), hardestAccess(procedureInput(state, null)));
}

/** An engine with its minutes corrected, for visits of these tasks. */
export const corrected = (
  engine: ProcedureEngine,
  tasks: readonly VisitTask[],
  ratios: readonly TimeRatio[],
): ProcedureEngine => ({
  ...engine,
  correction: learntMinutes(ratios, hardestAccess({ ...engine, tasks })).factor,
});
