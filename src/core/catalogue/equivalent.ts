import type { Component } from '../engine/quantities';
import { canReach } from '../gap/bends';
import type { Electrode, GapSpec, RegapPolicy } from '../gap/check';
import type { Mm } from '../shared/kinds';
import { sayGaps } from '../units/say';

export const TERMINALS = ['solid', 'threaded', 'removable'] as const;

/** What decides whether a part fits. Null: nobody has said, which never counts as agreement. */
export interface PartAttributes {
  readonly kind: Component;
  readonly maker: string;
  readonly thread: string | null;
  readonly pitchMm: Mm | null;
  readonly reachMm: Mm | null;
  readonly seat: 'gasket' | 'conical' | null;
  readonly projectionMm: Mm | null;
  readonly resistor: boolean | null;
  readonly terminal: string | null;
  readonly hexMm: Mm | null;
  readonly heatRange: number | null;
  readonly electrode: Electrode | null;
  /** The gap as sold. */
  readonly preGapMm: Mm | null;
}

/** Two makers' heat numbers that one of them says are the same. */
export interface HeatCross {
  readonly makerA: string;
  readonly heatA: number;
  readonly makerB: string;
  readonly heatB: number;
  readonly source: string;
}

type AttributeVerdict = 'same' | 'differs' | 'allowed' | 'unknown';

interface AttributeComparison {
  readonly attribute: string;
  readonly ours: string | null;
  readonly theirs: string | null;
  readonly verdict: AttributeVerdict;
  /** Why it matters, or what changes; empty for the same. */
  readonly why: string;
}

interface Comparison {
  readonly verdict: 'equivalent' | 'refused' | 'cannot-tell';
  readonly attributes: readonly AttributeComparison[];
}

/** The gap that an engine wants of a plug, and how the shop lets it be bent. */
interface GapWanted {
  readonly spec: GapSpec;
  readonly regap: RegapPolicy;
}

/** Projections of two drawings of one part agree within this, mm. */
const PROJECTION_TOLERANCE_MM = 0.5;
const REACH_TOLERANCE_MM = 0.3;

/**
 * Whether another part can stand for ours: each attribute compared, and each refusal with why it matters.
 *
 * Thread, pitch, reach, seat, projection, resistor and terminal must agree; the hexagon may differ, and then the tool
 * does; the electrode may differ, and is named. Heat compares only within one maker or through a maker's own cross table.
 * The gap as sold must be one that can be brought to each gap wanted within the limits of bending. What is not known never
 * agrees.
 *
 * @param wanted gaps of the engines that the part is to serve; none: the two gaps as sold are only named
 */
export function compareParts(
  ours: PartAttributes,
  theirs: PartAttributes,
  crosses: readonly HeatCross[],
  wanted: readonly GapWanted[] = [],
): Comparison {
  if (ours.kind !== theirs.kind)
    return {
      verdict: 'refused',
      attributes: [
        {
          attribute: 'Kind',
          ours: ours.kind,
          theirs: theirs.kind,
          verdict: 'differs',
          why: 'It is another component.',
        },
      ],
    };
  const attributes = ours.kind === 'plug' ? comparePlugs(ours, theirs, crosses, wanted) : compareOthers(ours, theirs);
  return { verdict: verdictOf(attributes), attributes };
}

/** What differs between two parts, in words: "reach 19 mm instead of 26.5 mm (shorter: …)"; null: nothing that is recorded. */
export function sayDifferences({ attributes }: Pick<Comparison, 'attributes'>): string | null {
  const differ = attributes.filter(({ verdict }) => verdict === 'differs');
  if (differ.length === 0) return null;
  return differ
    .map(({ attribute, ours, theirs, why }) => `${attribute.toLowerCase()} ${theirs} instead of ${ours}: ${why}`)
    .join(' ');
}

/**
 * Why another part may not stand for ours, in words: what differs, or what nobody has recorded. Null: it may.
 *
 * @param number of the other part, as a person writes it
 */
export function standInFault(number: string, comparison: Comparison): string | null {
  const { verdict, attributes } = comparison;
  if (verdict === 'equivalent') return null;
  if (verdict === 'refused') return `${number} does not fit here: ${sayDifferences(comparison)}`;
  const unknown = attributes.filter((attribute) => attribute.verdict === 'unknown');
  const what = unknown.map(({ attribute }) => attribute.toLowerCase()).join(', ');
  const heat = unknown.some(({ attribute }) => attribute === HEAT)
    ? ' Heat numbers of two makers compare only by a maker’s own cross table: import it under Parts.'
    : '';
  return `Nobody can tell whether ${number} fits here. Not known of both parts: ${what}. Record it under Parts first.${heat}`;
}

