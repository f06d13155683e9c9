import { coilOf, terminalWords } from '../engine/coils';
import { type Layout, siteName } from '../engine/layout';
import { siteId } from '../engine/model';
import type { Mm } from '../shared/kinds';
import { towerMap } from './firing-map';
import { matchLeads } from './lead-match';

/** One lead of an engine: from where it runs to which plug, and which of a new set goes there. */
export interface LeadWay {
  readonly site: string;
  /** Its plug, as a person calls it. */
  readonly name: string;
  /** "tower 5", "coil 1+4", "upper terminal of coil 3". */
  readonly from: string;
  /** As the engine needs it; null: nobody has measured it. */
  readonly neededMm: Mm | null;
  /** Of the lead of the new set that goes here; null: not known, or none of the set is long enough. */
  readonly newMm: Mm | null;
}

/**
 * Every lead to a plug, in order of cylinder, with the lead of a new set that goes there by length.
 *
 * @param neededMm lengths as the engine needs them, in order of site, mm; null: nobody has measured them
 * @param newMm lengths of the new set, any order, mm; null: the catalogue has none
 */
export function leadWays(
  layout: Layout,
  neededMm: readonly Mm[] | null,
  newMm: readonly Mm[] | null,
): readonly LeadWay[] {
  const { model, sites } = layout;
  const towers = model.distributor ? towerMap(model.firingOrder, model.distributor) : [];
  const match = neededMm && newMm ? matchLeads(neededMm, newMm) : null;
  return sites.map((site, i) => {
    const tower = towers.find(({ cylinder }) => cylinder === site.cylinder);
    const lead = match?.assignment[i];
    return {
      site: siteId(site),
      name: siteName(layout, site),
      from: tower ? `tower ${tower.tower}` : terminalWords(model, site) || `coil ${coilOf(model, site)?.name ?? ''}`,
      neededMm: neededMm?.[i] ?? null,
      newMm: lead === undefined ? null : (newMm?.[lead] ?? null),
    };
  });
}
