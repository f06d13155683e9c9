import {
  BOOT_GOES,
  CIRCUIT_BASE,
  CIRCUIT_OF,
  CODE_OF_OTHER,
  CODE_OF_STOPPED,
  COUNTS_ON_STOPPED,
  COUNTS_WEIGH,
  CURED,
  FOUND_BASE,
  FOUND_OF,
  MEANT_HOME,
  NEVER_ONLY,
  ONE_OF_TWO_PLUGS,
  ONLY_SOMETIMES,
  OTHER_SYMPTOM,
  RANDOM_CODE,
  SHARED_CODES,
  SWAP,
  SYMPTOMS_OF,
  TRIM,
  tableOf,
} from './likelihoods';
import {
  type Count,
  cylindersOf,
  type DoneTest,
  type FoundWord,
  type Hypothesis,
  type MisfireCase,
  type MisfireTest,
  MOVABLE_PARTS,
  type MovablePart,
  type OtherTest,
  type SuspectPart,
  SWAP_OUTCOMES,
  type Swap,
  type SwapOutcome,
  type Symptom,
  TEST_OUTCOMES,
  type TestOutcome,
  testOn,
} from './misfire-case';
import { homeAt, movedBy, stopsAfter, swapsOf } from './positions';
import { CAUSES_OF, isBroad, isCrossed, type State } from './states';

/*
 * What is seen, each as a likelihood for every state. Each piece counts once. A cause is named by the homes of its parts: the
 * cylinders that they were in before the first test. What is seen is of a place at a moment.
 */

/** What a piece of evidence is. */
export type EvidenceAbout =
  | { readonly kind: 'codes'; readonly codes: readonly string[] }
  | { readonly kind: 'counts'; readonly counts: readonly Count[] }
  | { readonly kind: 'symptom'; readonly symptom: Symptom }
  | { readonly kind: 'found'; readonly cylinder: number; readonly word: FoundWord }
  | { readonly kind: 'test'; readonly test: DoneTest };

/** A piece of evidence. */
export interface Evidence {
  readonly about: EvidenceAbout;
  /** Names it: the same piece twice is one. */
  readonly key: string;
  readonly likelihood: (state: State) => number;
}

/** Of two causes at once the one that shows it more is the one that is seen. */
const strongest = ({ causes }: State, chanceOf: (one: Hypothesis) => number): number =>
  Math.max(...causes.map(chanceOf));

type Swaps = ReturnType<typeof swapsOf>;
type Engine = MisfireCase['engine'];

/** Cylinders that stop altogether after some swaps. */
const stopped = ({ causes }: State, engine: Engine, swaps: Swaps = []): ReadonlySet<number> =>
  new Set(causes.filter((one) => !isBroad(one)).flatMap((cause) => stopsAfter(engine, swaps, cause)));
/** Cylinders that a cause of a bank or of the engine stops now and then. */
const broadly = ({ causes }: State): ReadonlySet<number> =>
  new Set(causes.filter(isBroad).flatMap(({ cylinders }) => cylinders));

const codeNumber = (code: string, from: number, to: number): number | null => {
  const number = /^P(\d{4})$/.test(code) ? Number(code.slice(1)) : Number.NaN;
  return number >= from && number <= to ? number - from + 1 : null;
};

/** The cylinder that a misfire code names: P0302 is 2. */
export const codedCylinder = (code: string): number | null => codeNumber(code, 301, 312);

