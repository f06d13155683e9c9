import { companions } from '../engine/coils';
import { cheapestCure, costOfMinutes, minutesToCure, partOf, remedyOf } from './cure';
import { ofOutcome, outcomesOf, testKey } from './evidence';
import {
  type Cause,
  cylindersOf,
  type MisfireCase,
  type MisfireEngine,
  type MisfireTest,
  openingOf,
  type SuspectPart,
} from './misfire-case';
import { type Belief, chanceOf, entropy, type Suspicion, suspicions, updated } from './posterior';

/* What to do next: the test, or the replacement, by which the cure is expected to cost least. */

export interface NextStep {
  readonly action: 'test' | 'replace' | 'refer' | 'watch';
  /** Null: it is none. */
  readonly test: MisfireTest | null;
  /** What is replaced or referred; null: it is tested. */
  readonly cause: Cause | null;
  readonly component: SuspectPart | null;
  readonly cylinders: readonly number[];
  readonly minutes: number;
  /** That it would tell, bits. */
  readonly informationBits: number;
  /** Until it is cured, money. */
  readonly expectedCost: number;
  /** Against replacing by suspicion at once, money; 0: it is that. */
  readonly saves: number;
  /** How likely what is replaced or referred is it; 0: it is tested. */
  readonly probability: number;
}

/** Of each test, where nothing else is said. A drive of some minutes after a swap is in it. Assumed. */
const TEST_MINUTES = {
  swap: { coil: 20, lead: 16, plug: 40, injector: 100 },
  look: { place: 6, coil: 8, lead: 8, plug: 18, injector: 12 },
  resistance: { coil: 8, lead: 8, plug: 20, injector: 10 },
  compression: 30,
  smoke: 25,
  clear_and_drive: 25,
} as const;

/** Minutes of a test, the way there and back among them. */
const minutesOf = (given: MisfireCase, test: MisfireTest): number =>
  handsOn(given, test) + openingOf(given, cylindersIn(test));

const cylindersIn = (test: MisfireTest): readonly number[] => {
  if (test.test === 'swap') return [test.from, test.to];
  return test.cylinder === null ? [] : [test.cylinder];
};

function handsOn({ minutes }: MisfireCase, test: MisfireTest): number {
  if (test.test === 'swap') {
    const each = test.moved.map((part) => minutes[`swap_${part}`] ?? TEST_MINUTES.swap[part]);
    return Math.max(...each) + (test.moved.length > 1 ? Math.min(...each) / 2 : 0);
  }
  const named = minutes[test.component ? `${test.test}_${test.component}` : test.test];
  if (named !== undefined) return named;
  if (test.test === 'look') return TEST_MINUTES.look[test.component ?? 'place'];
  if (test.test === 'resistance') return TEST_MINUTES.resistance[test.component ?? 'coil'];
  return test.test === 'replace' ? 0 : TEST_MINUTES[test.test];
}

/** Cylinders that are worth a test, the most suspected first. */
const SUSPECTS = 3;
const WORTH = 0.02;

function suspectCylinders(belief: Belief, engine: MisfireEngine): readonly number[] {
  const sums = new Map<number, number>();
  for (const { cylinders, probability } of suspicions(belief))
    if (cylinders.length <= 2)
      for (const cylinder of cylinders) sums.set(cylinder, (sums.get(cylinder) ?? 0) + probability);
  return cylindersOf(engine)
    .filter((cylinder) => (sums.get(cylinder) ?? 0) > WORTH)
    .sort((a, b) => (sums.get(b) ?? 0) - (sums.get(a) ?? 0))
    .slice(0, SUSPECTS);
}

/** Parts that can be put into another cylinder of this engine. */
function swappable({ ignition }: MisfireEngine): readonly SuspectPart[] {
  const lead = ignition === 'distributor' || ignition === 'waste_spark' || ignition === 'coil_per_cylinder';
  const coil = ignition === 'coil_on_plug' || ignition === 'coil_per_cylinder';
  return [...(coil ? (['coil'] as const) : []), ...(lead ? (['lead'] as const) : []), 'plug', 'injector'];
}

/** A cylinder that runs normally, near in access: of the same bank before another, no companion of the one that misfires. */
function donorFor(engine: MisfireEngine, from: number, suspects: readonly number[]): number | null {
  const bank = engine.banks.find((cylinders) => cylinders.includes(from)) ?? [];
  const at = bank.indexOf(from);
  const companion: readonly number[] = companions(engine.firingOrder).find((pair) => pair.includes(from)) ?? [];
  const near = [...bank].sort((a, b) => Math.abs(bank.indexOf(a) - at) - Math.abs(bank.indexOf(b) - at));
  const others = engine.banks.filter((cylinders) => cylinders !== bank).flat();
  const able = [...near, ...others].filter((cylinder) => cylinder !== from && !suspects.includes(cylinder));
  return able.find((cylinder) => !companion.includes(cylinder)) ?? able[0] ?? null;
}

