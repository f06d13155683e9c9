import { type Cause, type Hypothesis, type MisfireCase, openingOf, type SuspectPart } from './misfire-case';
import { type Belief, probabilities, type StateSpace, type Suspicion } from './posterior';
import { isCrossed } from './states';

/* What it takes to cure each cause, and the cheapest order in which to try. */

const USUAL_PRICES: Readonly<Record<SuspectPart, number>> = { coil: 60, plug: 12, lead: 18, injector: 120 };
/** Of other parts, in the same money as those. Assumed. */
const OTHER_PRICES: Readonly<Partial<Record<Cause, number>>> = { cap: 30, rotor: 12, coil_lead: 18 };

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
};

/** Beyond ignition, or not a part: others look after it, with these findings. */
const REFERRED: readonly Cause[] = ['mechanical', 'wiring', 'mixture_bank', 'mixture_all', 'fuel'];
/** The vehicle comes once more when what was done did not cure it. Minutes of downtime. */
const ANOTHER_VISIT_MINUTES = 45;

type Remedy =
  | { readonly action: 'replace'; readonly cause: Cause; readonly cylinders: readonly number[] }
  | { readonly action: 'refer'; readonly cause: Cause; readonly cylinders: readonly number[] }
  | { readonly action: 'watch'; readonly cause: Cause; readonly cylinders: readonly number[] };

/** The part of a shop's price list that a cause is. */
export function partOf(cause: Cause): SuspectPart | null {
  if (cause === 'coil' || cause === 'pack' || cause === 'rail') return 'coil';
  if (cause === 'lead' || cause === 'boot') return 'lead';
  return cause === 'plug' || cause === 'injector' ? cause : null;
}

export function remedyOf({ cause, cylinders }: Suspicion): Remedy {
  if (REFERRED.includes(cause)) return { action: 'refer', cause, cylinders };
  return cause === 'relearn' ? { action: 'watch', cause, cylinders } : { action: 'replace', cause, cylinders };
}

/** Causes for which the cover of a cylinder comes off. */
const IN_THE_WELL: readonly Cause[] = ['coil', 'plug', 'boot', 'lead', 'pack', 'rail', 'connector', 'wiring'];

/** Minutes to cure a cause, the way there and back among them. */
export function minutesToCure(given: MisfireCase, { cause, cylinders }: Hypothesis): number {
  const { minutes } = given;
  const named = minutes[partOf(cause) ?? cause] ?? minutes[cause];
  const way = IN_THE_WELL.includes(cause) ? openingOf(given, cylinders.slice(0, 1)) : 0;
  return (named ?? USUAL_MINUTES[cause]) + way;
}

/** Money of so many minutes of work, the vehicle standing. */
export const costOfMinutes = ({ labourPerHour, downtimePerHour }: MisfireCase, minutes: number): number =>
  (minutes / 60) * (labourPerHour + downtimePerHour);

/** Money to cure a cause, parts and work. */
export function costToCure(given: MisfireCase, hypothesis: Hypothesis): number {
  const { cause } = hypothesis;
  // Nothing is bought: they are put on right.
  if (isCrossed(hypothesis)) return costOfMinutes(given, minutesToCure(given, hypothesis));
  const part = partOf(cause);
  const plugs = cause === 'plug' ? given.engine.plugsPerCylinder : 1;
  const price = part ? (given.prices[part] ?? USUAL_PRICES[part]) * plugs : (OTHER_PRICES[cause] ?? 0);
  return price + costOfMinutes(given, minutesToCure(given, hypothesis));
}

/** Every try is driven before it is believed. */
const DRIVE_MINUTES = 10;

interface Cure {
  /** What is done first. */
  readonly first: Suspicion | null;
  /** Expected money until it is cured, wrong parts and further visits among it. */
  readonly expected: number;
}

/** Money to try each cause of a space: what a case takes for granted does not change with what is seen. */
const tryCosts = new WeakMap<StateSpace, Float64Array>();

function costsOf(given: MisfireCase, space: StateSpace): Float64Array {
  const known = tryCosts.get(space);
  if (known) return known;
  const drive = costOfMinutes(given, DRIVE_MINUTES);
  const costs = Float64Array.from(space.hypotheses, (one) => costToCure(given, one) + drive);
  tryCosts.set(space, costs);
  return costs;
}

/** Less likely than that, the order in which a cause is tried costs nothing. */
const NEGLIGIBLE = 1e-5;

/**
 * The cheapest order in which to replace or refer without any more tests: by cost over probability, which is least on average
 * where each try shows whether it was the one.
 */
export function cheapestCure(given: MisfireCase, belief: Belief): Cure {
  const { space } = belief;
  const costs = costsOf(given, space);
  const chances = probabilities(belief);
  const order: number[] = [];
  for (let i = 0; i < chances.length; i += 1) if ((chances[i] ?? 0) > NEGLIGIBLE) order.push(i);
  const ratio = (i: number): number => (costs[i] ?? 0) / (chances[i] ?? 1);
  order.sort((a, b) => ratio(a) - ratio(b));
  const again = costOfMinutes({ ...given, labourPerHour: 0 }, ANOTHER_VISIT_MINUTES);
  let left = 1;
  let expected = 0;
  for (const [nth, i] of order.entries()) {
    expected += left * ((costs[i] ?? 0) + (nth > 0 ? again : 0));
    left -= chances[i] ?? 0;
  }
  const first = order[0];
  const hypothesis = first === undefined ? undefined : space.hypotheses[first];
  return {
    first: hypothesis ? { ...hypothesis, probability: chances[first ?? 0] ?? 0 } : null,
    expected,
  };
}
