import { companions } from '../engine/coils';
import { CROSSED_RATE, RATES, TWO_AT_ONCE } from './likelihoods';
import {
  type Cause,
  cylindersOf,
  type Hypothesis,
  type MisfireCase,
  type MisfireEngine,
  type RecentWork,
  type SuspectPart,
} from './misfire-case';

/* What may be wrong, one cause or two at once, and how likely that is before anything is seen. */

/** One cause, or two at once. */
export interface State {
  readonly causes: readonly Hypothesis[];
  readonly weight: number;
}

/** The part that a test or a replacement means, by the causes that it stands for. */
export const CAUSES_OF: Readonly<Record<SuspectPart, readonly Cause[]>> = {
  coil: ['coil', 'pack', 'rail'],
  lead: ['lead', 'boot'],
  plug: ['plug'],
  injector: ['injector'],
};

export const isBroad = ({ cause }: Hypothesis): boolean =>
  cause === 'mixture_bank' || cause === 'mixture_all' || cause === 'fuel' || cause === 'relearn';

const inOrder = (cylinders: readonly number[]): readonly number[] => [...cylinders].sort((a, b) => a - b);

/** Everything that may be wrong with an engine, one by one. */
function hypothesesOf({ engine, recentWork }: MisfireCase): readonly Hypothesis[] {
  const all = inOrder(cylindersOf(engine));
  const each = (cause: Cause): readonly Hypothesis[] => all.map((cylinder) => ({ cause, cylinders: [cylinder] }));
  const whole = (cause: Cause): Hypothesis => ({ cause, cylinders: all });
  return [
    ...ignitionOf(engine, each, whole),
    ...crossed(engine, recentWork),
    ...each('plug'),
    ...each('injector'),
    ...each('mechanical'),
    ...each('wiring'),
    ...engine.banks.map((bank): Hypothesis => ({ cause: 'mixture_bank', cylinders: inOrder(bank) })),
    whole('mixture_all'),
    whole('fuel'),
    whole('relearn'),
  ];
}

/** Two of one kind that were put on each in the other's place. */
export const isCrossed = ({ cause, cylinders }: Hypothesis): boolean =>
  cylinders.length === 2 && (cause === 'lead' || cause === 'connector');

/**
 * Pairs that the last visit can have put on crossed: only what was off together. Companions of a pack fire at the same time, so
 * theirs may be crossed and nobody notices.
 */
function crossed(engine: MisfireEngine, recentWork: MisfireCase['recentWork']): readonly Hypothesis[] {
  if (engine.ignition === 'coil_rail') return [];
  const cause = engine.ignition === 'coil_on_plug' ? 'connector' : 'lead';
  const off = new Set(recentWork.flatMap(({ kmAgo, cylinders }) => (kmAgo <= VISIT_KM ? cylinders : [])));
  const together = inOrder(cylindersOf(engine).filter((cylinder) => off.has(cylinder)));
  const packs = engine.ignition === 'waste_spark' ? companions(engine.firingOrder) : [];
  const shareCoil = (a: number, b: number): boolean => packs.some((pack) => pack.includes(a) && pack.includes(b));
  return together.flatMap((a, i) =>
    together.slice(i + 1).flatMap((b) => (shareCoil(a, b) ? [] : [{ cause, cylinders: [a, b] } as const])),
  );
}

function ignitionOf(
  { ignition, firingOrder }: MisfireEngine,
  each: (cause: Cause) => readonly Hypothesis[],
  whole: (cause: Cause) => Hypothesis,
): readonly Hypothesis[] {
  switch (ignition) {
    case 'coil_on_plug':
      return [...each('coil'), ...each('boot'), ...each('connector')];
    case 'coil_per_cylinder':
      return [...each('coil'), ...each('lead'), ...each('connector')];
    case 'coil_rail':
      return [...each('rail'), ...each('boot')];
    case 'waste_spark':
      return [
        ...companions(firingOrder).map((pair): Hypothesis => ({ cause: 'pack', cylinders: inOrder(pair) })),
        ...each('lead'),
      ];
    case 'distributor':
      // A tower of the cap is one cylinder's; carbon or damp in it is everybody's.
      return [...each('lead'), ...each('cap'), whole('cap'), whole('rotor'), whole('coil_lead'), whole('coil')];
  }
}

