import type { Mm } from '../shared/kinds';
import { roundTo } from '../units/round';
import type { Condition } from './vocabulary';

/** What a trainer plug is graded as: what it points to when it stands alone. */
export const GRADES = [
  'normal',
  'sooted',
  'oil_inside',
  'oil_outside',
  'hot_or_lean',
  'detonation',
  'coolant',
  'tracked',
  'water',
  'worn_out',
  'threads_hurt',
  'cracked',
] as const;
export type Grade = (typeof GRADES)[number];

interface TrainerPlug {
  readonly number: number;
  readonly answer: Grade;
  readonly seen: Readonly<Partial<Record<Condition, 1 | 2 | 3>>>;
  readonly gapMm: Mm;
}

interface Case {
  /** One of these, clear or beyond doubt. */
  readonly shows: readonly Condition[];
  /** One of these beside it, or none: what does not change the answer. */
  readonly beside: readonly Condition[];
  readonly gapMm: readonly [number, number];
}

const WORN: readonly [number, number] = [1.45, 1.7];
const USUAL: readonly [number, number] = [0.95, 1.15];

/** Source: the rules for single plugs in `rules.ts`. */
const CASES: Readonly<Record<Grade, Case>> = {
  normal: { shows: ['nose tan', 'nose grey'], beside: ['electrodes sharp', 'no deposits'], gapMm: USUAL },
  sooted: { shows: ['nose black dry'], beside: ['electrodes sharp', 'seat sooted'], gapMm: USUAL },
  oil_inside: { shows: ['nose black oily'], beside: ['ash', 'electrodes rounded'], gapMm: USUAL },
  oil_outside: { shows: ['insulator oily'], beside: ['nose tan', 'boot swollen'], gapMm: USUAL },
  hot_or_lean: { shows: ['nose white', 'nose blistered'], beside: ['electrodes rounded'], gapMm: USUAL },
  detonation: {
    shows: ['electrodes melted', 'electrodes peppered'],
    beside: ['nose white', 'nose grey'],
    gapMm: USUAL,
  },
  coolant: { shows: ['nose coloured trace'], beside: ['electrodes sharp'], gapMm: USUAL },
  tracked: { shows: ['carbon track'], beside: ['nose tan', 'boot tracked'], gapMm: USUAL },
  water: { shows: ['threads rusted'], beside: ['nose tan', 'nose grey'], gapMm: USUAL },
  worn_out: { shows: ['electrodes eroded'], beside: ['nose tan', 'nose grey'], gapMm: WORN },
  threads_hurt: { shows: ['threads galled'], beside: ['nose tan', 'nose grey'], gapMm: USUAL },
  cracked: { shows: ['insulator cracked'], beside: ['nose tan', 'nose grey'], gapMm: USUAL },
};

/** The plug of a number, the same for everyone, so that two people can be compared. @param random from 0 to 1, by the number */
export function trainerPlug(number: number, random: () => number): TrainerPlug {
  const answer = GRADES[number % GRADES.length] ?? 'normal';
  const { shows, beside, gapMm } = CASES[answer];
  const pick = <T>(items: readonly T[]): T | undefined => items[Math.floor(random() * items.length)];
  const [main, other] = [pick(shows), random() < 0.75 ? pick(beside) : undefined];
  const severity = random() < 0.5 ? 2 : 3;
  return {
    number,
    answer,
    seen: { ...(other ? { [other]: 2 } : {}), ...(main ? { [main]: severity } : {}) },
    gapMm: roundTo(gapMm[0] + random() * (gapMm[1] - gapMm[0]), 2),
  };
}

export interface Graded {
  readonly plug: number;
  readonly answer: Grade;
  readonly said: Grade;
}

/** Share of right answers by grade, counted as if one had been right and one wrong: nobody is sure after one plug. */
export const rightShare = (graded: readonly Graded[], grade: Grade): number => {
  const of = graded.filter(({ answer }) => answer === grade);
  return (of.filter(({ said }) => said === grade).length + 1) / (of.length + 2);
};

/** Plugs there are in the trainer: each grade in several dresses. */
export const TRAINER_PLUGS = 8 * GRADES.length;

/**
 * The plug to grade next: of the grade that the person knows least, the one they have not seen for longest.
 *
 * @param graded theirs, oldest first
 */
export function nextPlug(graded: readonly Graded[]): number {
  const last = graded.at(-1);
  const weakest = [...GRADES]
    .filter((grade) => grade !== last?.answer)
    .sort((a, b) => rightShare(graded, a) - rightShare(graded, b) || seenAt(graded, a) - seenAt(graded, b))[0];
  const own = Array.from({ length: TRAINER_PLUGS }, (_, n) => n).filter(
    (n) => GRADES[n % GRADES.length] === (weakest ?? 'normal'),
  );
  const lastSeen = (n: number): number => graded.findLastIndex(({ plug }) => plug === n);
  return own.sort((a, b) => lastSeen(a) - lastSeen(b) || a - b)[0] ?? 0;
}

const seenAt = (graded: readonly Graded[], grade: Grade): number =>
  graded.findLastIndex(({ answer }) => answer === grade);
