import { storyOf } from '@/core/misfire/case-entry';
import { mayMisfire } from '@/core/misfire/case-state';
import { type DrivingAdvice, drivingOf } from '@/core/misfire/driving';
import { type CaseListRow, loadCaseEntries } from '@/db/queries/misfire';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { isStoppedByFinding } from './case-facts';
import { entriesOf } from './keep-entries';

export const FREE: DrivingAdvice = { driving: 'free', reasons: [] };

/** Cases of a list, each with whether its vehicle may be driven on. */
export const withDriving = (deps: Deps, actor: Actor, rows: readonly CaseListRow[]) =>
  Promise.all(
    rows.map(async (row) => {
      const { id, state, vehicleId } = row.misfire;
      if (!mayMisfire(state)) return { ...row, advice: FREE };
      const story = storyOf(entriesOf(await loadCaseEntries(deps.db, id)));
      const stoppedByFinding = await isStoppedByFinding(deps, actor, vehicleId);
      return { ...row, advice: drivingOf({ ...story, stoppedByFinding }) };
    }),
  );

export type CaseInList = Awaited<ReturnType<typeof withDriving>>[number];