function verdictOf(attributes: readonly AttributeComparison[]) {
  const some = (verdict: AttributeComparison['verdict']) => attributes.some((a) => a.verdict === verdict);
  if (some('differs')) return 'refused';
  return some('unknown') ? 'cannot-tell' : 'equivalent';
}

const HEAT = 'Heat range';

function comparePlugs(
  ours: PartAttributes,
  theirs: PartAttributes,
  crosses: readonly HeatCross[],
  wanted: readonly GapWanted[],
): readonly AttributeComparison[] {
  return [
    exact('Thread', ours.thread, theirs.thread, 'It does not screw in, or tears the thread.'),
    exact('Pitch', mm(ours.pitchMm), mm(theirs.pitchMm), 'It cross-threads.'),
    near('Reach', ours.reachMm, theirs.reachMm, REACH_TOLERANCE_MM, {
      more: 'Longer: it can strike the piston.',
      less: 'Shorter: carbon fills the exposed threads and shrouds the spark.',
    }),
    exact('Seat', ours.seat, theirs.seat, 'Another seat does not seal: it leaks and overheats.'),
    near('Projection', ours.projectionMm, theirs.projectionMm, PROJECTION_TOLERANCE_MM, {
      more: 'The nose stands further in: it can touch or glow.',
      less: 'The nose stands further back: it fouls and lights late.',
    }),
    resistor(ours.resistor, theirs.resistor),
    exact('Terminal', ours.terminal, theirs.terminal, 'The boot or lead does not hold on it.'),
    heat(ours, theirs, crosses),
    hex(ours.hexMm, theirs.hexMm),
    changes('Electrode', ours.electrode, theirs.electrode, 'Its interval and how it may be gapped change.'),
    wanted.length === 0
      ? changes(
          'Gap as sold',
          mm(ours.preGapMm),
          mm(theirs.preGapMm),
          'Measure it against the sheet before it goes in.',
        )
      : gapReach(theirs, wanted),
  ];
}

/** Whether the gap as sold can be brought to what every engine wants. */
function gapReach({ preGapMm, electrode }: PartAttributes, wanted: readonly GapWanted[]): AttributeComparison {
  const ranges = wanted.map(({ spec }) => sayGaps({ min: spec.minMm, max: spec.maxMm }));
  const shown = { attribute: 'Gap as sold', ours: [...new Set(ranges)].join(' or '), theirs: mm(preGapMm) };
  if (preGapMm === null || electrode === null) return { ...shown, verdict: 'unknown', why: UNKNOWN_WHY };
  const missed = wanted.filter(({ spec, regap }) => !canReach(spec, electrode, regap, preGapMm));
  if (missed.length > 0)
    return {
      ...shown,
      verdict: 'differs',
      why: 'Too far to bend: the ground electrode breaks or the gap stays wrong.',
    };
  return { ...shown, verdict: 'same', why: '' };
}

/** What may differ and is to be known. */
function changes(attribute: string, ours: string | null, theirs: string | null, why: string): AttributeComparison {
  const same = ours === null || theirs === null || ours === theirs;
  const verdict = ours !== null && ours === theirs ? 'same' : 'allowed';
  return { attribute, ours: words(ours), theirs: words(theirs), verdict, why: same ? '' : why };
}
const words = (value: string | null): string | null => value?.replaceAll('_', ' ') ?? null;

/** Attributes in which a part under another number cannot differ: then it is another part. */
const OF_ONE_PART: readonly string[] = ['Thread', 'Pitch', 'Reach', 'Seat', 'Resistor', 'Terminal'];

/**
 * Why a number cannot be a mere renumbering of another, in words; null: nothing that is recorded speaks against it.
 */
export function renumberingFault(old: PartAttributes, next: PartAttributes): string | null {
  const differ = compareParts(old, next, []).attributes.filter(
    ({ attribute, verdict }) => verdict === 'differs' && OF_ONE_PART.includes(attribute),
  );
  if (differ.length === 0) return null;
  const what = differ.map(({ attribute, ours, theirs }) => `${attribute.toLowerCase()} (${ours}, then ${theirs})`);
  return `the two differ in ${what.join(', ')}: that is another part, redesigned at most`;
}