/** A usual life is half used. */
const USUAL_LIFE = 0.5;
const wearOf = (lifeUsed: number): number => 0.2 + 1.6 * Math.min(2, Math.max(0, lifeUsed)) ** 2;

/** How much more a part is suspected for its age. */
function byAge({ ages }: MisfireCase, { cause, cylinders }: Hypothesis): number {
  const own = ages.filter(
    ({ component, cylinder }) => CAUSES_OF[component].includes(cause) && cylinders.includes(cylinder),
  );
  if (own.length === 0) return 1;
  return Math.max(...own.map(({ lifeUsed }) => wearOf(lifeUsed))) / wearOf(USUAL_LIFE);
}

/** Most misfires within so many km of a visit come from the visit. */
export const VISIT_KM = 500;
/** How much more each is suspected right after its place was worked on. Assumed. */
const TOUCHED: Readonly<Partial<Record<Cause, readonly [by: RecentWork['touched'][number], factor: number]>>> = {
  connector: ['connector', 9],
  wiring: ['connector', 2],
  lead: ['lead', 6],
  boot: ['lead', 4],
  plug: ['plug', 3],
  coil: ['coil', 2.5],
  pack: ['coil', 2.5],
  rail: ['coil', 2.5],
};
/** Whatever was taken off to get there was pressed on again. */
const OPENED_FACTOR = 4;
const RELEARN_FACTOR = 6;

function byWork({ recentWork }: MisfireCase, { cause, cylinders }: Hypothesis): number {
  return recentWork.reduce((factor, work) => {
    if (work.kmAgo > VISIT_KM || work.touched.length === 0) return factor;
    const fade = 1 - work.kmAgo / VISIT_KM;
    const isHere = cylinders.some((cylinder) => work.cylinders.includes(cylinder));
    return Math.max(factor, 1 + (factorOf(cause, work, isHere) - 1) * fade);
  }, 1);
}

function factorOf(cause: Cause, { touched }: RecentWork, isHere: boolean): number {
  if (cause === 'relearn') return RELEARN_FACTOR;
  if (!isHere) return 1;
  const [by, factor] = TOUCHED[cause] ?? [null, 1];
  if (by !== null && touched.includes(by)) return factor;
  return cause === 'connector' || cause === 'boot' ? OPENED_FACTOR : 1;
}

/** A cylinder that used up coil after coil is the victim of something else there. */
const VICTIM_TIMES = 2;
const VICTIM = { coil: 0.4, other: 3 } as const;
const OF_THE_PLACE: readonly Cause[] = ['boot', 'lead', 'plug', 'wiring', 'connector'];
/** Others of a lot that failed speak against the rest of it, up to so much. */
const MAX_LOT_FACTOR = 4;

function byLot({ record }: MisfireCase, { cause, cylinders }: Hypothesis): number {
  const failed = record
    .filter(({ component, cylinder }) => CAUSES_OF[component].includes(cause) && cylinders.includes(cylinder))
    .map(({ lotFailed }) => lotFailed);
  return Math.min(MAX_LOT_FACTOR, 1 + Math.max(0, ...failed));
}

function byFailures({ record }: MisfireCase, { cause, cylinders }: Hypothesis): number {
  const isVictim = record.some(
    ({ component, cylinder, failedHere }) =>
      component === 'coil' && failedHere >= VICTIM_TIMES && cylinders.length === 1 && cylinders.includes(cylinder),
  );
  if (!isVictim) return 1;
  if (CAUSES_OF.coil.includes(cause)) return VICTIM.coil;
  return OF_THE_PLACE.includes(cause) ? VICTIM.other : 1;
}

