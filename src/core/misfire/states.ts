import { companions } from '../engine/coils';
import { OF_THE_VISIT, RATES, TWO_AT_ONCE, VISIT_KM, VISIT_SHARE } from './likelihoods';
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
  lead: ['lead', 'crossed_leads'],
  boot: ['boot'],
  plug: ['plug', 'set'],
  injector: ['injector'],
  cap: ['cap'],
  rotor: ['rotor'],
  coil_lead: ['coil_lead'],
  connector: ['connector', 'crossed_connectors'],
};

/** Acts on a whole bank, on the whole engine, or on all that a visit worked on. */
export const isBroad = ({ cause, cylinders }: Hypothesis): boolean =>
  cylinders.length > 2 || cause === 'mixture_bank' || cause === 'mixture_all' || cause === 'fuel' || cause === 'set';

/** Two of one kind that were put on each in the other's place. */
export const isCrossed = ({ cause }: Pick<Hypothesis, 'cause'>): boolean =>
  cause === 'crossed_leads' || cause === 'crossed_connectors';

const inOrder = (cylinders: readonly number[]): readonly number[] => [...cylinders].sort((a, b) => a - b);

/** Everything that may be wrong with an engine, one by one. */
function hypothesesOf({ engine, recentWork }: MisfireCase): readonly Hypothesis[] {
  const all = inOrder(cylindersOf(engine));
  const each = (cause: Cause): readonly Hypothesis[] => all.map((cylinder) => ({ cause, cylinders: [cylinder] }));
  const whole = (cause: Cause): Hypothesis => ({ cause, cylinders: all });
  const visits = recentWork.filter(isRecent);
  const ofVisits = visits.flatMap((work) => [...crossed(engine, work), ...setOf(engine, work)]);
  return [
    ...ignitionOf(engine, each, whole),
    ...new Map(ofVisits.map((visited) => [`${visited.cause} ${visited.cylinders}`, visited])).values(),
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

const isRecent = ({ kmAgo, touched }: RecentWork): boolean => kmAgo < VISIT_KM && touched.length > 0;

/** Cylinders of an engine that a visit worked on. */
const workedOn = (engine: MisfireEngine, { cylinders }: RecentWork): readonly number[] =>
  inOrder(cylindersOf(engine).filter((cylinder) => cylinders.includes(cylinder)));

/**
 * Pairs that a visit can have put on crossed: only what was off together. Companions of a pack fire at the same time, so theirs
 * may be crossed and nobody notices.
 */
function crossed(engine: MisfireEngine, work: RecentWork): readonly Hypothesis[] {
  const { ignition } = engine;
  if (ignition === 'coil_rail') return [];
  const cause: Cause = ignition === 'coil_on_plug' ? 'crossed_connectors' : 'crossed_leads';
  if (visitRate(cause, work) === 0) return [];
  const together = workedOn(engine, work);
  const packs = ignition === 'waste_spark' ? companions(engine.firingOrder) : [];
  const shareCoil = (a: number, b: number): boolean => packs.some((pack) => pack.includes(a) && pack.includes(b));
  return together.flatMap((a, i) =>
    together.slice(i + 1).flatMap((b) => (shareCoil(a, b) ? [] : [{ cause, cylinders: [a, b] } as const])),
  );
}

/** The gap or the part of a whole plug job: of half of the engine at least. */
function setOf(engine: MisfireEngine, work: RecentWork): readonly Hypothesis[] {
  const cylinders = workedOn(engine, work);
  const isJob =
    work.touched.includes('plug') && cylinders.length > 1 && cylinders.length * 2 >= cylindersOf(engine).length;
  return isJob ? [{ cause: 'set', cylinders }] : [];
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
  const unknown = ages.filter(
    ({ component, cylinder }) => CAUSES_OF[component].includes(cause) && cylinders.includes(cylinder),
  );
  if (unknown.length === 0) return 1;
  return Math.max(...unknown.map(({ lifeUsed }) => wearOf(lifeUsed))) / wearOf(USUAL_LIFE);
}

/** How often a visit makes a cause at a place that it touched, relative. */
const visitRate = (cause: Cause, { touched }: RecentWork): number =>
  Math.max(0, ...touched.map((part) => OF_THE_VISIT[cause]?.[part] ?? 0));

/** A record of gaps outside their range, or of another number than the sheet's, speaks against the set. */
const SET_IN_DOUBT = 8;

/** What a visit makes of each hypothesis, relative: its pairs and its set count as one for each two cylinders. */
function visitWeight(engine: MisfireEngine, work: RecentWork, { cause, cylinders }: Hypothesis, alike: number): number {
  const rate = visitRate(cause, work);
  if (rate === 0) return 0;
  if (cause === 'relearn') return rate;
  const at = workedOn(engine, work);
  if (isCrossed({ cause })) return (rate * (at.length / 2)) / Math.max(1, alike);
  if (cause === 'set') return rate * at.length * (work.setInDoubt ? SET_IN_DOUBT : 1);
  return cylinders.some((cylinder) => at.includes(cylinder)) ? rate * Math.min(2, cylinders.length) : 0;
}

/** Share of the suspicion that a visit has to itself: most right after it, none at `VISIT_KM`. */
const visitShare = ({ kmAgo }: RecentWork): number => VISIT_SHARE * Math.max(0, 1 - kmAgo / VISIT_KM);

/** Weights with what the visits before add: each has a share of its own, and what it touched shares that. */
function withVisits(
  given: MisfireCase,
  hypotheses: readonly Hypothesis[],
  before: readonly number[],
): readonly number[] {
  return given.recentWork.filter(isRecent).reduce<readonly number[]>((weights, work) => {
    const alike = hypotheses.filter(isCrossed).length;
    const added = hypotheses.map((hypothesis) => visitWeight(given.engine, work, hypothesis, alike));
    const [sum, total] = [added, weights].map((list) => list.reduce((a, b) => a + b, 0)) as [number, number];
    if (sum === 0) return weights;
    const share = visitShare(work);
    const scale = (share / (1 - share)) * (total / sum);
    return weights.map((weight, i) => weight + scale * (added[i] ?? 0));
  }, before);
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
type OfPart = Exclude<RecordFactor, 'work'>;
const OF_PART: readonly OfPart[] = ['age', 'lot', 'failures', 'rest', 'weak'];

const partFactors = (given: MisfireCase, hypothesis: Hypothesis): Readonly<Record<OfPart, number>> => ({
  age: byAge(given, hypothesis),
  lot: byLot(given, hypothesis),
  failures: byFailures(given, hypothesis),
  rest: byRest(given, hypothesis),
  weak: given.weak.includes(hypothesis.cause) ? WEAK_FACTOR : 1,
});

/** What may be wrong, with its weight before the last visits count and after. */
function weighed(given: MisfireCase) {
  const hypotheses = hypothesesOf(given);
  const before = hypotheses.map((hypothesis) => weightBefore(given, hypothesis));
  return { hypotheses, before, after: withVisits(given, hypotheses, before) };
}

/** By how much each makes a cause more likely than usual; 1: it says nothing. */
export function factorsOf(given: MisfireCase, hypothesis: Hypothesis): Readonly<Record<RecordFactor, number>> {
  const { hypotheses, before, after } = weighed(given);
  const i = hypotheses.findIndex(
    ({ cause, cylinders }) => cause === hypothesis.cause && `${cylinders}` === `${hypothesis.cylinders}`,
  );
  const [was = 0, is = 0] = [before[i], after[i]];
  // What only a visit can make owes all to it.
  return { ...partFactors(given, hypothesis), work: was > 0 ? is / was : ONLY_BY_VISIT };
}
const ONLY_BY_VISIT = 16;

/** The one coil of a distributor fails less often than all coils of an engine that has one a cylinder. */
const ONE_COIL = 0.5;

/** Relative, before anything is seen and before the last visits count. */
function weightBefore(given: MisfireCase, hypothesis: Hypothesis): number {
  const { cause, cylinders } = hypothesis;
  const rate = RATES[cause];
  if (rate === 0) return 0;
  // A cause of a bank or of the engine is one, however many cylinders it has.
  const shared = cause === 'coil' && cylinders.length > 1 ? ONE_COIL : 1;
  const each = cylinders.length === 1 ? 1 : (shared * cylindersOf(given.engine).length) / 2;
  const plugs = cause === 'plug' ? given.engine.plugsPerCylinder : 1;
  const factors = partFactors(given, hypothesis);
  return OF_PART.reduce((product, factor) => product * factors[factor], rate * each * plugs);
}

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
  if (isCrossed(a) || isCrossed(b) || isBroad(a) || isBroad(b)) return false;
  if (a.cause === b.cause) return AGE_TOGETHER.includes(a.cause) && !overlap(a, b);
  return (
    overlap(a, b) && TOGETHER.some(([x, y]) => (a.cause === x && b.cause === y) || (a.cause === y && b.cause === x))
  );
}

/** All states with their weights before anything is seen; weights are relative. */
export function statesOf(given: MisfireCase): readonly State[] {
  const { hypotheses, after: weights } = weighed(given);
  const singles = hypotheses.map((hypothesis, i) => ({ hypothesis, weight: weights[i] ?? 0 }));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
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
