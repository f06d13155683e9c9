import type { DoneTest, FoundWord, MisfireCase, Symptom } from './misfire-case';

/* Whether a vehicle may be driven on. */

/**
 * Misfires in 1,000 firings of one cylinder at which the catalyst overheats: 10 %.
 * Source: diagnostic rules for road vehicles set the share that harms a catalyst at 5 to 20 % of the firings, by load; the lower
 * half of it is taken, as nobody at the vehicle knows the load.
 */
export const HARMS_CATALYST_PER_1000 = 100;
/**
 * Misfires in 1,000 firings of one cylinder above which emissions are no longer kept: 2 %.
 * Source: the same rules set it at 1 to 3 % of the firings.
 */
export const OVER_EMISSIONS_PER_1000 = 20;

/** free: nothing speaks against it; to_the_shop: without load, straight there; stop: not a metre more. */
export const DRIVING = ['free', 'to_the_shop', 'stop'] as const;
export type Driving = (typeof DRIVING)[number];

/** Why a vehicle is not driven on as it is. */
export type DrivingReason =
  | { readonly kind: 'lamp' }
  | { readonly kind: 'counts'; readonly cylinder: number; readonly per1000: number }
  | { readonly kind: 'symptom'; readonly symptom: Symptom }
  | { readonly kind: 'found'; readonly cylinder: number; readonly word: FoundWord }
  /** What the removed parts of an open order say stops its work. */
  | { readonly kind: 'finding' };

export interface DrivingAdvice {
  readonly driving: Driving;
  readonly reasons: readonly DrivingReason[];
}

/** Raw fuel burns in the catalyst; knocking breaks pistons. */
const STOPPING_SYMPTOMS: readonly Symptom[] = ['rich_smell', 'knocking'];
/** A piece of insulator falls into the cylinder. */
const STOPPING_FINDS: readonly FoundWord[] = ['insulator_cracked'];

const CURING: readonly DoneTest['outcome'][] = ['cured'];
/** Outcomes that say nothing of whether it misfires now. */
const SILENT: readonly DoneTest['outcome'][] = [
  null,
  'found',
  'not_found',
  'in_range',
  'high',
  'open',
  'low',
  'normal',
];

/** What decides whether it may be driven. */
type DrivingFacts = Pick<MisfireCase, 'testsDone' | 'counts' | 'lamp' | 'symptoms' | 'found' | 'stoppedByFinding'>;

/** Whether the last that was tried cured it, and nothing was counted since. */
export function isCured({ testsDone, counts }: Pick<MisfireCase, 'testsDone' | 'counts'>): boolean {
  const last = testsDone.findLastIndex(({ outcome }) => !SILENT.includes(outcome));
  const outcome = testsDone[last]?.outcome;
  const isBack = counts.some(({ per1000, after = 0 }) => after > last && per1000 > OVER_EMISSIONS_PER_1000);
  return outcome !== undefined && CURING.includes(outcome) && !isBack;
}

/** Counts of the last moment at which any were taken. */
function lastCounts({ counts }: Pick<MisfireCase, 'counts'>): MisfireCase['counts'] {
  const last = Math.max(0, ...counts.map(({ after = 0 }) => after));
  return counts.filter(({ after = 0 }) => after === last);
}

/**
 * Whether a vehicle that misfires may be driven on: by its lamp, its counts, what the driver smells and hears, and what was
 * found. Cured: it may, whatever was seen before.
 */
export function drivingOf(given: DrivingFacts): DrivingAdvice {
  if (isCured(given)) return { driving: 'free', reasons: [] };
  const counts = lastCounts(given).filter(({ per1000 }) => per1000 > OVER_EMISSIONS_PER_1000);
  const stops: readonly DrivingReason[] = [
    ...(given.lamp === 'flashing' ? [{ kind: 'lamp' as const }] : []),
    ...counts
      .filter(({ per1000 }) => per1000 >= HARMS_CATALYST_PER_1000)
      .map(({ cylinder, per1000 }) => ({ kind: 'counts' as const, cylinder, per1000 })),
    ...given.symptoms
      .filter((symptom) => STOPPING_SYMPTOMS.includes(symptom))
      .map((symptom) => ({ kind: 'symptom' as const, symptom })),
    ...given.found
      .filter(({ word }) => STOPPING_FINDS.includes(word))
      .map(({ cylinder, word }) => ({ kind: 'found' as const, cylinder, word })),
    ...(given.stoppedByFinding ? [{ kind: 'finding' as const }] : []),
  ];
  if (stops.length > 0) return { driving: 'stop', reasons: stops };
  const slow = counts.map(({ cylinder, per1000 }) => ({ kind: 'counts' as const, cylinder, per1000 }));
  return slow.length > 0 ? { driving: 'to_the_shop', reasons: slow } : { driving: 'free', reasons: [] };
}
