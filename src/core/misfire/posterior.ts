import { type Evidence, evidenceOf } from './evidence';
import type { Hypothesis, MisfireCase } from './misfire-case';
import { type State, statesOf } from './states';

/** How likely each state is; they add up to 1. */
export interface Belief {
  readonly space: StateSpace;
  readonly chances: Float64Array;
}

/** States with the causes in them, each once. */
interface StateSpace {
  readonly states: readonly State[];
  readonly hypotheses: readonly Hypothesis[];
  /** Places of the causes of each state. */
  readonly of: readonly (readonly number[])[];
}

function spaceOf(states: readonly State[]): StateSpace {
  const places = new Map<string, number>();
  const hypotheses: Hypothesis[] = [];
  const of = states.map(({ causes }) =>
    causes.map((hypothesis) => {
      const key = hypothesisKey(hypothesis);
      const place = places.get(key) ?? hypotheses.push(hypothesis) - 1;
      places.set(key, place);
      return place;
    }),
  );
  return { states, hypotheses, of };
}

const normalised = (weights: Float64Array): Float64Array => {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return total > 0 ? weights.map((weight) => weight / total) : weights.map(() => 1 / weights.length);
};

/** Bayes: what is believed once a piece of evidence is seen. */
export const updated = ({ space, chances }: Belief, { likelihood }: Evidence): Belief => ({
  space,
  chances: normalised(Float64Array.from(space.states, (state, i) => (chances[i] ?? 0) * likelihood(state))),
});

/** How likely a piece of evidence is, as things are believed. */
export const chanceOf = ({ space, chances }: Belief, { likelihood }: Evidence): number =>
  space.states.reduce((sum, state, i) => sum + (chances[i] ?? 0) * likelihood(state), 0);

/** What is believed of a case, with everything that it says. */
export function beliefOf(given: MisfireCase): Belief {
  const states = statesOf(given);
  const before = { space: spaceOf(states), chances: normalised(Float64Array.from(states, ({ weight }) => weight)) };
  // In an order of its own, so that the order in which it was told changes nothing at all.
  const evidence = [...evidenceOf(given)].sort((a, b) => (a.key < b.key ? -1 : 1));
  return evidence.reduce(updated, before);
}

/** In bits. */
export const entropy = ({ chances }: Belief): number =>
  chances.reduce((sum, chance) => (chance > 0 ? sum - chance * Math.log2(chance) : sum), 0);

export interface Suspicion extends Hypothesis {
  readonly probability: number;
}

export const hypothesisKey = ({ cause, cylinders }: Hypothesis): string => `${cause} ${cylinders.join(',')}`;

/** Each cause with its probability, the most likely first; of two at once each takes half. They add up to 1. */
export function suspicions({ space, chances }: Belief): readonly Suspicion[] {
  const sums = new Float64Array(space.hypotheses.length);
  for (const [i, places] of space.of.entries())
    for (const place of places) sums[place] = (sums[place] ?? 0) + (chances[i] ?? 0) / places.length;
  return space.hypotheses
    .map((hypothesis, i) => ({ ...hypothesis, probability: sums[i] ?? 0 }))
    .sort((a, b) => b.probability - a.probability);
}