/** Codes that name cylinders, with the one for a misfire at random: what the computer noticed before the first test. */
function misfireCodes({ engine, codes, counts }: MisfireCase): readonly Evidence[] {
  const coded = new Set(codes.flatMap((code) => codedCylinder(code) ?? []));
  const isRandom = codes.includes('P0300');
  // Counts of the same drive say the same, and more of it.
  const named = counts.some(({ after = 0 }) => after === 0) ? [] : cylindersOf(engine);
  if (coded.size === 0 && !isRandom) return [];
  const chanceOf = (chances: (cylinder: number) => number, random: number): number =>
    named.reduce(
      (product, cylinder) => product * (coded.has(cylinder) ? chances(cylinder) : 1 - chances(cylinder)),
      isRandom ? random : 1 - random,
    );
  return [
    {
      about: { kind: 'codes', codes: codes.filter((code) => code === 'P0300' || codedCylinder(code) !== null) },
      key: 'misfire codes',
      likelihood: (state) => {
        const [narrowly, wide] = [stopped(state, engine), broadly(state)];
        const ofStopped = engine.plugsPerCylinder === 2 && isPlugAlone(state) ? ONE_OF_TWO_PLUGS.code : CODE_OF_STOPPED;
        const narrow = (cylinder: number): number => (narrowly.has(cylinder) ? ofStopped : CODE_OF_OTHER);
        if (wide.size === 0) return chanceOf(narrow, narrowly.size > 1 ? RANDOM_CODE.several : RANDOM_CODE.one);
        return SHARED_CODES.reduce((sum, { share, random, each }) => {
          const chances = (cylinder: number): number => Math.max(narrow(cylinder), wide.has(cylinder) ? each : 0);
          return sum + share * chanceOf(chances, random);
        }, 0);
      },
    },
  ];
}

const isPlugAlone = ({ causes }: State): boolean => causes.every(({ cause }) => cause === 'plug');

/** Counts by the moment at which they were taken. */
function countsOf({ engine, counts, testsDone }: MisfireCase): readonly Evidence[] {
  const cylinders = cylindersOf(engine);
  const known = counts.filter(({ cylinder }) => cylinders.includes(cylinder));
  return [...new Set(known.map(({ after = 0 }) => after))].flatMap((moment): readonly Evidence[] => {
    const atMoment = known.filter(({ after = 0 }) => after === moment);
    const total = atMoment.reduce((sum, { per1000 }) => sum + per1000, 0);
    if (total <= 0) return [];
    const swaps = swapsOf(testsDone.slice(0, moment));
    return [
      {
        about: { kind: 'counts', counts: atMoment },
        key: `counts ${moment}`,
        likelihood: (state) => {
          const on = new Set([...stopped(state, engine, swaps), ...broadly(state)]);
          const log = atMoment.reduce((sum, { cylinder, per1000 }) => {
            const share = on.has(cylinder) ? COUNTS_ON_STOPPED / on.size : 0;
            return sum + (per1000 / total) * Math.log(share + (1 - COUNTS_ON_STOPPED) / cylinders.length);
          }, 0);
          return Math.exp(COUNTS_WEIGH * log);
        },
      },
    ];
  });
}

/** Codes of circuits and of the mixture. */
function otherCodes({ engine, codes }: MisfireCase): readonly Evidence[] {
  return codes.flatMap((code): readonly Evidence[] => {
    const coil = codeNumber(code, 351, 362);
    const injector = codeNumber(code, 201, 212);
    const bank = trimBank(code);
    if (coil !== null) return [circuit(code, 'coil', coil)];
    if (injector !== null) return [circuit(code, 'injector', injector)];
    const cylinders = bank === null ? undefined : engine.banks[bank];
    return cylinders
      ? [
          {
            ...ofCode(code),
            likelihood: (state) => strongest(state, (hypothesis) => trimChance(hypothesis, cylinders)),
          },
        ]
      : [];
  });
}

const ofCode = (code: string): Pick<Evidence, 'key' | 'about'> => ({
  key: code,
  about: { kind: 'codes', codes: [code] },
});

const circuit = (code: string, part: 'coil' | 'injector', cylinder: number): Evidence => ({
  ...ofCode(code),
  likelihood: (state) =>
    strongest(state, ({ cause, cylinders }) =>
      cylinders.includes(cylinder) ? (CIRCUIT_OF[part][cause] ?? CIRCUIT_BASE) : CIRCUIT_BASE,
    ),
});

/** Bank 1 is the first that is given; null: the code is none of a mixture. */
function trimBank(code: string): 0 | 1 | null {
  if (['P0171', 'P0172', 'P2096', 'P2097'].includes(code)) return 0;
  return ['P0174', 'P0175', 'P2098', 'P2099'].includes(code) ? 1 : null;
}

function trimChance({ cause, cylinders }: Hypothesis, bank: readonly number[]): number {
  const isHere = cylinders.some((cylinder) => bank.includes(cylinder));
  if (!isHere) return TRIM.other;
  if (cause === 'mixture_bank' || cause === 'mixture_all' || cause === 'injector' || cause === 'fuel')
    return TRIM[cause];
  return TRIM.other;
}

