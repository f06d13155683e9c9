import { isAnotherPart, sameNumbers } from '@/core/catalogue/same-part';
import type { SupersessionGraph } from '@/core/catalogue/supersession';
import { siteId } from '@/core/engine/model';
import type { Wear } from '@/core/gap/wear';
import { type Finding, findingKey, type SiteReading } from '@/core/inspection/finding';
import { readEngine } from '@/core/inspection/findings';
import { isCondition } from '@/core/inspection/vocabulary';
import type { Querier } from '@/db/client';
import type { SpecSheet } from '@/db/queries/catalogue';
import { loadVerdicts, type VerdictRow } from '@/db/queries/findings';
import type { SiteRow } from '@/db/queries/work-orders';
import type { FloorState } from '../work-orders/order-state';

/** A gap is worn out beyond this multiple of the nominal one. Source: general trade guidance. */
const WORN_OUT = 1.3;

/** Beyond this a gap is worn out, mm. */
export const gapLimitOf = (spec: Pick<SpecSheet, 'gapTargetMm' | 'gapMinMm' | 'gapMaxMm'>): number =>
  WORN_OUT * (spec.gapTargetMm ?? (spec.gapMinMm + spec.gapMaxMm) / 2);

export interface FindingView extends Finding {
  readonly key: string;
  /** What a person said to it; null: nobody yet. */
  readonly said: VerdictRow | null;
  /** It was said to something that no longer shows: the record has been changed since. */
  readonly past: boolean;
}

/** A finding that was kept before findings said this of themselves. */
const EARLIER: Pick<Finding, 'against' | 'looked' | 'of'> = { against: [], looked: 0, of: 0 };

/** What the removed parts of an order say, with what people said to it. */
export async function findingsOf(
  q: Querier,
  { order, layout, resting, spec, sites, outgoing, graph }: FloorState,
): Promise<readonly FindingView[]> {
  const found = readEngine({
    layout,
    deactivated: resting,
    directionKnown: order.trayFirst !== null,
    gapLimitMm: gapLimitOf(spec),
    sites: sites.map((site) => readingOf(site, outgoing, graph)),
  });
  const said = new Map((await loadVerdicts(q, order.id)).map((row) => [row.verdict.findingKey, row]));
  const now = found.map((finding) => {
    const key = findingKey(finding);
    return { ...finding, key, said: said.get(key) ?? null, past: false };
  });
  const keys = new Set(now.map(({ key }) => key));
  const gone = [...said.values()].filter(({ verdict }) => !keys.has(verdict.findingKey));
  return [
    ...now,
    ...gone.map((row) => ({ ...EARLIER, ...row.verdict.found, key: row.verdict.findingKey, said: row, past: true })),
  ];
}

function readingOf(site: SiteRow, outgoing: FloorState['outgoing'], graph: SupersessionGraph): SiteReading {
  const words = site.conditions?.filter(isCondition) ?? null;
  return {
    cylinder: site.cylinder,
    position: site.position,
    seen: words?.map((condition) => ({ condition, severity: site.severities[condition] ?? 2 })) ?? null,
    gapMm: site.removedGapMm,
    breakaway: site.breakawayFeel,
    differs: foundDiffers(site, graph),
    wear: wearOf(site, outgoing, graph),
  };
}

/** Only where the gap was measured both times and the part is the one that was fitted. */
export function wearOf(site: SiteRow, outgoing: FloorState['outgoing'], graph: SupersessionGraph): Wear | null {
  const { fitted, sinceKm = null } = outgoing.get(siteId(site)) ?? {};
  if (!fitted?.gapMm || !site.removedGapMm || sinceKm === null || foundDiffers(site, graph)) return null;
  return { fittedMm: fitted.gapMm, removedMm: site.removedGapMm, sinceKm };
}

/** The number read off the part is neither the one on record nor a renumbering of it. Null: one of the two is not known. */
export function foundDiffers(site: SiteRow, graph: SupersessionGraph): boolean | null {
  return isAnotherPart(
    site.observedNumber,
    site.expectedNumber === null ? null : sameNumbers(site.expectedNumber, graph),
  );
}

/** Those that stop the work and on which no supervisor has spoken. */
export const stopsOf = (findings: readonly FindingView[]): readonly FindingView[] =>
  findings.filter(({ urgency, said, past }) => urgency === 'stop' && !past && said?.role !== 'supervisor');
