import type { Evidence, EvidenceAbout } from './evidence';
import type { Hypothesis, MisfireCase } from './misfire-case';
import { type Belief, hypothesisKey, likelihoodsOf } from './posterior';
import { factorsOf, RECORD_FACTORS, type RecordFactor } from './states';

/* What speaks for a cause and against it, so that nobody has to believe a figure. */

export interface Reason {
  readonly about: EvidenceAbout | { readonly kind: 'record'; readonly factor: RecordFactor };
  /** Above 0 for it, below 0 against it: by how much it moves the odds, bits. */
  readonly bits: number;
}

/** Less than that is not worth a line. */
const WORTH_SAYING = 0.4;

/** How much a piece of evidence speaks for the states with a cause, against how likely it is at all. */
function bitsOf({ space, chances }: Belief, place: number, evidence: Evidence): number {
  const likelihoods = likelihoodsOf(space, evidence);
  let [all, alone, weight] = [0, 0, 0];
  for (const [i, chance] of chances.entries()) {
    const likelihood = likelihoods[i] ?? 0;
    all += chance * likelihood;
    if (!space.chances[i]?.includes(place)) continue;
    alone += chance * likelihood;
    weight += chance;
  }
  return weight > 0 && all > 0 && alone > 0 ? Math.log2(alone / weight / all) : 0;
}

/**
 * Why each of some causes is as likely as it is: what says most first.
 *
 * @param before what was believed before any of the evidence
 */
export function reasonsFor(
  given: MisfireCase,
  before: Belief,
  evidence: readonly Evidence[],
  causes: readonly Hypothesis[],
): readonly (readonly Reason[])[] {
  const places = new Map(before.space.hypotheses.map((hypothesis, i) => [hypothesisKey(hypothesis), i]));
  return causes.map((cause) => {
    const place = places.get(hypothesisKey(cause)) ?? -1;
    const factors = factorsOf(given, cause);
    const reasons: readonly Reason[] = [
      ...evidence.map(({ about, ...item }) => ({ about, bits: bitsOf(before, place, { about, ...item }) })),
      ...RECORD_FACTORS.map((factor) => ({
        about: { kind: 'record' as const, factor },
        bits: Math.log2(factors[factor]),
      })),
    ];
    return reasons
      .filter(({ bits }) => Math.abs(bits) >= WORTH_SAYING)
      .sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits));
  });
}
