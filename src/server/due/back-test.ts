import type { PlainDate } from '@/core/calendar/plain-date';
import { type BackTest, backTest, type PastForecast, pastForecasts } from '@/core/due/back-test';
import { groupBy } from '@/core/shared/group-by';
import type { FleetId } from '@/core/shared/kinds';
import type { Tx } from '@/db/client';
import { lockFleet } from '@/db/locks';
import { loadPast, saveBackTests } from '@/db/queries/back-tests';
import { updateDueStatus } from './due-status';

/** So many vehicles of a duty group tell enough. */
const PER_GROUP = 60;
/** How far back, days. */
const PAST_DAYS = 1100;
/** Fewer forecasts than this say less of a group than those of the whole fleet do. */
const OWN_GROUP = 100;

/** Holds forecasts of a fleet's past against what came, and takes what that teaches over into every due date. */
export async function backTestFleet(tx: Tx, fleetId: FleetId, today: PlainDate): Promise<void> {
  const past = (await loadPast(tx, fleetId, { perGroup: PER_GROUP, days: PAST_DAYS })).flatMap(
    ({ dutyGroup, readings }) => pastForecasts(readings).map((forecast) => ({ dutyGroup, forecast })),
  );
  const taught = new Map<string, BackTest>();
  const learn = (name: string, forecasts: readonly PastForecast[]): void => {
    const result = backTest(forecasts);
    if (result) taught.set(name, result);
  };
  for (const [group, rows] of groupBy(past, ({ dutyGroup }) => dutyGroup))
    if (rows.length >= OWN_GROUP)
      learn(
        group,
        rows.map(({ forecast }) => forecast),
      );
  learn(
    WHOLE_FLEET,
    past.map(({ forecast }) => forecast),
  );
  await lockFleet(tx, fleetId, true);
  await saveBackTests(tx, fleetId, taught);
  await updateDueStatus(tx, fleetId, today, null);
}

/** The name under which that of all duty groups is kept. */
const WHOLE_FLEET = '';