/** A cylinder that rests at part load stays cool and oily: its plug fouls, and what lifts its valves may stick. */
const RESTING: Readonly<Partial<Record<Cause, number>>> = { mechanical: 2, plug: 1.5 };

const byRest = ({ engine }: MisfireCase, { cause, cylinders }: Hypothesis): number =>
  cylinders.length === 1 && cylinders.every((cylinder) => engine.resting.includes(cylinder))
    ? (RESTING[cause] ?? 1)
    : 1;

/** What a family is known for happens to it more often. */
const WEAK_FACTOR = 2;

/** What the record says for or against a cause, before anything is seen. */
export const RECORD_FACTORS = ['age', 'work', 'lot', 'failures', 'rest', 'weak'] as const;
export type RecordFactor = (typeof RECORD_FACTORS)[number];

/** By how much each makes a cause more likely than usual; 1: it says nothing. */
export const factorsOf = (given: MisfireCase, hypothesis: Hypothesis): Readonly<Record<RecordFactor, number>> => ({
  age: byAge(given, hypothesis),
  work: byWork(given, hypothesis),
  lot: byLot(given, hypothesis),
  failures: byFailures(given, hypothesis),
  rest: byRest(given, hypothesis),
  weak: given.weak.includes(hypothesis.cause) ? WEAK_FACTOR : 1,
});

/** Parts of one place that may both be bad, and parts of one kind that age together. */
const TOGETHER: readonly (readonly [Cause, Cause])[] = [
  ['coil', 'plug'],
  ['coil', 'boot'],
  ['coil', 'lead'],
  ['plug', 'boot'],
  ['plug', 'lead'],
  ['pack', 'lead'],
  ['pack', 'plug'],
  ['rail', 'plug'],
  ['rail', 'boot'],
];
const AGE_TOGETHER: readonly Cause[] = ['coil', 'plug', 'boot', 'lead', 'rail'];

const overlap = (a: Hypothesis, b: Hypothesis): boolean =>
  a.cylinders.some((cylinder) => b.cylinders.includes(cylinder));

function comeTogether(a: Hypothesis, b: Hypothesis): boolean {
  if (isCrossed(a) || isCrossed(b)) return false;
  if (a.cause === b.cause) return AGE_TOGETHER.includes(a.cause) && !overlap(a, b);
  return (
    overlap(a, b) && TOGETHER.some(([x, y]) => (a.cause === x && b.cause === y) || (a.cause === y && b.cause === x))
  );
}

/** All states with their weights before anything is seen; weights are relative. */
export function statesOf(given: MisfireCase): readonly State[] {
  const cylinders = cylindersOf(given.engine).length;
  const all = hypothesesOf(given);
  const pairs = all.filter(isCrossed).length;
  const singles = all.map((hypothesis) => {
    if (isCrossed(hypothesis)) return { hypothesis, weight: (CROSSED_RATE * (cylinders / 2)) / pairs };
    // A cause of a bank or of the engine is one, however many cylinders it has.
    const each = hypothesis.cylinders.length === 1 ? 1 : cylinders / 2;
    const plugs = hypothesis.cause === 'plug' ? given.engine.plugsPerCylinder : 1;
    const factors = factorsOf(given, hypothesis);
    const weight = RECORD_FACTORS.reduce(
      (product, factor) => product * factors[factor],
      RATES[hypothesis.cause] * each * plugs,
    );
    return { hypothesis, weight };
  });
  const total = singles.reduce((sum, { weight }) => sum + weight, 0);
  const doubles = singles.flatMap((a, i) =>
    singles.slice(i + 1).flatMap((b): readonly State[] =>
      comeTogether(a.hypothesis, b.hypothesis)
        ? [
            {
              causes: [a.hypothesis, b.hypothesis],
              weight: (TWO_AT_ONCE * a.weight * b.weight) / total,
            },
          ]
        : [],
    ),
  );
  return [...singles.map(({ hypothesis, weight }): State => ({ causes: [hypothesis], weight })), ...doubles];
}
