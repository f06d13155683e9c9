import type { Mm } from '../shared/kinds';
import { roundTo } from '../units/round';
import type { TaskComponent } from '../work/task';
import type { Condition } from './vocabulary';

/** What a plug of the trainer is graded as: what it points to when it stands alone. */
const PLUG_GRADES = [
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
/** What another part is graded as: which part is at fault, the small one before the one that it stands on. */
const PART_GRADES = [
  'part_normal',
  'coil_fault',
  'boot_fault',
  'oil_first',
  'connector_fault',
  'lead_fault',
  'cap_fault',
  'rotor_fault',
] as const;
export const GRADES = [...PLUG_GRADES, ...PART_GRADES] as const;
export type Grade = (typeof GRADES)[number];
type PlugGrade = (typeof PLUG_GRADES)[number];
type PartGrade = (typeof PART_GRADES)[number];

interface TrainerPart {
  readonly number: number;
  readonly component: TaskComponent;
  readonly answer: Grade;
  readonly seen: Readonly<Partial<Record<Condition, 1 | 2 | 3>>>;
  /** Of a plug; null: another part. */
  readonly gapMm: Mm | null;
}

interface PartCase {
  readonly component: TaskComponent;
  /** One of these, clear or beyond doubt. */
  readonly shows: readonly Condition[];
  /** One of these beside it, or none: what does not change the answer. */
  readonly beside: readonly Condition[];
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
const CASES: Readonly<Record<PlugGrade, Case>> = {
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

/** Source: the rules for other parts in `part-rules.ts`. */
const PART_CASES: Readonly<Record<PartGrade, readonly PartCase[]>> = {
  part_normal: [
    { component: 'coil', shows: ['coil sound'], beside: ['boot sound', 'connector locks'] },
    { component: 'lead', shows: ['lead sound'], beside: [] },
    { component: 'cap', shows: ['cap sound'], beside: [] },
    { component: 'rotor', shows: ['rotor sound'], beside: [] },
  ],
  coil_fault: [
    {
      component: 'coil',
      shows: ['coil body cracked', 'coil swollen', 'coil melted', 'coil tower tracked'],
      beside: ['boot sound', 'connector locks'],
    },
  ],
  boot_fault: [
    { component: 'coil', shows: ['boot torn', 'boot tracked', 'boot spring corroded'], beside: ['coil sound'] },
    { component: 'boot', shows: ['boot torn', 'boot tracked', 'boot spring corroded'], beside: [] },
  ],
  oil_first: [
    { component: 'coil', shows: ['coil oily'], beside: ['boot swollen'] },
    { component: 'seal', shows: ['seal weeping'], beside: [] },
  ],
  connector_fault: [
    { component: 'coil', shows: ['connector tab broken', 'connector pins corroded'], beside: ['coil sound'] },
  ],
  lead_fault: [
    {
      component: 'lead',
      shows: ['lead burnt', 'lead chafed', 'lead boot torn', 'lead tracked', 'lead terminal loose'],
      beside: [],
    },
  ],
  cap_fault: [{ component: 'cap', shows: ['cap cracked', 'cap tracked', 'cap terminals burnt'], beside: [] }],
  rotor_fault: [
    { component: 'rotor', shows: ['rotor tip burnt', 'rotor cracked', 'rotor corroded'], beside: ['rotor worn'] },
  ],
};

/** Each grade of plugs and of other parts in several dresses; the plugs have the lower numbers. */
const DRESSES = 8;
const PLUGS = DRESSES * PLUG_GRADES.length;
/** Parts there are in the trainer. */
export const TRAINER_PARTS = PLUGS + DRESSES * PART_GRADES.length;

const gradeOf = (number: number): Grade =>
  (number < PLUGS ? PLUG_GRADES[number % PLUG_GRADES.length] : PART_GRADES[(number - PLUGS) % PART_GRADES.length]) ??
  'normal';

/** What a part may be graded as, with others of its kind. */
export const gradesFor = (component: TaskComponent): readonly Grade[] =>
  component === 'plug' ? PLUG_GRADES : PART_GRADES;

/** The part of a number, the same for everyone, so that two people can be compared. @param random from 0 to 1, by the number */
export function trainerPart(number: number, random: () => number): TrainerPart {
  const answer = gradeOf(number);
  const pick = <T>(items: readonly T[]): T | undefined => items[Math.floor(random() * items.length)];
  const isPlug = answer in CASES;
  const plug = isPlug ? CASES[answer as PlugGrade] : null;
  const { component, shows, beside } = plug
    ? { component: 'plug' as const, ...plug }
    : (pick(PART_CASES[answer as PartGrade]) ?? { component: 'coil' as const, shows: [], beside: [] });
  const [main, other] = [pick(shows), random() < 0.75 ? pick(beside) : undefined];
  const severity = random() < 0.5 ? 2 : 3;
  return {
    number,
    component,
    answer,
    seen: { ...(other ? { [other]: 2 } : {}), ...(main ? { [main]: severity } : {}) },
    gapMm: plug && roundTo(plug.gapMm[0] + random() * (plug.gapMm[1] - plug.gapMm[0]), 2),
  };
}

export interface Graded {
  readonly plug: number;
  readonly answer: Grade;
  readonly given: Grade;
}

/** Share of right answers by grade, counted as if one had been right and one wrong: nobody is sure after one part. */
export const rightShare = (graded: readonly Graded[], grade: Grade): number => {
  const ofGrade = graded.filter(({ answer }) => answer === grade);
  return (ofGrade.filter(({ given }) => given === grade).length + 1) / (ofGrade.length + 2);
};

/**
 * The part to grade next: of the grade that the person knows least, the one they have not seen for longest.
 *
 * @param graded theirs, oldest first
 */
export function nextPart(graded: readonly Graded[]): number {
  const last = graded.at(-1);
  const weakest = [...GRADES]
    .filter((grade) => grade !== last?.answer)
    .sort((a, b) => rightShare(graded, a) - rightShare(graded, b) || seenAt(graded, a) - seenAt(graded, b))[0];
  const parts = Array.from({ length: TRAINER_PARTS }, (_, n) => n).filter((n) => gradeOf(n) === (weakest ?? 'normal'));
  const lastSeen = (n: number): number => graded.findLastIndex(({ plug }) => plug === n);
  return parts.sort((a, b) => lastSeen(a) - lastSeen(b) || a - b)[0] ?? 0;
}

const seenAt = (graded: readonly Graded[], grade: Grade): number =>
  graded.findLastIndex(({ answer }) => answer === grade);
