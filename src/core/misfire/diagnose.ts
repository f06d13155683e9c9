import { contradictionsOf } from './contradictions';
import { type DrivingAdvice, drivingOf } from './driving';
import type { MisfireCase } from './misfire-case';
import { withNamedParts } from './named-parts';
import { type NextStep, nextSteps } from './next-step';
import { beliefOf, type Suspicion, suspicions } from './posterior';

interface Diagnosis extends DrivingAdvice {
  /** The most likely first; they add up to 1. */
  readonly hypotheses: readonly Suspicion[];
  /** The best first; what is done without any more tests is among them. */
  readonly steps: readonly NextStep[];
  readonly contradictions: readonly string[];
}

/**
 * From all that a case says to what is probably wrong, and what to do next.
 *
 * @param ahead how many tests ahead the cost to cure is worked out
 */
export function diagnose(told: MisfireCase, ahead: 1 | 2 = 2): Diagnosis {
  const given = withNamedParts(told);
  const belief = beliefOf(given);
  return {
    hypotheses: suspicions(belief),
    steps: nextSteps(given, belief, ahead),
    ...drivingOf(given),
    contradictions: contradictionsOf(given),
  };
}
