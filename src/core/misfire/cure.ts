import type { Cause, MisfireCase, SuspectPart } from './misfire-case';
import { type Belief, type Suspicion, suspicions } from './posterior';

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

export function minutesToCure({ minutes }: MisfireCase, cause: Cause): number {
  const named = minutes[partOf(cause) ?? cause] ?? minutes[cause];
  return named ?? USUAL_MINUTES[cause];
}

/** Money of so many minutes of work, the vehicle standing. */
export const costOfMinutes = ({ labourPerHour, downtimePerHour }: MisfireCase, minutes: number): number =>
  (minutes / 60) * (labourPerHour + downtimePerHour);

/** Money to cure a cause, parts and work. */
export function costToCure(given: MisfireCase, { cause }: Pick<Suspicion, 'cause'>): number {
  const part = partOf(cause);
  const plugs = cause === 'plug' ? given.engine.plugsPerCylinder : 1;
  const price = part ? (given.prices[part] ?? USUAL_PRICES[part]) * plugs : (OTHER_PRICES[cause] ?? 0);
  return price + costOfMinutes(given, minutesToCure(given, cause));
}

/** Every try is driven before it is believed. */
const DRIVE_MINUTES = 10;

interface Cure {
  /** What is done first. */
  readonly first: Suspicion | null;
  /** Expected money until it is cured, wrong parts and further visits among it. */
  readonly expected: number;
}

/**
 * The cheapest order in which to replace or refer without any more tests: by cost over probability, which is least on average
 * where each try shows whether it was the one.
 */
export function cheapestCure(given: MisfireCase, belief: Belief): Cure {
  const tried = suspicions(belief)
    .map((one) => ({ one, cost: costToCure(given, one) + costOfMinutes(given, DRIVE_MINUTES) }))
    .sort((a, b) => a.cost / Math.max(a.one.probability, 1e-9) - b.cost / Math.max(b.one.probability, 1e-9));
  let left = 1;
  let expected = 0;
  const again = costOfMinutes({ ...given, labourPerHour: 0 }, ANOTHER_VISIT_MINUTES);
  for (const [i, { one, cost }] of tried.entries()) {
    expected += left * (cost + (i > 0 ? again : 0));
    left -= one.probability;
    if (left < 1e-4) break;
  }
  return { first: tried[0]?.one ?? null, expected };
}
