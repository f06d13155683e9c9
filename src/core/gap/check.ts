import type { Km, Mm } from '../shared/kinds';
import { median } from '../stats/theil-sen';
import { keepsRange, type WrittenAs } from '../units/read-range';
import { fromSi } from '../units/unit';

export const ELECTRODES = ['nickel', 'fine_wire', 'multi_ground'] as const;
export type Electrode = (typeof ELECTRODES)[number];

/** Regap options: bend where allowed, only the ground electrode and little, or return the part. */
export const REGAP_POLICIES = ['adjust', 'ground_only', 'never'] as const;
export type RegapPolicy = (typeof REGAP_POLICIES)[number];

export interface GapSpec {
  readonly minMm: Mm;
  readonly maxMm: Mm;
  /** The nominal where the sheet gives one, else the middle. */
  readonly targetMm?: Mm | null;
  /** Unit and decimals in which the range is written: measured values are compared at that precision. */
  readonly written?: WrittenAs | null;
}

type GapReason = 'policy_never' | 'multi_ground' | 'bend_too_far';

export interface GapVerdict {
  readonly action: 'accept' | 'open' | 'close' | 'reject';
  /** How far to bend, mm, not signed; 0 when accepted. */
  readonly byMm: Mm;
  readonly reason?: GapReason;
}

export interface BatchVerdict {
  readonly verdict: 'good' | 'wrong_application' | 'handling_damage' | 'adjust_individually';
  /** Median less target, mm. */
  readonly offsetMm: Mm;
  readonly spreadMm: Mm;
  /** Plugs over `ALIKE_MM` from the median of the rest. */
  readonly suspects: readonly number[];
}

/** New plugs of one box lie within this of each other, mm. Source: trade guidance. */
const ALIKE_MM = 0.1;
/** Most that a ground electrode over a fine wire may be bent, mm. Source: trade guidance; the spec sheet wins. */
const FINE_WIRE_BEND_MM = 0.2;

const EPSILON_MM = 1e-6;

export const gapTarget = ({ minMm, maxMm, targetMm }: GapSpec): number => targetMm ?? (minMm + maxMm) / 2;

/**
 * Judges measured new plugs one by one and as a batch.
 *
 * A batch all alike but off target was gapped for another application: check the part number before bending. One plug
 * over 0.10 mm from the median of the rest was dropped: set it aside. The batch verdict does not depend on their order.
 *
 * @param measuredMm gaps in mm, at least one
 * @throws RangeError for no measurement or an empty range: a caller's mistake
 */
export function checkGaps(
  spec: GapSpec,
  electrode: Electrode,
  policy: RegapPolicy,
  measuredMm: readonly number[],
): { plugs: readonly GapVerdict[]; batch: BatchVerdict } {
  if (measuredMm.length === 0 || spec.minMm > spec.maxMm)
    throw new RangeError('checkGaps: needs a measurement and a range');
  const plugs = measuredMm.map((gap) => checkOne(spec, electrode, policy, gap));
  return { plugs, batch: batchVerdict(spec, measuredMm, plugs) };
}

/** Whether a gap needs no bending, at the precision in which its range is written. */
export const inRange = (spec: GapSpec, gap: number): boolean =>
  keepsRange(gap, { min: spec.minMm, max: spec.maxMm }, spec.written ?? inThousandths(spec));

/** Both ends are whole thousandths of an inch and no round mm: the range was written in inches, and is held to their precision. */
function inThousandths({ minMm, maxMm }: GapSpec): WrittenAs | null {
  const isWhole = (value: number): boolean => Math.abs(value - Math.round(value)) < EPSILON_MM;
  const ends = [minMm, maxMm];
  const areThousandths = ends.every((end) => isWhole(fromSi(end, 'thou')));
  return areThousandths && !ends.every((end) => isWhole(100 * end)) ? { unit: 'in', decimals: 3 } : null;
}

function checkOne(spec: GapSpec, electrode: Electrode, policy: RegapPolicy, gap: number): GapVerdict {
  if (inRange(spec, gap)) return { action: 'accept', byMm: 0 };
  const byMm = Math.abs(gapTarget(spec) - gap);
  const reason = refusal(electrode, policy, byMm);
  if (reason) return { action: 'reject', byMm, reason };
  return { action: gap < spec.minMm ? 'open' : 'close', byMm };
}

function refusal(electrode: Electrode, policy: RegapPolicy, byMm: Mm): GapReason | null {
  if (electrode === 'multi_ground') return 'multi_ground';
  if (policy === 'never') return 'policy_never';
  const delicate = electrode === 'fine_wire' || policy === 'ground_only';
  return delicate && byMm > FINE_WIRE_BEND_MM + EPSILON_MM ? 'bend_too_far' : null;
}

function batchVerdict(spec: GapSpec, gaps: readonly number[], plugs: readonly GapVerdict[]): BatchVerdict {
  const sorted = [...gaps].sort((a, b) => a - b);
  const middle = median(sorted);
  const spreadMm = (sorted.at(-1) ?? 0) - (sorted[0] ?? 0);
  const suspects = gaps.flatMap((gap, i) => (farFromRest(gaps, gap, i) ? [i] : []));
  const alike = gaps.length > 1 && spreadMm <= ALIKE_MM + EPSILON_MM;
  const verdict = verdictOf(suspects.length === 1, plugs, alike && !inRange(spec, middle));
  return { verdict, offsetMm: middle - gapTarget(spec), spreadMm, suspects };
}

function farFromRest(gaps: readonly number[], gap: number, index: number): boolean {
  if (gaps.length < 3) return false;
  const rest = gaps.filter((_, i) => i !== index).sort((a, b) => a - b);
  return Math.abs(gap - median(rest)) > ALIKE_MM + EPSILON_MM;
}

/** What to measure with, and what would do harm. Source: trade guidance. */
export function gaugeAdvice(electrode: Electrode): string {
  switch (electrode) {
    case 'fine_wire':
      return 'Wire or feeler gauge only: a ramp gauge chips precious metal.';
    case 'multi_ground':
      return 'Wire gauge at each ground electrode. None of them is bent.';
    case 'nickel':
      return 'Wire gauge, or a feeler while the electrodes are new and flat. Bend only the ground electrode.';
  }
}

/**
 * Growth of a gap in service. @returns µm per 1,000 km, not rounded; null where the distance is not above 0
 */
export function gapGrowth(fittedMm: Mm, removedMm: Mm, distanceKm: Km): number | null {
  return distanceKm > 0 ? ((removedMm - fittedMm) * 1000) / (distanceKm / 1000) : null;
}

function verdictOf(oneIsFar: boolean, plugs: readonly GapVerdict[], alikeAndOff: boolean): BatchVerdict['verdict'] {
  if (oneIsFar) return 'handling_damage';
  if (plugs.every((plug) => plug.action === 'accept')) return 'good';
  return alikeAndOff ? 'wrong_application' : 'adjust_individually';
}
