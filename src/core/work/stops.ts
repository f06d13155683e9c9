import { type Layout, siteId } from '../engine/layout';
import { type Finding, findingKey } from '../inspection/finding';
import { readEngine } from '../inspection/findings';
import type { BreakawayFeel, Condition } from '../inspection/vocabulary';
import type { JobRecord } from './entry';
import { ORDER_TARGET, siteTarget } from './entry-fields';

/**
 * Findings that stop the work, from what stands on a device: told at once, with the network gone too, by the rules of the desk.
 *
 * @param decided keys of findings on which a supervisor has spoken
 */
export function stopsOnRecord(layout: Layout, record: JobRecord, decided: readonly string[]): readonly Finding[] {
  const sites = layout.sites.map((site) => {
    const fields = record[siteTarget(siteId(site))] ?? {};
    const seen = Object.entries((fields.seen ?? {}) as Readonly<Record<Condition, 1 | 2 | 3>>);
    return {
      cylinder: site.cylinder,
      position: site.position,
      seen:
        seen.length === 0
          ? null
          : seen.map(([condition, severity]) => ({ condition: condition as Condition, severity })),
      gapMm: null,
      breakaway: (fields.breakawayFeel ?? null) as BreakawayFeel | null,
      differs: null,
      wear: null,
    };
  });
  const directionKnown = Boolean(record[ORDER_TARGET]?.trayFirst);
  return readEngine({ layout, deactivated: [], directionKnown, gapLimitMm: null, sites }).filter(
    (finding) => finding.urgency === 'stop' && !decided.includes(findingKey(finding)),
  );
}