/** Parts that show a word themselves; the rest of what is found belongs to the place. */
const SHOWN_BY: Readonly<Partial<Record<FoundWord, MovablePart>>> = {
  boot_tracked: 'boot',
  nose_sooty: 'plug',
  nose_white: 'plug',
  nose_wet: 'plug',
  insulator_cracked: 'plug',
};

function looks({ engine, found, testsDone }: MisfireCase): readonly Evidence[] {
  return found.map(({ cylinder, word, after = 0 }) => {
    const swaps = swapsOf(testsDone.slice(0, after));
    const shownBy = SHOWN_BY[word];
    const home = shownBy ? homeAt(engine, swaps, shownBy, cylinder) : cylinder;
    return {
      about: { kind: 'found', cylinder, word },
      key: `${word} ${cylinder} ${after}`,
      likelihood: (state) =>
        strongest(state, (hypothesis) => {
          // A bad plug is found where it sits; what fouls it, where that stops the cylinder.
          const at =
            hypothesis.cause === shownBy
              ? hypothesis.cylinders.includes(home)
              : stopsAfter(engine, swaps, hypothesis).includes(cylinder);
          return at ? (FOUND_OF[word][hypothesis.cause] ?? FOUND_BASE[word]) : FOUND_BASE[word];
        }),
    };
  });
}

/** How likely each outcome of a swap is. Two parts moved at once go the same way, so neither is told from the other. */
function swapChance(engine: Engine, swap: Swap, { causes }: State, outcome: SwapOutcome): number {
  // What stands crossed goes nowhere by itself.
  if (causes.some((cause) => isCrossed(cause) && cause.cylinders.includes(swap.from))) return SWAP.broad[outcome];
  const moves = causes.filter((cause) => isMoved(engine, swap, cause));
  if (moves.length > 0 && moves.length < causes.length) return SWAP.split[outcome];
  if (moves.length > 0) {
    const goes = moves.every(({ cause }) => cause === 'boot') && !swap.moved.includes('boot') ? BOOT_GOES : 1;
    return goes * SWAP.moved[outcome] + (1 - goes) * SWAP.stayed[outcome];
  }
  if (causes.some(isBroad)) return SWAP.broad[outcome];
  const isDisturbed = causes.some(({ cause, cylinders }) => cause === 'connector' && cylinders.includes(swap.from));
  return isDisturbed ? SWAP.disturbed[outcome] : SWAP.stayed[outcome];
}

const isMoved = (engine: Engine, swap: Swap, { cause, cylinders }: Hypothesis): boolean =>
  cylinders.includes(swap.from) &&
  MOVABLE_PARTS.some((part) => movedBy(engine, swap, part) && CAUSES_OF[part].includes(cause));

/** How likely an outcome of another test is. */
function testChance(test: OtherTest, state: State, outcome: TestOutcome): number {
  if (test.test === 'replace') return replaceChance(test, state, outcome);
  const { byCause: table, other } = tableOf(test.test, test.component);
  const chances = state.causes.map(({ cause, cylinders }) => {
    const isHere = test.cylinder === null || cylinders.includes(test.cylinder);
    return ((isHere ? table[cause] : undefined) ?? other)[outcome] ?? 0;
  });
  // A find is made if either cause makes it; that nothing is found takes both.
  const isNothing = ['not_found', 'in_range', 'normal', 'cured'].includes(outcome);
  return isNothing ? Math.min(...chances) : Math.max(...chances);
}

function replaceChance({ component, cylinder }: OtherTest, { causes }: State, outcome: TestOutcome): number {
  const isRight = ({ cause, cylinders }: Hypothesis): boolean =>
    component !== null &&
    CAUSES_OF[component].includes(cause) &&
    // Of a whole set one is not enough.
    (cylinder === null || (cylinders.includes(cylinder) && cause !== 'set'));
  const isDisturbed = causes.every(
    ({ cause, cylinders }) => cause === 'connector' && cylinders.includes(cylinder ?? -1),
  );
  const otherwise = isDisturbed ? CURED.disturbed : CURED.other;
  const cured = causes.every(isRight) ? CURED.right : otherwise;
  return outcome === 'cured' ? cured : 1 - cured;
}

