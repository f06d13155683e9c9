import type { z } from 'zod';
import type { caseDetail, caseItem } from '@/contracts/http/misfire';
import type { CaseListRow } from '@/db/queries/misfire';
import type { CaseView } from '@/server/misfire/view-case';
import { stepText, stepWhy } from '@/text/misfire-words';

/* Misfires as the interface tells of them. */

export const toCase = ({ misfire, unitNumber, orderNumber }: CaseListRow): z.output<typeof caseItem> => ({
  id: misfire.id,
  number: misfire.number,
  unit_number: unitNumber,
  state: misfire.state,
  opened_on: misfire.openedOn,
  opened_km: misfire.openedKm,
  points_to: misfire.pointsTo && { ...misfire.pointsTo, cylinders: [...misfire.pointsTo.cylinders] },
  work_order: orderNumber,
  watch_until_km: misfire.watchUntilKm,
});

export function toCaseDetail(view: CaseView): z.output<typeof caseDetail> {
  const { advice, facts, entries } = view;
  const [next] = advice.steps;
  return {
    ...toCase(view),
    entries: entries.map(({ entry, who }) => ({
      id: entry.id,
      at: entry.at.toISOString(),
      by: entry.driver ?? who,
      said: { ...entry.said },
    })),
    hypotheses: advice.causes.map(({ cause, cylinders, probability }) => ({
      cause,
      cylinders: [...cylinders],
      probability,
    })),
    next: next
      ? {
          action: next.action,
          test: next.test?.test ?? null,
          component: next.component,
          cylinders: [...next.cylinders],
          minutes: next.minutes,
          expected_cost: next.expectedCost,
          says: stepText(next, facts.engine.ignition),
          why: stepWhy(next, facts.currency),
        }
      : null,
    stop_driving: advice.driving === 'stop',
    driving: advice.driving,
    contradictions: [...advice.contradictions],
  };
}
