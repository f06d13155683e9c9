import { companions } from '../engine/coils';
import { cheapestCure, costOfMinutes, minutesToCure, partOf, remedyOf } from './cure';
import { isCured } from './driving';
import { ofOutcome, outcomesOf, testKey, withOutcome } from './evidence';
import { VISIT_KM } from './likelihoods';
import {
  type Cause,
  cylindersOf,
  type MisfireCase,
  type MisfireEngine,
  type MisfireTest,
  type MovablePart,
  type OtherTest,
  openingOf,
  type SuspectPart,
  type SwapOutcome,
  type TestOutcome,
  testOn,
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
  swap: { coil: 20, lead: 16, boot: 16, plug: 40, injector: 100 },
  look: { place: 6, coil: 8, lead: 8, boot: 8, plug: 18, injector: 12, cap: 10, rotor: 12, coil_lead: 6, connector: 6 },
  resistance: {
    coil: 8,
    lead: 8,
    boot: 8,
    plug: 20,
    injector: 10,
    cap: 12,
    rotor: 12,
    coil_lead: 6,
    connector: 10,
  },
  compression: 30,
  smoke: 25,
  fuel_pressure: 20,
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

/** Parts that this engine has at each cylinder, and whether one can be put into another cylinder. */
function partsAt({ ignition }: MisfireEngine): {
  readonly all: readonly SuspectPart[];
  readonly moved: readonly MovablePart[];
} {
  switch (ignition) {
    case 'coil_on_plug':
      return { all: ['coil', 'boot', 'plug', 'injector', 'connector'], moved: ['coil', 'boot', 'plug', 'injector'] };
    case 'coil_rail':
      return { all: ['coil', 'boot', 'plug', 'injector'], moved: ['boot', 'plug', 'injector'] };
    case 'coil_per_cylinder':
      return { all: ['coil', 'lead', 'plug', 'injector', 'connector'], moved: ['coil', 'lead', 'plug', 'injector'] };
    case 'waste_spark':
      return { all: ['coil', 'lead', 'plug', 'injector'], moved: ['lead', 'plug', 'injector'] };
    case 'distributor':
      return { all: ['lead', 'plug', 'injector'], moved: ['lead', 'plug', 'injector'] };
  }
}

/** Tests of what an engine has one of. @param plugJob all plugs were just replaced: any of them tells of their gap and number */
function wholeTests({ ignition }: MisfireEngine, plugJob: boolean): readonly MisfireTest[] {
  const at = (test: OtherTest['test'], component: SuspectPart | null): MisfireTest => ({
    test,
    component,
    cylinder: null,
  });
  const distributor =
    ignition === 'distributor'
      ? [
          at('look', 'cap'),
          at('look', 'rotor'),
          at('look', 'coil_lead'),
          at('resistance', 'coil_lead'),
          at('resistance', 'rotor'),
          at('resistance', 'coil'),
        ]
      : [];
  return [
    ...(plugJob ? [at('look', 'plug')] : []),
    ...distributor,
    at('smoke', null),
    at('fuel_pressure', null),
    at('clear_and_drive', null),
  ];
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
  const { all, moved } = partsAt(engine);
  const each = suspects.flatMap((cylinder): readonly MisfireTest[] => {
    const to = donorFor(engine, cylinder, suspects);
    const swaps =
      to === null ? [] : moved.map((part): MisfireTest => ({ test: 'swap', moved: [part], from: cylinder, to }));
    return [
      { test: 'look', component: null, cylinder },
      ...swaps,
      ...all.map((component): MisfireTest => ({ test: 'look', component, cylinder })),
      ...all
        .filter((part) => part !== 'plug')
        .map((component): MisfireTest => ({ test: 'resistance', component, cylinder })),
      { test: 'compression', component: null, cylinder },
    ];
  });
  const done = new Set(given.testsDone.map((test) => testKey(testOn(engine, test))));
  const plugJob = belief.space.hypotheses.some(({ cause }) => cause === 'set');
  return [...each, ...wholeTests(engine, plugJob)].filter((test) => !done.has(testKey(test)) && !isKnown(given, test));
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

/** @param deeper whether another test after it counts: what an outcome leaves open may still be tested */
function judged(given: MisfireCase, belief: Belief, test: MisfireTest, deeper: boolean): Judged {
  const minutes = minutesOf(given, test);
  let [expected, uncertainty] = [costOfMinutes(given, minutes), 0];
  for (const outcome of outcomesOf(test)) {
    const evidence = ofOutcome(given, test, outcome, given.testsDone);
    const chance = chanceOf(belief, evidence);
    if (chance <= 1e-6) continue;
    const after = updated(belief, evidence);
    expected += chance * (deeper ? costAhead(given, after, test, outcome) : cheapestCure(given, after).expected);
    uncertainty += chance * entropy(after);
  }
  return { test, minutes, bits: Math.max(0, entropy(belief) - uncertainty), expected };
}

/** The cost to cure with one more test, if that is worth it. */
function costAhead(given: MisfireCase, belief: Belief, test: MisfireTest, outcome: SwapOutcome | TestOutcome): number {
  const then: MisfireCase = { ...given, testsDone: [...given.testsDone, withOutcome(test, outcome)] };
  const cure = cheapestCure(then, belief).expected;
  return testsFor(then, belief).reduce(
    (best, next) => Math.min(best, judged(then, belief, next, false).expected),
    cure,
  );
}

/** A test has to save so much before it is worth the trouble. */
const WORTH_TESTING = 0.5;
/** Tests whose further course is worked out. */
const MAX_DEEP = 6;

/** What can be done next: tests that are worth it, the best first; the cure without any; and tests that are not worth it. */
interface NextSteps {
  readonly worthwhile: readonly NextStep[];
  readonly cure: NextStep | null;
  readonly others: readonly NextStep[];
}

/**
 * The next step of a case, and what else could be done instead.
 *
 * @param ahead how far: 2 looks at the test after the next one, and takes several times as long
 */
export function stepsAhead(given: MisfireCase, belief: Belief, ahead: 1 | 2 = 2): NextSteps {
  if (isCured(given)) return { worthwhile: [], cure: WATCHING, others: [] };
  const now = cheapestCure(given, belief);
  const byCost = (a: Judged, b: Judged): number => a.expected - b.expected || a.minutes - b.minutes;
  const near = testsFor(given, belief)
    .map((test) => judged(given, belief, test, false))
    .sort(byCost);
  const far =
    ahead === 1
      ? []
      : near
          .slice(0, MAX_DEEP)
          .map((candidate) => ({ ...candidate, expected: judged(given, belief, candidate.test, true).expected }));
  const tests = visitFirst(given, [...far.sort(byCost), ...near.slice(far.length)]);
  const isWorth = ({ expected }: Judged): boolean => expected < now.expected - WORTH_TESTING;
  const steps = (some: readonly Judged[]): readonly NextStep[] => some.map((judged) => asTest(judged, now.expected));
  return {
    worthwhile: steps(tests.filter(isWorth)),
    cure: now.first && asCure(given, now.first, now.expected),
    others: steps(tests.filter((test) => !isWorth(test))),
  };
}

/** What a visit worked on is looked at before any part changes its place. */
function visitFirst({ recentWork }: MisfireCase, tests: readonly Judged[]): readonly Judged[] {
  const touched = new Set(recentWork.flatMap(({ kmAgo, cylinders }) => (kmAgo < VISIT_KM ? cylinders : [])));
  const look = tests.find(
    ({ test }) => test.test === 'look' && test.component === null && touched.has(test.cylinder ?? 0),
  );
  const [first] = tests;
  if (!look || first?.test.test !== 'swap' || !touched.has(first.test.from)) return tests;
  return [{ ...look, expected: Math.min(look.expected, first.expected) }, ...tests.filter((test) => test !== look)];
}

const WATCHING: NextStep = {
  action: 'watch',
  test: null,
  cause: null,
  component: null,
  cylinders: [],
  minutes: 0,
  informationBits: 0,
  expectedCost: 0,
  saves: 0,
  probability: 1,
};

/** Those that are worth doing, the best first. */
export function nextSteps(given: MisfireCase, belief: Belief, ahead: 1 | 2 = 2): readonly NextStep[] {
  const { worthwhile, cure } = stepsAhead(given, belief, ahead);
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
