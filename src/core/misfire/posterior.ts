import { type Evidence, evidenceOf } from './evidence';
import type { Hypothesis, MisfireCase } from './misfire-case';
import { type State, statesOf } from './states';

/** How likely each state is; they add up to 1. */
export interface Belief {
  readonly space: StateSpace;
  readonly chances: Float64Array;
}

/** States with the causes in them, each once. */
export interface StateSpace {
  readonly states: readonly State[];
  readonly hypotheses: readonly Hypothesis[];
  /** Places of the causes of each state. */
  readonly chances: readonly (readonly number[])[];
}

function spaceOf(states: readonly State[]): StateSpace {
  const places = new Map<string, number>();
  const hypotheses: Hypothesis[] = [];
  const chances = states.map(({ causes }) =>
    causes.map((hypothesis) => {
      const key = hypothesisKey(hypothesis);
      const place = places.get(key) ?? hypotheses.push(hypothesis) - 1;
      places.set(key, place);
      return place;
    }),
  );
  return { states, hypotheses, chances };
}

const normalised = (weights: Float64Array): Float64Array => {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return total > 0 ? weights.map((weight) => weight / total) : weights.map(() => 1 / weights.length);
};

/** What one piece of evidence makes of each state is worked out once: tests are weighed many times over. */
const weighed = new WeakMap<StateSpace, Map<string, Float64Array>>();

/** How likely a piece of evidence is in each state of a space. */
export function likelihoodsOf(space: StateSpace, { key, likelihood }: Evidence): Float64Array {
  const known = weighed.get(space) ?? new Map<string, Float64Array>();
  weighed.set(space, known);
  const weights = known.get(key) ?? Float64Array.from(space.states, likelihood);
  known.set(key, weights);
  return weights;
}

/** Bayes: what is believed once a piece of evidence is seen. */
export function updated({ space, chances }: Belief, evidence: Evidence): Belief {
  const likelihoods = likelihoodsOf(space, evidence);
  return { space, chances: normalised(chances.map((chance, i) => chance * (likelihoods[i] ?? 0))) };
}

/** How likely a piece of evidence is, as things are believed. */
export function chanceOf({ space, chances }: Belief, evidence: Evidence): number {
  const likelihoods = likelihoodsOf(space, evidence);
  return chances.reduce((sum, chance, i) => sum + chance * (likelihoods[i] ?? 0), 0);
}

/** What is believed of a case before anything is seen: by its engine, its ages, its record and the work before. */
export function beliefBefore(given: MisfireCase): Belief {
  const states = statesOf(given);
  return { space: spaceOf(states), chances: normalised(Float64Array.from(states, ({ weight }) => weight)) };
}

/** The same with some evidence, in an order of its own, so that the order in which it was told changes nothing at all. */
export const withEvidence = (before: Belief, evidence: readonly Evidence[]): Belief =>
  [...evidence].sort((a, b) => (a.key < b.key ? -1 : 1)).reduce(updated, before);

/** What is believed of a case, with everything that it says. */
export const beliefOf = (given: MisfireCase): Belief => withEvidence(beliefBefore(given), evidenceOf(given));

/** In bits. */
export const entropy = ({ chances }: Belief): number =>
  chances.reduce((sum, chance) => (chance > 0 ? sum - chance * Math.log2(chance) : sum), 0);

export interface Suspicion extends Hypothesis {
  readonly probability: number;
}

export const hypothesisKey = ({ cause, cylinders }: Hypothesis): string => `${cause} ${cylinders.join(',')}`;

/** Of each cause of a space, in its order; of two at once each takes half. They add up to 1. */
export function probabilities({ space, chances }: Belief): Float64Array {
  const sums = new Float64Array(space.hypotheses.length);
  for (let i = 0; i < space.chances.length; i += 1) {
    const places = space.chances[i] ?? [];
    const each = (chances[i] ?? 0) / places.length;
    for (const place of places) sums[place] = (sums[place] ?? 0) + each;
  }
  return sums;
}

/** Each cause with its probability, the most likely first. */
export function suspicions(belief: Belief): readonly Suspicion[] {
  const sums = probabilities(belief);
  return belief.space.hypotheses
    .map((hypothesis, i) => ({ ...hypothesis, probability: sums[i] ?? 0 }))
    .sort((a, b) => b.probability - a.probability);
}