function testsFor(given: MisfireCase, belief: Belief): readonly MisfireTest[] {
  const { engine } = given;
  const suspects = suspectCylinders(belief, engine);
  const parts: readonly SuspectPart[] = ['coil', 'lead', 'plug', 'injector'];
  const each = suspects.flatMap((cylinder): readonly MisfireTest[] => {
    const to = donorFor(engine, cylinder, suspects);
    const swaps =
      to === null
        ? []
        : swappable(engine).map((part): MisfireTest => ({ test: 'swap', moved: [part], from: cylinder, to }));
    return [
      { test: 'look', component: null, cylinder },
      ...swaps,
      ...parts.map((component): MisfireTest => ({ test: 'look', component, cylinder })),
      ...parts
        .filter((part) => part !== 'plug')
        .map((component): MisfireTest => ({ test: 'resistance', component, cylinder })),
      { test: 'compression', component: null, cylinder },
    ];
  });
  const whole: readonly MisfireTest[] = [
    { test: 'smoke', component: null, cylinder: null },
    { test: 'clear_and_drive', component: null, cylinder: null },
  ];
  const done = new Set(given.testsDone.map(testKey));
  return [...each, ...whole].filter((test) => !done.has(testKey(test)) && !isKnown(given, test));
}

/** What was found there already was looked at. */
const isKnown = ({ found }: MisfireCase, test: MisfireTest): boolean =>
  test.test === 'look' && test.component === null && found.some(({ cylinder }) => cylinder === test.cylinder);

interface Judged {
  readonly test: MisfireTest;
  readonly minutes: number;
  readonly bits: number;
  readonly expected: number;
}

function judged(given: MisfireCase, belief: Belief, test: MisfireTest): Judged {
  const minutes = minutesOf(given, test);
  let [expected, uncertainty] = [costOfMinutes(given, minutes), 0];
  for (const outcome of outcomesOf(test)) {
    const evidence = ofOutcome(test, outcome);
    const chance = chanceOf(belief, evidence);
    if (chance <= 1e-9) continue;
    const after = updated(belief, evidence);
    expected += chance * cheapestCure(given, after).expected;
    uncertainty += chance * entropy(after);
  }
  return { test, minutes, bits: Math.max(0, entropy(belief) - uncertainty), expected };
}

/** A test has to save so much before it is worth the trouble. */
const WORTH_TESTING = 0.5;

/** What can be done next: tests that are worth it, the best first; the cure without any; and tests that are not worth it. */
interface NextSteps {
  readonly worthwhile: readonly NextStep[];
  readonly cure: NextStep | null;
  readonly others: readonly NextStep[];
}

/** The next step of a case, and what else could be done instead. */
export function stepsAhead(given: MisfireCase, belief: Belief): NextSteps {
  const now = cheapestCure(given, belief);
  const tests = testsFor(given, belief)
    .map((test) => judged(given, belief, test))
    .sort((a, b) => a.expected - b.expected || a.minutes - b.minutes);
  const isWorth = ({ expected }: Judged): boolean => expected < now.expected - WORTH_TESTING;
  const steps = (some: readonly Judged[]): readonly NextStep[] => some.map((one) => asTest(one, now.expected));
  return {
    worthwhile: steps(tests.filter(isWorth)),
    cure: now.first && asCure(given, now.first, now.expected),
    others: steps(tests.filter((one) => !isWorth(one))),
  };
}

/** Those that are worth doing, the best first. */
export function nextSteps(given: MisfireCase, belief: Belief): readonly NextStep[] {
  const { worthwhile, cure } = stepsAhead(given, belief);
  return cure ? [...worthwhile, cure] : worthwhile;
}

function asTest({ test, minutes, bits, expected }: Judged, without: number): NextStep {
  const cylinder = test.test === 'swap' ? test.from : test.cylinder;
  return {
    action: 'test',
    test,
    cause: null,
    component: test.test === 'swap' ? (test.moved[0] ?? null) : test.component,
    cylinders: cylinder === null ? [] : [cylinder],
    minutes,
    informationBits: bits,
    expectedCost: expected,
    saves: without - expected,
    probability: 0,
  };
}

function asCure(given: MisfireCase, first: Suspicion, expected: number): NextStep {
  const { action, cause, cylinders } = remedyOf(first);
  return {
    action,
    test: null,
    cause,
    component: partOf(cause),
    cylinders,
    minutes: minutesToCure(given, first),
    informationBits: 0,
    expectedCost: expected,
    saves: 0,
    probability: first.probability,
  };
}
