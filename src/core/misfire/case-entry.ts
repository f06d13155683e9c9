import type { Decision } from './case-state';
import type { DoneTest, Find, FoundWord, Hypothesis, MisfireCase, SuspectPart, Swap, Symptom } from './misfire-case';

/* What is said, found, tried and decided of one case, one after the other, as it is kept. */

export const LAMPS = ['off', 'on', 'flashing'] as const;
type Lamp = MisfireCase['lamp'];

/** How full a tank is, as its gauge shows it: 0 to 1. */
export interface TankDrive {
  readonly km: number;
  readonly from: number;
  readonly to: number;
}

export type Said =
  | {
      readonly kind: 'complaint';
      readonly words: string;
      readonly symptoms: readonly Symptom[];
      readonly lamp: Lamp;
      /** Named in words. */
      readonly cylinders: readonly number[];
    }
  | {
      readonly kind: 'codes';
      readonly codes: readonly { readonly code: string; readonly freeze: Readonly<Record<string, string>> }[];
      /** Typed, pasted, a reader, or a work order. */
      readonly source: string;
    }
  | {
      readonly kind: 'counts';
      /** Misfires in 1,000 firings. */
      readonly counts: readonly { readonly cylinder: number; readonly misfires: number }[];
    }
  | { readonly kind: 'found'; readonly cylinder: number; readonly word: FoundWord }
  /** Parts have changed places, and the drive is still to come. */
  | ({ readonly kind: 'swapped' } & Omit<Swap, 'test'>)
  | ({ readonly kind: 'put_back' } & Omit<Swap, 'test'>)
  | { readonly kind: 'test'; readonly test: DoneTest }
  | ({ readonly kind: 'tank'; readonly moment: 'usual' | 'now' | 'after' } & TankDrive)
  /** Something that changed, which no record of ours has: fuel, a wash, work elsewhere. */
  | {
      readonly kind: 'changed';
      readonly words: string;
      /** Since then. */
      readonly km: number;
    }
  /** What a person made of it. */
  | {
      readonly kind: 'decided';
      readonly decision: Decision;
      readonly words: string;
      /** What is to be mended or referred; null: nothing is named. */
      readonly cause: Hypothesis | null;
    }
  | { readonly kind: 'note'; readonly words: string };

export const SAID_KINDS = [
  'complaint',
  'codes',
  'counts',
  'found',
  'swapped',
  'put_back',
  'test',
  'tank',
  'changed',
  'decided',
  'note',
] as const satisfies readonly Said['kind'][];

export interface CaseEntry {
  /** Given by the device: the same entry sent twice is one. */
  readonly id: string;
  readonly said: Said;
}

/** All that the entries of a case come to. */
export type Story = Pick<MisfireCase, 'codes' | 'counts' | 'symptoms' | 'lamp' | 'spoken' | 'found' | 'testsDone'> & {
  /** Parts that changed places for a test whose outcome nobody has said yet. */
  readonly underway: Omit<Swap, 'test'> | null;
  /** Swaps that were not put back. */
  readonly away: readonly Omit<Swap, 'test'>[];
  readonly tank: Readonly<Record<'usual' | 'now' | 'after', TankDrive | null>>;
};

const SWAP_KEY = ({ moved, from, to }: Omit<Swap, 'test'>): string =>
  `${[...moved].sort().join('+')} ${Math.min(from, to)} ${Math.max(from, to)}`;

const entriesOf =
  <K extends Said['kind']>(kind: K) =>
  (entries: readonly CaseEntry[]): readonly Extract<Said, { kind: K }>[] =>
    entries.flatMap(({ said }) => (said.kind === kind ? [said as Extract<Said, { kind: K }>] : []));

/**
 * What a case says by its entries.
 *
 * @param entries in the order in which they were made, without those that were taken back
 */
