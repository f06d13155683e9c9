import { isAnotherPart, sameNumbers } from '@/core/catalogue/same-part';
import type { SupersessionGraph } from '@/core/catalogue/supersession';
import type { SiteKey } from '@/core/engine/model';
import { allPlaces, choosePlaces, isOfEngine, placeId, standsAt } from '@/core/engine/places';
import type { Wear } from '@/core/gap/wear';
import { type Answer, answersTo } from '@/core/inspection/answer';
import {
  type EngineReading,
  type Finding,
  findingKey,
  type Observation,
  type OutOfRange,
  type SiteReading,
} from '@/core/inspection/finding';
import { readEngine } from '@/core/inspection/findings';
import { isCondition } from '@/core/inspection/vocabulary';
import { sayOhmRange, sayOhms } from '@/core/units/say';
import { wornOutAt } from '@/core/work/inspection';
import { isResistanceInRange, ohmRange } from '@/core/work/place-done';
import { placeTarget } from '@/core/work/targets';
import type { Querier } from '@/db/client';
import type { SpecSheet } from '@/db/queries/catalogue';
import { loadVerdicts, type VerdictRow } from '@/db/queries/findings';
import type { PlaceRow } from '@/db/queries/work-orders';
import { gapSpecOf } from '../catalogue/fitment-of';
import { type FloorState, leadLengthOf } from '../work-orders/order-state';
import { targetOf } from '../work-orders/place-record';

/** Beyond this a gap is worn out, mm. */
export const gapLimitOf = (spec: SpecSheet): number => wornOutAt(gapSpecOf(spec));

export interface FindingView extends Finding {
  readonly key: string;
  /** What a person said to it; null: nobody yet. */
  readonly verdict: VerdictRow | null;
  /** It was said to something that no longer shows: the record has been changed since. */
  readonly past: boolean;
  /** What would answer it, and is not on an open order yet. */
  readonly answers: readonly Answer[];
}

/** A finding that was kept before findings said this of themselves. */
const EARLIER: Pick<Finding, 'against' | 'looked' | 'of'> = { against: [], looked: 0, of: 0 };

/** What the removed parts of an order say, with what people said to it. */
export async function findingsOf(q: Querier, state: FloorState): Promise<readonly FindingView[]> {
  const { order, layout, resting, spec } = state;
  const findings = readEngine({
    layout,
    deactivated: resting,
    directionKnown: order.trayFirst !== null,
    gapLimitMm: spec && gapLimitOf(spec),
    sites: layout.sites.map((site) => readingAt(state, site)),
    engine: engineReading(state),
  });
  const verdicts = new Map((await loadVerdicts(q, order.id)).map((row) => [row.verdict.findingKey, row]));
  const now = findings.map((finding) => {
    const key = findingKey(finding);
    return { ...finding, key, verdict: verdicts.get(key) ?? null, past: false, answers: answersOf(state, finding) };
  });
  const keys = new Set(now.map(({ key }) => key));
  const gone = [...verdicts.values()].filter(({ verdict }) => !keys.has(verdict.findingKey));
  return [
    ...now,
    ...gone.map((row) => ({
      ...EARLIER,
      ...row.verdict.found,
      key: row.verdict.findingKey,
      verdict: row,
      past: true,
      answers: [],
    })),
  ];
}

/** The tasks that would answer a finding, but for those whose places are on this order already. */
function answersOf({ layout, places }: FloorState, finding: Finding): readonly Answer[] {
  const here = new Set(places.filter(({ live }) => live).map(targetOf));
  return answersTo(finding, (component) => allPlaces(layout, component).length > 0).filter(
    ({ component, places: at }) => {
      const chosen = choosePlaces(layout, component, at);
      return chosen.ok && chosen.value.every((place) => !here.has(placeTarget(component, placeId(place))));
    },
  );
}

/** What was found at one plug site: at the plug itself, and at the coil, boot, lead and seal above it. */
function readingAt(state: FloorState, site: SiteKey): SiteReading {
  const { layout, places, outgoing, graph } = state;
  const here = places.filter((place) => place.movedToId === null && standsAt(layout, place.component, place, site));
  const plug = here.find(({ component }) => component === 'plug');
  return {
    cylinder: site.cylinder,
    position: site.position,
    seen: seenAt(here),
    gapMm: plug?.removedGapMm ?? null,
    breakaway: plug?.breakawayFeel ?? null,
    differs: plug ? foundDiffers(plug, graph) : null,
    outOfRange: here.flatMap((place) => outOfRange(state, place)),
    wear: plug ? wearOf(plug, outgoing, graph) : null,
  };
}

/** What cap, rotor and lead set show. */
function engineReading(state: FloorState): EngineReading['engine'] {
  const places = state.places.filter(({ component, movedToId }) => movedToId === null && isOfEngine(component));
  return { seen: seenAt(places), outOfRange: places.flatMap((place) => outOfRange(state, place)) };
}

/** The words of some places; null: nobody has looked at any of them. */
const seenAt = (places: readonly PlaceRow[]): readonly Observation[] | null =>
  places.every(({ conditions }) => conditions === null)
    ? null
    : places.flatMap(({ conditions, severities }) =>
        (conditions ?? [])
          .filter(isCondition)
          .map((condition): Observation => ({ condition, severity: severities[condition] ?? 2 })),
      );

/** What a meter said at a place that its sheet does not allow. */
function outOfRange(state: FloorState, place: PlaceRow): readonly OutOfRange[] {
  const rules = state.tasks.find(({ row }) => row.id === place.taskId)?.rules;
  if (!rules || rules.component === 'plug') return [];
  const measured = [
    ['primary', place.primaryOhm, rules.primaryOhm],
    ['secondary', place.secondaryOhm, rules.secondaryOhm],
    [place.component === 'rotor' ? 'rotor' : 'lead', place.ohm, ohmRange(rules, leadLengthOf(state, place))],
  ] as const;
  return measured.flatMap(([component, ohm, range]) =>
    ohm !== null && range && isResistanceInRange(ohm, range) === false
      ? [{ measured: component, words: `${component} ${sayOhms(ohm)}, sheet ${sayOhmRange(range)}` }]
      : [],
  );
}

/** Only where the gap was measured both times and the part is the one that was fitted. */
export function wearOf(plug: PlaceRow, outgoing: FloorState['outgoing'], graph: SupersessionGraph): Wear | null {
  const { fitted, sinceKm = null } = outgoing.get(targetOf(plug)) ?? {};
  if (!fitted?.gapMm || !plug.removedGapMm || sinceKm === null || foundDiffers(plug, graph)) return null;
  return { fittedMm: fitted.gapMm, removedMm: plug.removedGapMm, sinceKm };
}

/** The number read off the part is neither the one on record nor a renumbering of it. Null: one of the two is not known. */
export function foundDiffers(place: PlaceRow, graph: SupersessionGraph): boolean | null {
  return isAnotherPart(
    place.observedNumber,
    place.expectedNumber === null ? null : sameNumbers(place.expectedNumber, graph),
  );
}

/** Those that stop the work and on which no supervisor has spoken. */
export const stopsOf = (findings: readonly FindingView[]): readonly FindingView[] =>
  findings.filter(({ urgency, verdict, past }) => urgency === 'stop' && !past && verdict?.role !== 'supervisor');
