import { contradictionsOf } from './contradictions';
import type { MisfireCase } from './misfire-case';
import { type NextStep, nextSteps } from './next-step';
import { beliefOf, type Suspicion, suspicions } from './posterior';

interface Diagnosis {
  /** The most likely first; they add up to 1. */
  readonly hypotheses: readonly Suspicion[];
  /** The best first; what is done without any more tests is among them. */
  readonly steps: readonly NextStep[];
  /** A flashing lamp: the catalyst is being damaged. */
  readonly stopDriving: boolean;
  readonly contradictions: readonly string[];
}

/** From all that a case says to what is probably wrong, and what to do next. */
export function diagnose(given: MisfireCase): Diagnosis {
  const belief = beliefOf(given);
  return {
    hypotheses: suspicions(belief),
    steps: nextSteps(given, belief),
    stopDriving: given.lamp === 'flashing',
    contradictions: contradictionsOf(given),
  };
}
