import { cylindersText, siteName } from '@/core/engine/layout';
import { type Missing, missingToClose } from '@/core/work/closing';
import { isLifted, shutByNotDone } from '@/core/work/gates';
import { countsIn } from '@/core/work/order-model';
import { placeName } from '@/core/work/say-places';
import type { Querier } from '@/db/client';
import { loadDifferences, loadWaits } from '@/db/queries/work-entries';
import { CAUSE_WORDS } from '@/text/cause-words';
import { type FindingView, stopsOf } from '../findings/findings-of';
import { type FloorState, jobRecordOf, needsRedo, orderModelOf } from './order-state';
import { stateOfPlace } from './place-record';

/** What is still missing before an order can be closed. @param sheetChanged as `sheetChange` says it */
export async function missingOf(
  q: Querier,
  state: FloorState,
  findings: readonly FindingView[],
  sheetChanged: string | null,
): Promise<readonly Missing[]> {
  const { order, layout, tasks, places, steps } = state;
  const [model, record] = [orderModelOf(state), jobRecordOf(state)];
  const waits = await loadWaits(q, order.fleetId, { workOrderId: order.id, open: true });
  return [
    ...stopsOf(findings).map(
      ({ cause, sites }): Missing => ({
        says: `Stop: ${CAUSE_WORDS[cause]}, ${cylindersText(sites.map((site) => siteName(layout, site)))}. A supervisor has to decide.`,
        at: 'findings',
      }),
    ),
    ...missingToClose({
      places: places.map((place) => ({
        component: place.component,
        name: placeName(layout, place.component, place),
        state: stateOfPlace(place),
        redo: needsRedo(place, tasks),
      })),
      steps,
      counts: isLifted(model, 'counts') ? [] : countsIn(model, record),
      gates: shutByNotDone(model, record),
      differences: (await loadDifferences(q, order.id)).length,
      waits: waits.map(({ wait }) => [wait.reason, wait.partNumber].filter(Boolean).join(', ')),
      sheetChanged,
    }),
  ];
}