export function storyOf(entries: readonly CaseEntry[]): Story {
  const complaints = entriesOf('complaint')(entries);
  const drives = entriesOf('tank')(entries);
  const drive = (moment: 'usual' | 'now' | 'after'): TankDrive | null =>
    drives.findLast((drive) => drive.moment === moment) ?? null;
  return {
    codes: [...new Set(entriesOf('codes')(entries).flatMap(({ codes }) => codes.map(({ code }) => code)))],
    symptoms: [...new Set(complaints.flatMap(({ symptoms }) => symptoms))],
    // A lamp that flashed has flashed, whatever it does now.
    lamp: LAMPS.findLast((lamp) => complaints.some((complaint) => complaint.lamp === lamp)) ?? 'off',
    spoken: [...new Set(complaints.flatMap(({ cylinders }) => cylinders))],
    ...inOrder(entries),
    ...swapsOf(entries),
    tank: { usual: drive('usual'), now: drive('now'), after: drive('after') },
  };
}

/** What was tried, one after the other, with what was counted and found between. */
function inOrder(entries: readonly CaseEntry[]): Pick<Story, 'testsDone' | 'counts' | 'found'> {
  const tests: DoneTest[] = [];
  const counts = new Map<number, Story['counts']>();
  const finds: Find[] = [];
  for (const { said } of entries) {
    const after = tests.length;
    switch (said.kind) {
      case 'counts':
        // Of one moment the last that were taken hold.
        counts.set(
          after,
          said.counts.map(({ cylinder, misfires }) => ({ cylinder, per1000: misfires, after })),
        );
        break;
      case 'found':
        finds.push({ cylinder: said.cylinder, word: said.word, after });
        break;
      case 'swapped':
      case 'put_back': {
        const { kind: _, ...swap } = said;
        tests.push({ test: 'swap', ...swap, outcome: null });
        break;
      }
      case 'test':
        tests.splice(0, tests.length, ...withTest(tests, said.test));
        break;
      case 'decided':
        // It came back: what seemed to cure it did not.
        if (said.decision === 'reopen')
          tests.push({ test: 'clear_and_drive', component: null, cylinder: null, outcome: 'back' });
        break;
      default:
        break;
    }
  }
  return { testsDone: tests, counts: [...counts.values()].flat(), found: finds };
}

/** A swap that is underway gets its outcome; one that nobody reported before was put back when it was told. */
function withTest(tests: readonly DoneTest[], done: DoneTest): readonly DoneTest[] {
  if (done.test !== 'swap') return [...tests, done];
  const last = tests.at(-1);
  const isUnderway = last?.test === 'swap' && last.outcome === null && SWAP_KEY(last) === SWAP_KEY(done);
  return isUnderway
    ? [...tests.slice(0, -1), { ...last, outcome: done.outcome }]
    : [...tests, done, { ...done, outcome: null }];
}

/** Whether these parts stand swapped, so that they can be put back. */
export const isAway = (away: Story['away'], swap: Omit<Swap, 'test'>): boolean =>
  away.some((place) => SWAP_KEY(place) === SWAP_KEY(swap));

const isOf = ({ moved }: Omit<Swap, 'test'>, part: SuspectPart): boolean =>
  moved.some((movable) => movable === part || (movable === 'coil' && part === 'boot'));

/** Where a part that was in a cylinder when the case began sits now. */
export const whereNow = (away: Story['away'], part: SuspectPart, home: number): number =>
  away.reduce((at, swap) => (isOf(swap, part) ? otherOf(swap, at) : at), home);

/** Where the part that sits in a cylinder now was when the case began. */
export const homeOf = (away: Story['away'], part: SuspectPart, cylinder: number): number =>
  [...away].reverse().reduce((at, swap) => (isOf(swap, part) ? otherOf(swap, at) : at), cylinder);

function otherOf({ from, to }: Omit<Swap, 'test'>, cylinder: number): number {
  if (cylinder === from) return to;
  return cylinder === to ? from : cylinder;
}

function swapsOf(entries: readonly CaseEntry[]): Pick<Story, 'underway' | 'away'> {
  let underway: Omit<Swap, 'test'> | null = null;
  const away = new Map<string, Omit<Swap, 'test'>>();
  for (const { said } of entries) {
    if (said.kind === 'swapped') {
      const { moved, from, to } = said;
      underway = { moved, from, to };
      // The same two once more are where they were.
      if (!away.delete(SWAP_KEY(said))) away.set(SWAP_KEY(said), underway);
    } else if (said.kind === 'put_back') away.delete(SWAP_KEY(said));
    if (said.kind === 'put_back' || (said.kind === 'test' && said.test.test === 'swap')) underway = null;
  }
  return { underway, away: [...away.values()] };
}