const compareOthers = (ours: PartAttributes, theirs: PartAttributes): readonly AttributeComparison[] => [
  exact('Terminal', ours.terminal, theirs.terminal, 'The connection does not fit.'),
];

const mm = (value: number | null): string | null => (value === null ? null : `${value} mm`);
const UNKNOWN_WHY = 'Not recorded for both parts: it cannot be told.';

function exact(attribute: string, ours: string | null, theirs: string | null, why: string): AttributeComparison {
  if (ours === null || theirs === null) return { attribute, ours, theirs, verdict: 'unknown', why: UNKNOWN_WHY };
  return ours === theirs
    ? { attribute, ours, theirs, verdict: 'same', why: '' }
    : { attribute, ours, theirs, verdict: 'differs', why };
}

function near(
  attribute: string,
  ours: number | null,
  theirs: number | null,
  tolerance: number,
  why: { readonly more: string; readonly less: string },
): AttributeComparison {
  const shown = { attribute, ours: mm(ours), theirs: mm(theirs) };
  if (ours === null || theirs === null) return { ...shown, verdict: 'unknown', why: UNKNOWN_WHY };
  if (Math.abs(theirs - ours) <= tolerance + 1e-9) return { ...shown, verdict: 'same', why: '' };
  return { ...shown, verdict: 'differs', why: theirs > ours ? why.more : why.less };
}

const WITH_WORDS: ReadonlyMap<boolean | null, string> = new Map([
  [true, 'with'],
  [false, 'without'],
]);

function resistor(ours: boolean | null, theirs: boolean | null): AttributeComparison {
  const words = (value: boolean | null): string | null => WITH_WORDS.get(value) ?? null;
  const why = ours
    ? 'Without its resistor it disturbs the engine computer. A resistor is never taken away.'
    : 'A resistor where none was changes the spark; the sheet must say so.';
  return exact('Resistor', words(ours), words(theirs), why);
}

function hex(ours: number | null, theirs: number | null): AttributeComparison {
  const shown = { attribute: 'Hexagon', ours: mm(ours), theirs: mm(theirs) };
  if (ours === null || theirs === null || ours === theirs)
    return { ...shown, verdict: ours === null || theirs === null ? 'allowed' : 'same', why: '' };
  return { ...shown, verdict: 'allowed', why: `Fits, but takes a ${theirs} mm socket: the tool list changes.` };
}

function heat(ours: PartAttributes, theirs: PartAttributes, crosses: readonly HeatCross[]): AttributeComparison {
  const text = (part: PartAttributes): string | null =>
    part.heatRange === null ? null : `${part.heatRange} (${part.maker})`;
  const shown = { attribute: HEAT, ours: text(ours), theirs: text(theirs) };
  if (ours.heatRange === null || theirs.heatRange === null) return { ...shown, verdict: 'unknown', why: UNKNOWN_WHY };
  if (ours.maker === theirs.maker)
    return ours.heatRange === theirs.heatRange
      ? { ...shown, verdict: 'same', why: '' }
      : { ...shown, verdict: 'differs', why: 'Hotter: it lights the mixture early. Colder: it fouls.' };
  const cross = crosses.find((c) => pairs(c, ours, theirs, true));
  if (cross) return { ...shown, verdict: 'same', why: `By ${cross.source}.` };
  // A row that pairs one of the two numbers with another one of that maker speaks against; no row says nothing.
  const known = crosses.some((c) => pairs(c, ours, theirs, false));
  return known
    ? {
        ...shown,
        verdict: 'differs',
        why: 'The makers’ cross table pairs other heat numbers: hotter lights early, colder fouls.',
      }
    : { ...shown, verdict: 'unknown', why: 'Numbers of two makers do not compare without a maker’s own cross table.' };
}

/** Whether a row of a table is about these two makers and both (or at least one) of the heat numbers. */
function pairs(cross: HeatCross, a: PartAttributes, b: PartAttributes, both: boolean): boolean {
  const straight = cross.makerA === a.maker && cross.makerB === b.maker;
  const turned = cross.makerB === a.maker && cross.makerA === b.maker;
  if (!straight && !turned) return false;
  const [heatA, heatB] = straight ? [cross.heatA, cross.heatB] : [cross.heatB, cross.heatA];
  const same = [heatA === a.heatRange, heatB === b.heatRange];
  return both ? same.every(Boolean) : same.some(Boolean);
}
