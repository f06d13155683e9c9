import type { Nm } from '../shared/kinds';
import { isTorqueInRange } from '../torque/at-vehicle';
import { PLAUSIBLE_SCREW, readQuantity } from '../units/read-quantity';
import { DEFAULT_TOLERANCE } from '../units/read-range';
import { saySmallTorque, saySmallTorques } from '../units/say';
import { type NamedPlace, sayPlaces } from './say-places';

/** What a step wants written down before it can be ticked. */
const ASK_KINDS = [
  'text',
  'choice',
  'count',
  'codes',
  'parts',
  'photo',
  'follow_up',
  'wait',
  'odometer',
  'clock',
  'celsius',
  'each',
  'torque',
] as const;
type AskKind = (typeof ASK_KINDS)[number];

export interface Ask {
  readonly key: string;
  readonly what: string;
  readonly kind: AskKind;
  /** The answers of a choice; of each: what has to be said of one by one. */
  readonly choices?: readonly string[];
  /** Those with which the work may go on; every one where absent. */
  readonly accepts?: readonly string[];
  /** May be left empty. */
  readonly optional?: true;
  /** How long a wait lasts. */
  readonly minutes?: number;
  /** What a torque has to be, N·m. */
  readonly torqueNm?: Nm;
}

/** What is counted: what the rules go by. */
export const COUNT_KINDS = ['tools', 'screws', 'connectors', 'hoses', 'rags', 'gaskets'] as const;
export type CountKind = (typeof COUNT_KINDS)[number];

/** Something laid in, taken off or used up: out must equal in before the engine is started. */
export interface Counted {
  readonly kind: CountKind;
  /** Its kind; with a number where there are several. */
  readonly key: string;
  readonly what: string;
  /** How many there should be; null: as many as are found. */
  readonly count: number | null;
  /** The steps at which it is counted. */
  readonly out: string;
  readonly back: string;
}

/** A count as far as it has been made. */
export interface CountState {
  readonly key: string;
  readonly what: string;
  readonly expected: number | null;
  readonly out: number | null;
  readonly back: number | null;
  /** What was missing or broken on arrival, as it was written at the step at which it is counted out; empty: nothing. */
  readonly found: string;
}

/** What has been written down so far, as far as the asks of a step concern it. */
export interface Written {
  /** By the clock that also wrote when a wait began, ms. */
  readonly nowMs: number;
  /** By key; of a wait: when it began, ISO 8601. */
  readonly answers: Readonly<Record<string, string>>;
  readonly counts: readonly CountState[];
  readonly codesKept: readonly string[];
  /** Photos at this step. */
  readonly photos: number;
  /** The new parts on the bench: those not yet read or measured, and what is wrong with the others, in words. */
  readonly bench: { readonly missing: readonly NamedPlace[]; readonly wrong: readonly string[] };
  readonly followUps: number;
}

/** What keeps a step from being ticked, in words; empty when all is written down. */
export const askFaults = (asks: readonly Ask[], written: Written): readonly string[] =>
  asks.flatMap((ask) => {
    if (ask.optional) return [];
    const fault = faultOf(ask, written);
    return fault ? [fault] : [];
  });

function faultOf(
  { key, what, kind, accepts, choices = [], minutes = 0, torqueNm = 0 }: Ask,
  written: Written,
): string | null {
  switch (kind) {
    case 'text':
      return written.answers[key]?.trim() ? null : `Write down: ${what}.`;
    case 'choice': {
      const answer = written.answers[key];
      if (!answer) return `Say: ${what}.`;
      return accepts && !accepts.includes(answer)
        ? `With “${answer}” this step is not done: ${what} has to be ${accepts.join(' or ')}. Wait, mend it, or mark the step as not done.`
        : null;
    }
    case 'each': {
      const answered = new Set((written.answers[key] ?? '').split(' '));
      const left = choices.filter((choice) => !answered.has(choice));
      return left.length > 0 ? `Say of each, ${what}: ${left.join(', ')} left.` : null;
    }
    case 'count': {
      const [side, row] = key.split(':');
      const count = written.counts.find((c) => c.key === row);
      if (!count) return null;
      if (count[side === 'back' ? 'back' : 'out'] === null) return `Count ${what}.`;
      return side === 'back' ? backFault(count) : outFault(count);
    }
    case 'codes':
      return written.codesKept.includes(key) || written.answers[key]?.trim()
        ? null
        : `Read and keep the ${what}, or write them down; “none” is an answer too.`;
    case 'parts':
      return benchFault(written.bench);
    case 'photo':
      return written.photos > 0 || written.answers[key]?.trim() ? null : `Take a picture, or write down: ${what}.`;
    case 'follow_up':
      return written.followUps > 0 || written.answers[key]?.trim() ? null : `Put down ${what}.`;
    case 'clock':
    case 'celsius':
      return written.answers[key]?.trim() ? null : `Say: ${what}.`;
    case 'torque':
      return torqueFault(what, written.answers[key] ?? '', torqueNm);
    case 'odometer':
      return odometerFault(key, what, written.answers);
    case 'wait': {
      const left = waitLeft(written.answers[key], minutes, written.nowMs);
      if (left === null) return `Begin the ${minutes} minutes: ${what}.`;
      return left > 0 ? `${what}: ${left} more ${left === 1 ? 'minute' : 'minutes'}.` : null;
    }
  }
}

