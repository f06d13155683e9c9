import {
  type Cause,
  type Hypothesis,
  type MisfireCase,
  openingOf,
  PRICED_PARTS,
  partOn,
  type SuspectPart,
} from './misfire-case';
import { type Belief, probabilities, type StateSpace, type Suspicion } from './posterior';
import { CAUSES_OF, isCrossed } from './states';

/* What it takes to cure each cause, and the cheapest order in which to try. */

/** Where the shop names no price, in the same money as its others. Assumed. */
const USUAL_PRICES: Readonly<Record<SuspectPart, number>> = {
  coil: 60,
  plug: 12,
  lead: 18,
  boot: 18,
  injector: 120,
  cap: 30,
  rotor: 12,
  coil_lead: 18,
  connector: 8,
};

/** To replace or mend each, where nothing else is said. Assumed. */
const USUAL_MINUTES: Readonly<Record<Cause, number>> = {
  coil: 15,
  plug: 25,
  boot: 12,
  lead: 10,
  pack: 25,
  rail: 25,
  cap: 20,
  rotor: 20,
  coil_lead: 8,
  injector: 90,
  mechanical: 60,
  wiring: 60,
  connector: 6,
  mixture_bank: 60,
  mixture_all: 60,
  fuel: 40,
  relearn: 30,
  crossed_leads: 10,
  crossed_connectors: 10,
  set: 60,
};

/** Beyond ignition, or not a part: others look after it, with these findings. */
const REFERRED: readonly Cause[] = ['mechanical', 'wiring', 'mixture_bank', 'mixture_all', 'fuel'];
/** The vehicle comes once more when what was done did not cure it. Minutes of downtime. */
const ANOTHER_VISIT_MINUTES = 45;

type Remedy =
  | { readonly action: 'replace'; readonly cause: Cause; readonly cylinders: readonly number[] }
  | { readonly action: 'refer'; readonly cause: Cause; readonly cylinders: readonly number[] }
  | { readonly action: 'watch'; readonly cause: Cause; readonly cylinders: readonly number[] };

const PART_OF: Readonly<Partial<Record<Cause, SuspectPart>>> = {
  coil: 'coil',
  pack: 'coil',
  rail: 'coil',
  lead: 'lead',
  crossed_leads: 'lead',
  boot: 'boot',
  plug: 'plug',
  set: 'plug',
  injector: 'injector',
  cap: 'cap',
  rotor: 'rotor',
  coil_lead: 'coil_lead',
  connector: 'connector',
  crossed_connectors: 'connector',
};

/** The part that is replaced, or put right, for a cause; null: none. */
export const partOf = (cause: Cause): SuspectPart | null => PART_OF[cause] ?? null;

/** What a part costs: as the shop says, a boot as a lead, else as usual. */
function priceOf({ prices }: MisfireCase, part: SuspectPart): number {
  const priced = PRICED_PARTS.find((known) => known === (part === 'boot' ? 'lead' : part));
  return (priced && prices[priced]) ?? USUAL_PRICES[part];
}

export function remedyOf({ cause, cylinders }: Suspicion): Remedy {
  if (REFERRED.includes(cause)) return { action: 'refer', cause, cylinders };
  return cause === 'relearn' ? { action: 'watch', cause, cylinders } : { action: 'replace', cause, cylinders };
}

/** Causes for which the cover of a cylinder comes off. */
const IN_THE_WELL: readonly Cause[] = [
  'coil',
  'plug',
  'boot',
  'lead',
  'pack',
  'rail',
  'connector',
  'wiring',
  'crossed_leads',
  'crossed_connectors',
  'set',
];

/** Minutes to cure a cause, the way there and back among them. */
export function minutesToCure(given: MisfireCase, { cause, cylinders }: Hypothesis): number {
  const { minutes } = given;
  const named = minutes[partOf(cause) ?? cause] ?? minutes[cause];
  const at = cause === 'set' ? cylinders : cylinders.slice(0, 1);
  const way = IN_THE_WELL.includes(cause) ? openingOf(given, at) : 0;
  return (named ?? USUAL_MINUTES[cause]) + way;
}

/** Money of so many minutes of work, the vehicle standing. */
export const costOfMinutes = ({ labourPerHour, downtimePerHour }: MisfireCase, minutes: number): number =>
  (minutes / 60) * (labourPerHour + downtimePerHour);

