import { contradictionsOf } from './contradictions';
import { type DrivingAdvice, drivingOf } from './driving';
import { evidenceOf, ofOutcome, outcomesOf, withOutcome } from './evidence';
import type { MisfireCase, MisfireTest, SwapOutcome, TestOutcome } from './misfire-case';
import { cylindersOf } from './misfire-case';
import { withNamedParts } from './named-parts';
import { type NextStep, nextSteps, stepsAhead } from './next-step';
import {
  type Belief,
  beliefBefore,
  chanceOf,
  hypothesisKey,
  type Suspicion,
  suspicions,
  updated,
  withEvidence,
} from './posterior';
import { type Reason, reasonsFor } from './reasons';

/* All that a screen tells of a case: what is suspected and why, what to do next, and what each outcome of it would mean. */

export interface Ranked extends Suspicion {
  /** Before anything was seen: by engine, ages, record and the work before. */
  readonly before: number;
  readonly reasons: readonly Reason[];
}

/** One line of a truth table. */
export interface OutcomeAhead {
  readonly outcome: SwapOutcome | TestOutcome;
  /** How likely it is to come out so. */
  readonly chance: number;
  /** What would be the most likely then. */
  readonly cause: Suspicion | null;
  /** What would be done then; null: nothing that is known. */
  readonly next: NextStep | null;
}

/** A test with its truth table. */
export interface Tried {
  readonly test: MisfireTest | null;
  /** Empty where it is no test. */
  readonly outcomes: readonly OutcomeAhead[];
}

export type StepAhead = NextStep & Tried;

export interface Advice extends DrivingAdvice {
  /** The most likely first, as far as each is worth a line. */
  readonly causes: readonly Ranked[];
  /** Of all others together. */
  readonly others: number;
  /** How much of the suspicion lies on each cylinder; what concerns a bank or the engine is in none. */
  readonly byCylinder: readonly { readonly cylinder: number; readonly share: number }[];
  readonly steps: readonly StepAhead[];
  /** Of a swap that is underway: what its outcomes mean. */
  readonly underway: Tried | null;
  /** Parts that were replaced and cured nothing. */
  readonly replacedInVain: number;
  readonly contradictions: readonly string[];
}

/** A case to be worked out elsewhere, and what comes back. */
export interface AdviceTask {
  /** Comes back with the answer: one that is no longer asked for is left. */
  readonly asked: number;
  readonly given: MisfireCase;
  readonly underway: MisfireTest | null;
}
export interface AdviceNews {
  readonly asked: number;
  readonly advice: Advice;
}

const MAX_CAUSES = 7;
const MIN_SHARE = 0.01;
/** Tests that are worth it, and tests that somebody may do all the same. */
const MAX_TESTS = 4;
const MAX_OTHERS = 4;

/**
 * What to make of a case.
 *
 * @param underway a test that was begun and has no outcome yet
 */
export function adviceOn(told: MisfireCase, underway: MisfireTest | null = null): Advice {
  const given = withNamedParts(told);
  const prior = beliefBefore(given);
  const evidence = evidenceOf(given);
  const belief = withEvidence(prior, evidence);
  const all = suspicions(belief);
  const shown = all.filter(({ probability }) => probability >= MIN_SHARE).slice(0, MAX_CAUSES);
  const before = new Map(suspicions(prior).map((suspicion) => [hypothesisKey(suspicion), suspicion.probability]));
  const reasons = reasonsFor(given, prior, evidence, shown);
  const steps = chosenSteps(given, belief);
  return {
    causes: shown.map((cause, i) => ({
      ...cause,
      before: before.get(hypothesisKey(cause)) ?? 0,
      reasons: reasons[i] ?? [],
    })),
    others: Math.max(0, 1 - shown.reduce((sum, { probability }) => sum + probability, 0)),
    byCylinder: shares(given, all),
    steps: steps.map((step) => ({ ...step, outcomes: step.test ? outcomesAhead(given, belief, step.test) : [] })),
    underway: underway && { test: underway, outcomes: outcomesAhead(given, belief, underway) },
    ...drivingOf(given),
    replacedInVain: given.testsDone.filter(({ test, outcome }) => test === 'replace' && outcome === 'not_cured').length,
    contradictions: contradictionsOf(given),
  };
}

/** A person may do another test than those that are worth it; of those each part's swap comes first. */
function chosenSteps(given: MisfireCase, belief: Belief): readonly NextStep[] {
  const { worthwhile, cure, others } = stepsAhead(given, belief);
  const rest = [...worthwhile.slice(MAX_TESTS), ...others];
  const isSwap = ({ test }: NextStep): boolean => test?.test === 'swap';
  const shown = [...rest.filter(isSwap), ...rest.filter((step) => !isSwap(step))].slice(0, MAX_OTHERS);
  return [...worthwhile.slice(0, MAX_TESTS), ...(cure ? [cure] : []), ...shown];
}

function shares({ engine }: MisfireCase, all: readonly Suspicion[]): Advice['byCylinder'] {
  const sums = new Map<number, number>();
  for (const { cylinders, probability } of all)
    if (cylinders.length <= 2)
      for (const cylinder of cylinders) sums.set(cylinder, (sums.get(cylinder) ?? 0) + probability / cylinders.length);
  return cylindersOf(engine).map((cylinder) => ({ cylinder, share: sums.get(cylinder) ?? 0 }));
}

/** What each outcome of a test would mean, and what would be done then. */
function outcomesAhead(given: MisfireCase, belief: Belief, test: MisfireTest): readonly OutcomeAhead[] {
  return outcomesOf(test).map((outcome) => {
    const evidence = ofOutcome(given, test, outcome, given.testsDone);
    const after = updated(belief, evidence);
    const then: MisfireCase = { ...given, testsDone: [...given.testsDone, withOutcome(test, outcome)] };
    return {
      outcome,
      chance: chanceOf(belief, evidence),
      cause: suspicions(after)[0] ?? null,
      next: nextSteps(then, after, 1)[0] ?? null,
    };
  });
}
