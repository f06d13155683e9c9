import {
  CIRCUIT_BASE,
  CIRCUIT_OF,
  CODE_OF_BROAD,
  CODE_OF_OTHER,
  CODE_OF_STOPPED,
  COUNTS_ON_STOPPED,
  COUNTS_WEIGH,
  CURED,
  FOUND_BASE,
  FOUND_OF,
  ONE_OF_TWO_PLUGS,
  OTHER_SYMPTOM,
  RANDOM_CODE,
  SWAP,
  SYMPTOMS_OF,
  TRIM,
  tableOf,
} from './likelihoods';
import {
  cylindersOf,
  type DoneTest,
  type FoundWord,
  type Hypothesis,
  type MisfireCase,
  type MisfireTest,
  type OtherTest,
  SWAP_OUTCOMES,
  type Swap,
  type SwapOutcome,
  type Symptom,
  TEST_OUTCOMES,
  type TestOutcome,
} from './misfire-case';
import { CAUSES_OF, isBroad, isCrossed, type State } from './states';

/* What is seen, each as a likelihood for every state. Each piece counts once. */

/** What a piece of evidence is. */
export type EvidenceAbout =
  | { readonly kind: 'codes'; readonly codes: readonly string[] }
  | { readonly kind: 'counts'; readonly counts: MisfireCase['counts'] }
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
const strongest = ({ causes }: State, of: (one: Hypothesis) => number): number => Math.max(...causes.map(of));

const stopped = ({ causes }: State): ReadonlySet<number> =>
  new Set(causes.filter((one) => !isBroad(one)).flatMap(({ cylinders }) => cylinders));
const broadly = ({ causes }: State): ReadonlySet<number> =>
  new Set(causes.filter(isBroad).flatMap(({ cylinders }) => cylinders));

const codeNumber = (code: string, from: number, to: number): number | null => {
  const number = /^P(\d{4})$/.test(code) ? Number(code.slice(1)) : Number.NaN;
  return number >= from && number <= to ? number - from + 1 : null;
};

/** The cylinder that a misfire code names: P0302 is 2. */
export const codedCylinder = (code: string): number | null => codeNumber(code, 301, 312);

/** Codes that name cylinders, with the one for a misfire at random. */
function misfireCodes({ engine, codes, counts }: MisfireCase): readonly Evidence[] {
  const coded = new Set(codes.flatMap((code) => codedCylinder(code) ?? []));
  const random = codes.includes('P0300');
  // Counts of the same drive say the same, and more of it.
  const named = counts.length > 0 ? [] : cylindersOf(engine);
  if (coded.size === 0 && !random) return [];
  return [
    {
      about: { kind: 'codes', codes: codes.filter((code) => code === 'P0300' || codedCylinder(code) !== null) },
      key: 'misfire codes',
      likelihood: (state) => {
        const [own, wide] = [stopped(state), broadly(state)];
        const ofStopped = engine.plugsPerCylinder === 2 && isPlugAlone(state) ? ONE_OF_TWO_PLUGS.code : CODE_OF_STOPPED;
        const each = named.reduce((product, cylinder) => {
          const chance = chanceOfCode(cylinder, own, wide, ofStopped);
          return product * (coded.has(cylinder) ? chance : 1 - chance);
        }, 1);
        const chance = randomChance(own, wide);
        return each * (random ? chance : 1 - chance);
      },
    },
  ];
}

const isPlugAlone = ({ causes }: State): boolean => causes.every(({ cause }) => cause === 'plug');

function chanceOfCode(
  cylinder: number,
  own: ReadonlySet<number>,
  wide: ReadonlySet<number>,
  ofStopped: number,
): number {
  if (own.has(cylinder)) return ofStopped;
  return wide.has(cylinder) ? CODE_OF_BROAD : CODE_OF_OTHER;
}

function randomChance(own: ReadonlySet<number>, wide: ReadonlySet<number>): number {
  if (wide.size > 0) return RANDOM_CODE.broad;
  return own.size > 1 ? RANDOM_CODE.several : RANDOM_CODE.one;
}

function countsOf({ engine, counts }: MisfireCase): readonly Evidence[] {
  const cylinders = cylindersOf(engine);
  const known = counts.filter(({ cylinder }) => cylinders.includes(cylinder));
  const total = known.reduce((sum, { per1000 }) => sum + per1000, 0);
  if (total <= 0) return [];
  return [
    {
      about: { kind: 'counts', counts: known },
      key: 'counts',
      likelihood: (state) => {
        const on = new Set([...stopped(state), ...broadly(state)]);
        const log = known.reduce((sum, { cylinder, per1000 }) => {
          const share = on.has(cylinder) ? COUNTS_ON_STOPPED / on.size : 0;
          return sum + (per1000 / total) * Math.log(share + (1 - COUNTS_ON_STOPPED) / cylinders.length);
        }, 0);
        return Math.exp(COUNTS_WEIGH * log);
      },
    },
  ];
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
      ? [{ ...ofCode(code), likelihood: (state) => strongest(state, (one) => trimChance(one, cylinders)) }]
      : [];
  });
}