/** Money to cure a cause, parts and work. */
function costToCure(given: MisfireCase, hypothesis: Hypothesis): number {
  const { cause, cylinders } = hypothesis;
  const work = costOfMinutes(given, minutesToCure(given, hypothesis));
  const part = partOf(cause);
  // Nothing is bought: crossed leads are put on right, and what is not ignition others look after.
  if (isCrossed(hypothesis) || part === null) return work;
  const plugs = cause === 'plug' || cause === 'set' ? given.engine.plugsPerCylinder : 1;
  return work + priceOf(given, part) * plugs * (cause === 'set' ? cylinders.length : 1);
}

/** Every try is driven before it is believed. */
const DRIVE_MINUTES = 10;
/** What a part replaced in vain costs besides: it is booked, kept or sent back, and nobody believes the next one. Assumed. */
const WRONG_PART = 120;
/** Others looked at what was well. Assumed. */
const WRONG_REFERRAL = 60;

interface Cure {
  /** What is done first. */
  readonly first: Suspicion | null;
  /** The part that is replaced first. */
  readonly firstPart: Suspicion | null;
  /** Expected money until it is cured, wrong parts and further visits among it. */
  readonly expected: number;
}

interface TryCosts {
  /** To try each cause of a space. */
  readonly right: Float64Array;
  /** Over that, where it was not the cause. */
  readonly wrong: Float64Array;
}

/** What a case takes for granted does not change with what is seen. */
const tryCosts = new WeakMap<StateSpace, TryCosts>();

function costsOf(given: MisfireCase, space: StateSpace): TryCosts {
  const known = tryCosts.get(space);
  if (known) return known;
  const drive = costOfMinutes(given, DRIVE_MINUTES);
  const again = costOfMinutes({ ...given, labourPerHour: 0 }, ANOTHER_VISIT_MINUTES);
  const costs: TryCosts = {
    right: Float64Array.from(space.hypotheses, (hypothesis) => costToCure(given, hypothesis) + drive),
    wrong: Float64Array.from(space.hypotheses, (hypothesis) => again + wasteOf(hypothesis)),
  };
  tryCosts.set(space, costs);
  return costs;
}

function wasteOf({ cause }: Hypothesis): number {
  if (REFERRED.includes(cause)) return WRONG_REFERRAL;
  // What is put on right, or pressed on, or learnt anew, wastes no part.
  return partOf(cause) === null || isCrossed({ cause }) || cause === 'connector' ? 0 : WRONG_PART;
}

/** Less likely than that, the order in which a cause is tried costs nothing. */
const NEGLIGIBLE = 1e-4;

/** What was replaced and cured nothing is not replaced again. */
function triedAlready({ engine, testsDone }: MisfireCase): (one: Hypothesis) => boolean {
  const inVain = testsDone.flatMap((test) =>
    test.test === 'replace' && test.outcome === 'not_cured' && test.component !== null
      ? [{ part: partOn(engine, test.component), cylinder: test.cylinder }]
      : [],
  );
  return ({ cause, cylinders }) =>
    inVain.some(
      ({ part, cylinder }) =>
        CAUSES_OF[part].includes(cause) && (cylinder === null || (cylinders.includes(cylinder) && cause !== 'set')),
    );
}

/**
 * The cheapest order in which to replace or refer without any more tests: by cost over probability, which is least on average
 * where each try shows whether it was the one.
 */
export function cheapestCure(given: MisfireCase, belief: Belief): Cure {
  const { space } = belief;
  const { right, wrong } = costsOf(given, space);
  const chances = probabilities(belief);
  const isTried = triedAlready(given);
  const order: number[] = [];
  for (let i = 0; i < chances.length; i += 1) {
    const hypothesis = space.hypotheses[i];
    if ((chances[i] ?? 0) > NEGLIGIBLE && hypothesis && !isTried(hypothesis)) order.push(i);
  }
  const ratio = (i: number): number => ((right[i] ?? 0) + (wrong[i] ?? 0)) / (chances[i] ?? 1);
  order.sort((a, b) => ratio(a) - ratio(b));
  let left = 1;
  let expected = 0;
  for (const i of order) {
    const chance = chances[i] ?? 0;
    expected += left * (right[i] ?? 0) + (left - chance) * (wrong[i] ?? 0);
    left -= chance;
  }
  const suspicion = (i: number | undefined): Suspicion | null => {
    const hypothesis = i === undefined ? undefined : space.hypotheses[i];
    return hypothesis && i !== undefined ? { ...hypothesis, probability: chances[i] ?? 0 } : null;
  };
  const part = order.find((i) => partOf(space.hypotheses[i]?.cause ?? 'fuel') !== null);
  return { first: suspicion(order[0]), firstPart: suspicion(part), expected };
}