/** The part whose place may be meant either way after a swap; null: a test of a place, of nothing that moves, or of the engine. */
function movableOf(test: MisfireTest): MovablePart | null {
  if (test.test === 'swap') return test.moved[0] ?? null;
  const part: SuspectPart | null = test.component;
  return MOVABLE_PARTS.find((movable) => movable === part) ?? null;
}

/** A test as it is meant: by the part that came from a cylinder, or by the one that sits there now. */
function meanings(engine: Engine, test: MisfireTest, swaps: Swaps): readonly (readonly [MisfireTest, number])[] {
  const part = movableOf(test);
  const at = test.test === 'swap' ? test.from : test.cylinder;
  const home = part === null || at === null ? at : homeAt(engine, swaps, part, at);
  if (part === null || at === null || home === null || home === at) return [[test, 1]];
  const byPlace = test.test === 'swap' ? { ...test, from: home } : { ...test, cylinder: home };
  return [
    [test, MEANT_HOME],
    [byPlace, 1 - MEANT_HOME],
  ];
}

/** Outcomes that a test can have. */
export const outcomesOf = (test: MisfireTest): readonly (SwapOutcome | TestOutcome)[] =>
  test.test === 'swap' ? SWAP_OUTCOMES : TEST_OUTCOMES[test.test];

/**
 * What an outcome of a test says.
 *
 * @param before the tests that were done before it
 */
export function ofOutcome(
  { engine }: Pick<MisfireCase, 'engine'>,
  given: MisfireTest,
  outcome: SwapOutcome | TestOutcome,
  before: readonly DoneTest[],
): Evidence {
  const swaps = swapsOf(before);
  const test = testOn(engine, given);
  const meant = meanings(engine, test, swaps);
  const chance = (test: MisfireTest, state: State): number =>
    test.test === 'swap'
      ? swapChance(engine, test, state, outcome as SwapOutcome)
      : testChance(test, state, outcome as TestOutcome);
  return {
    about: { kind: 'test', test: withOutcome(given, outcome) },
    key: `${testKey(test)} ${meant.map(([test]) => (test.test === 'swap' ? test.from : test.cylinder)).join('/')} ${outcome}`,
    likelihood: (state) => meant.reduce((sum, [test, share]) => sum + share * chance(test, state), 0),
  };
}

/** A test with what came of it. */
export const withOutcome = (test: MisfireTest, outcome: SwapOutcome | TestOutcome): DoneTest =>
  ({ ...test, outcome }) as DoneTest;

/** Names a test: one that was done is not done again. The order of the parts of a swap does not matter. */
export const testKey = (test: MisfireTest): string =>
  test.test === 'swap'
    ? `swap ${[...test.moved].sort().join('+')} ${test.from}${test.bootsStayed ? ' bare' : ''}`
    : `${test.test} ${test.component ?? ''} ${test.cylinder ?? ''}`;

/** A misfire that is there only now and then. */
const SOMETIMES: readonly Symptom[] = ['cold', 'hot', 'after_a_while', 'wet'];

function symptomChance({ engine }: MisfireCase, symptom: Symptom, cause: Hypothesis['cause']): number {
  const twin: Readonly<Partial<Record<Symptom, number>>> =
    cause === 'plug' && engine.plugsPerCylinder === 2 ? ONE_OF_TWO_PLUGS.symptoms : {};
  if (NEVER_ONLY.includes(cause) && SOMETIMES.includes(symptom)) return ONLY_SOMETIMES;
  return twin[symptom] ?? SYMPTOMS_OF[symptom][cause] ?? OTHER_SYMPTOM;
}

/** All that a case says, each piece once. */
export function evidenceOf(given: MisfireCase): readonly Evidence[] {
  const symptoms = given.symptoms.map(
    (symptom): Evidence => ({
      about: { kind: 'symptom', symptom },
      key: symptom,
      likelihood: (state) => strongest(state, ({ cause }) => symptomChance(given, symptom, cause)),
    }),
  );
  const all = [
    ...misfireCodes(given),
    ...countsOf(given),
    ...otherCodes(given),
    ...symptoms,
    ...looks(given),
    ...given.testsDone.flatMap((done, i) =>
      done.outcome === null ? [] : [ofOutcome(given, done, done.outcome, given.testsDone.slice(0, i))],
    ),
  ];
  return [...new Map(all.map((item) => [item.key, item])).values()];
}
