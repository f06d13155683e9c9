import type { Mm } from '../shared/kinds';
export interface LeadMatch {
  readonly feasible: boolean;
  /** For each length needed the index of the new lead; empty when not feasible. */
  readonly assignment: readonly number[];
  /** Sum of new less needed over the leads used, mm; null when not feasible. */
  readonly totalSlackMm: Mm | null;
  /** New leads left over. */
  readonly spare: readonly number[];
  /** Places whose new lead has the same length as another's: either may go there. */
  readonly ties: readonly number[];
  /** The first place, longest first, for which no lead is long enough. */
  readonly tooShortFor: number | null;
}

/**
 * Assigns a new set of leads to the places of the old by length: each at least as long as needed, least total slack.
 *
 * Whatever is long enough for one place is long enough for every shorter one, so the sets of leads that fit are nested.
 * Filling the longest place first, always with the shortest lead that fits, therefore picks the set of least total
 * length (a greedy basis of a matroid); the set is then dealt by rank, so that slack is spread and not heaped.
 *
 * @param neededMm lengths of the places, any order, mm
 * @param newMm lengths of the new leads, at least as many, mm
 */
export function matchLeads(neededMm: readonly number[], newMm: readonly number[]): LeadMatch {
  const places = byLength(neededMm);
  const leads = byLength(newMm);
  const free = new Set(leads);
  const used: number[] = [];
  for (const place of [...places].reverse()) {
    const lead = leads.find((i) => free.has(i) && at(newMm, i) >= at(neededMm, place));
    if (lead === undefined) return infeasible(newMm, place);
    free.delete(lead);
    used.push(lead);
  }
  const dealt = used.sort((a, b) => at(newMm, a) - at(newMm, b) || a - b);
  const assignment = neededMm.map((_, place) => at(dealt, places.indexOf(place)));
  const lengths = assignment.map((lead) => at(newMm, lead));
  return {
    feasible: true,
    assignment,
    totalSlackMm: sum(lengths) - sum(neededMm),
    spare: [...free].sort((a, b) => a - b),
    ties: lengths.flatMap((length, place) => (lengths.filter((other) => other === length).length > 1 ? [place] : [])),
    tooShortFor: null,
  };
}

const infeasible = (newMm: readonly number[], place: number): LeadMatch => ({
  feasible: false,
  assignment: [],
  totalSlackMm: null,
  spare: newMm.map((_, i) => i),
  ties: [],
  tooShortFor: place,
});

const at = (values: readonly number[], i: number): number => values[i] ?? Number.NaN;
const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
const byLength = (values: readonly number[]): readonly number[] =>
  values.map((_, i) => i).sort((a, b) => at(values, a) - at(values, b) || a - b);