function benchFault({ missing, wrong }: Written['bench']): string | null {
  const unread =
    missing.length > 0 ? [`Number of the new part, and gap of a plug. Missing: ${sayPlaces(missing)}.`] : [];
  const faults = [...wrong, ...unread];
  return faults.length > 0 ? faults.join(' ') : null;
}

/** What a screw may be off its torque. Source: the shop's default. */
const within = (nm: Nm): { readonly min: Nm; readonly max: Nm } => ({
  min: nm * (1 - DEFAULT_TOLERANCE),
  max: nm * (1 + DEFAULT_TOLERANCE),
});

/** A small torque as it was set: a bare figure is in N·m, and one of another unit, or twelve times too much, is named. */
function torqueFault(what: string, typed: string, torqueNm: Nm): string | null {
  if (typed.trim() === '') return `Write down: ${what}.`;
  const sheet = within(torqueNm);
  const read = readQuantity({ kind: 'torque', text: typed, personUnit: 'N·m', window: PLAUSIBLE_SCREW, sheet });
  if (read.verdict !== 'ok') return `${what}: ${read.message}`;
  return isTorqueInRange(read.valueSi, sheet)
    ? null
    : `${what}: ${saySmallTorque(read.valueSi)} is outside ${saySmallTorques(sheet)}. Set the wrench to ${saySmallTorque(torqueNm)} and go round again.`;
}

/** Farther than this no road test goes, in whatever the dash shows. */
export const LONGEST_TEST = 300;

/** What the dash shows as a bare number, without tenths; null: no figure. */
export const dashFigure = (text = ''): number | null => {
  const digits = /\d[\d., ]*/
    .exec(text)?.[0]
    .trim()
    .replace(/[.,]\d?$/, '')
    .replace(/[., ]/g, '');
  return digits ? Number(digits) : null;
};

/** Both ends of a road test, read off one dash: it never runs back, and never farther than a test goes. */
function odometerFault(key: string, what: string, answers: Written['answers']): string | null {
  const read = dashFigure(answers[key]);
  if (read === null) return `Read off the dash: ${what}.`;
  const from = key === 'to' ? dashFigure(answers.from) : null;
  if (from === null) return null;
  if (read < from) return `${what}: ${answers[key]} is less than ${answers.from} before it. Read both again.`;
  return read - from > LONGEST_TEST ? `${what}: ${read - from} in one road test cannot be. Read both again.` : null;
}

/** Whole minutes that are left of a wait; 0 when it is over, null when nobody began it. @param begun ISO 8601 */
export function waitLeft(begun: string | undefined, minutes: number, nowMs: number): number | null {
  const from = Date.parse(begun ?? '');
  return Number.isNaN(from) ? null : Math.max(0, Math.ceil(minutes - (nowMs - from) / 60_000));
}

/** Counts that are open: not made, short, or more back than out. In words. */
export const openCounts = (counts: readonly CountState[]): readonly string[] =>
  counts.flatMap((count) => {
    const { what, expected } = count;
    if (count.out === null)
      return [`${what}: not counted out yet${expected === null ? '' : `, there should be ${expected}`}.`];
    if (count.back === null) return [outFault(count) ?? `${what}: ${count.out} out, none counted back.`];
    const fault = outFault(count) ?? backFault(count);
    return fault === null ? [] : [fault];
  });

/** Out is held against what the engine has: what is not out is still in there, unless it was missing on arrival. */
function outFault({ what, expected, out, found }: CountState): string | null {
  if (expected === null || out === null || out === expected || found.trim()) return null;
  const explain = 'Count again, or write at this step what was missing or broken on arrival.';
  return `${what}: ${out} out, and there should be ${expected}. ${explain}`;
}

/** Back is held against out; what was missing on arrival may be made up. */
function backFault({ what, expected, out, back, found }: CountState): string | null {
  if (out === null || back === null) return null;
  if (back < out) return `${what}: ${out} out and ${back} back. Find the missing ${out - back} before anything turns.`;
  const most = found.trim() ? Math.max(out, expected ?? back) : out;
  return back > most ? `${what}: ${back} back and only ${out} out. Count again.` : null;
}