const ofCode = (code: string): Pick<Evidence, 'key' | 'about'> => ({
  key: code,
  about: { kind: 'codes', codes: [code] },
});

const circuit = (code: string, of: 'coil' | 'injector', cylinder: number): Evidence => ({
  ...ofCode(code),
  likelihood: (state) =>
    strongest(state, ({ cause, cylinders }) =>
      cylinders.includes(cylinder) ? (CIRCUIT_OF[of][cause] ?? CIRCUIT_BASE) : CIRCUIT_BASE,
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

function looks({ found }: MisfireCase): readonly Evidence[] {
  return found.map(({ cylinder, word }) => ({
    about: { kind: 'found', cylinder, word },
    key: `${word} ${cylinder}`,
    likelihood: (state) =>
      strongest(state, ({ cause, cylinders }) =>
        cylinders.includes(cylinder) ? (FOUND_OF[word][cause] ?? FOUND_BASE[word]) : FOUND_BASE[word],
      ),
  }));
}

/** How likely each outcome of a swap is. Two parts moved at once go the same way, so neither is told from the other. */
function swapChance(swap: Swap, { causes }: State, outcome: SwapOutcome): number {
  // What stands crossed goes nowhere by itself.
  if (causes.some((one) => isCrossed(one) && one.cylinders.includes(swap.from))) return SWAP.broad[outcome];
  const moves = causes.filter((one) => isMoved(swap, one));
  if (moves.length > 0 && moves.length < causes.length) return SWAP.split[outcome];
  if (moves.length > 0) return SWAP.moved[outcome];
  if (causes.some(isBroad)) return SWAP.broad[outcome];
  const isDisturbed = causes.some(({ cause, cylinders }) => cause === 'connector' && cylinders.includes(swap.from));
  return isDisturbed ? SWAP.disturbed[outcome] : SWAP.stayed[outcome];
}

const isMoved = ({ moved, from }: Swap, { cause, cylinders }: Hypothesis): boolean =>
  cylinders.includes(from) && moved.some((part) => CAUSES_OF[part].includes(cause));

/** How likely an outcome of another test is. */
function testChance(test: OtherTest, state: State, outcome: TestOutcome): number {
  if (test.test === 'replace') return replaceChance(test, state, outcome);
  const { of, other } = tableOf(test.test, test.component);
  const chances = state.causes.map(({ cause, cylinders }) => {
    const isHere = test.cylinder === null || cylinders.includes(test.cylinder);
    return ((isHere ? of[cause] : undefined) ?? other)[outcome] ?? 0;
  });
  // A find is made if either cause makes it; that nothing is found takes both.
  const isNothing = ['not_found', 'in_range', 'normal', 'cured'].includes(outcome);
  return isNothing ? Math.min(...chances) : Math.max(...chances);
}

function replaceChance({ component, cylinder }: OtherTest, { causes }: State, outcome: TestOutcome): number {
  const isRight = ({ cause, cylinders }: Hypothesis): boolean =>
    component !== null && CAUSES_OF[component].includes(cause) && (cylinder === null || cylinders.includes(cylinder));
  const isDisturbed = causes.every(
    ({ cause, cylinders }) => cause === 'connector' && cylinders.includes(cylinder ?? -1),
  );
  const otherwise = isDisturbed ? CURED.disturbed : CURED.other;
  const cured = causes.every(isRight) ? CURED.right : otherwise;
  return outcome === 'cured' ? cured : 1 - cured;
}

/** Outcomes that a test can have. */
export const outcomesOf = (test: MisfireTest): readonly (SwapOutcome | TestOutcome)[] =>
  test.test === 'swap' ? SWAP_OUTCOMES : TEST_OUTCOMES[test.test];

/** What an outcome of a test would say. */
export const ofOutcome = (test: MisfireTest, outcome: SwapOutcome | TestOutcome): Evidence => ({
  about: { kind: 'test', test: withOutcome(test, outcome) },
  key: `${testKey(test)} ${outcome}`,
  likelihood: (state) =>
    test.test === 'swap'
      ? swapChance(test, state, outcome as SwapOutcome)
      : testChance(test, state, outcome as TestOutcome),
});

/** A test with what came of it. */
export const withOutcome = (test: MisfireTest, outcome: SwapOutcome | TestOutcome): DoneTest =>
  ({ ...test, outcome }) as DoneTest;

/** Names a test: one that was done is not done again. The order of the parts of a swap does not matter. */
export const testKey = (test: MisfireTest): string =>
  test.test === 'swap'
    ? `swap ${[...test.moved].sort().join('+')} ${test.from}`
    : `${test.test} ${test.component ?? ''} ${test.cylinder ?? ''}`;

const ofTest = (done: DoneTest): Evidence => ofOutcome(done, done.outcome);

function symptomChance({ engine }: MisfireCase, symptom: Symptom, cause: Hypothesis['cause']): number {
  const twin: Readonly<Partial<Record<Symptom, number>>> =
    cause === 'plug' && engine.plugsPerCylinder === 2 ? ONE_OF_TWO_PLUGS.symptoms : {};
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
    ...given.testsDone.map(ofTest),
  ];
  return [...new Map(all.map((one) => [one.key, one])).values()];
}
