import type { Mm } from '../shared/kinds';
import { sayGap } from '../units/say';
import { checkGaps, type Electrode, type GapSpec, type GapVerdict, type RegapPolicy } from './check';

/** What has been done to one plug's ground electrode, in order: mm, positive opens. */
interface BendHistory {
  readonly changesOfDirection: number;
  /** More than the policy allows: the metal is tired, discard the plug. */
  readonly discard: boolean;
}

/** @param bendsMm each bend, positive opens, negative closes; 0 counts as none @param allowed changes of direction that are allowed */
export function bendHistory(bendsMm: readonly Mm[], allowed: number): BendHistory {
  const signs = bendsMm.filter((bend) => bend !== 0).map(Math.sign);
  const changesOfDirection = signs.filter((sign, i) => i > 0 && sign !== signs[i - 1]).length;
  return { changesOfDirection, discard: changesOfDirection > allowed };
}

/** Bending of a new plug in all, up and down, before another part is taken, mm. Source: general trade guidance; the sheet wins. */
const MAX_BENT_MM: Readonly<Record<Electrode, Mm>> = { nickel: 0.25, fine_wire: 0.2, multi_ground: 0 };
/** A gap that is measured twice differs by this much, mm. */
const SAME_MM = 0.0125;

/** The gaps that a plug was measured at before each of its bends, as they are kept: "0.9 1.15", mm. */
export const gapsFromText = (text: string): readonly Mm[] =>
  text
    .split(' ')
    .map(Number)
    .filter((mm) => mm > 0);

/** @param gaps measured one after the other, with a bend between each two, mm @returns the bends, positive opens */
const bendsBetween = (gaps: readonly Mm[]): readonly Mm[] =>
  gaps.slice(1).flatMap((gap, i) => {
    const by = gap - (gaps[i] ?? gap);
    return Math.abs(by) < SAME_MM ? [] : [by];
  });

/** "opened by 0.25 mm, then closed by 0.10 mm" */
export const sayBends = (gaps: readonly Mm[]): string =>
  bendsBetween(gaps)
    .map((by) => `${by > 0 ? 'opened' : 'closed'} by ${sayGap(Math.abs(by))}`)
    .join(', then ');

/**
 * Why a plug that was bent is not fitted; null: it may be.
 *
 * @param gaps as measured before each bend and after the last, mm
 * @param reversals changes of direction that the shop allows
 */
export function bendFault(gaps: readonly Mm[], electrode: Electrode, reversals: number): string | null {
  const bends = bendsBetween(gaps);
  const { discard } = bendHistory(bends, reversals);
  const total = bends.reduce((sum, by) => sum + Math.abs(by), 0);
  const words = sayBends(gaps);
  if (discard) return `It was ${words}: its metal is tired and breaks off in the cylinder. Scrap it and take another.`;
  return total > MAX_BENT_MM[electrode] + SAME_MM
    ? `It was ${words}: more than ${sayGap(MAX_BENT_MM[electrode])} in all. Set it aside and take another.`
    : null;
}

/**
 * Whether the gap of a new plug is right or can be bent right, within what its electrode takes and the shop allows.
 *
 * @param fromMm as it was sold or measured, mm
 */
export function canReach(spec: GapSpec, electrode: Electrode, regap: RegapPolicy, fromMm: Mm): boolean {
  const [plug] = checkReachable(spec, electrode, regap, [fromMm]).plugs;
  return plug?.action !== 'reject';
}

/**
 * The same as `checkGaps`, but what would be bent further in all than its electrode takes is rejected.
 *
 * @param measuredMm gaps in mm, at least one @throws RangeError as `checkGaps` does
 */
export function checkReachable(
  spec: GapSpec,
  electrode: Electrode,
  regap: RegapPolicy,
  measuredMm: readonly Mm[],
): ReturnType<typeof checkGaps> {
  const { plugs, batch } = checkGaps(spec, electrode, regap, measuredMm);
  const reachable = (plug: GapVerdict, fromMm: Mm): GapVerdict => {
    if (plug.action === 'accept' || plug.action === 'reject') return plug;
    const toMm = plug.action === 'open' ? fromMm + plug.byMm : fromMm - plug.byMm;
    return bendFault([fromMm, toMm], electrode, 1) === null
      ? plug
      : { ...plug, action: 'reject', reason: 'bend_too_far' };
  };
  return { plugs: plugs.map((plug, i) => reachable(plug, measuredMm[i] ?? 0)), batch };
}
