import type { Nm } from '../shared/kinds';
import type { Range } from './plan';

/** What came out harder than this many times the torque that it goes in with is taken for seized. Source: general trade guidance. */
export const SEIZED_AT = 2;
/** Share of the torque that a healthy thread comes loose at. Source: general trade guidance, coarse: heat and corrosion raise it. */
const EXPECTED = { min: 0.7, max: 1.4 };

/**
 * What a plug is expected to come loose at. It is another thing than the torque it was fitted with, and proves nothing about it.
 *
 * @param torqueNm as it goes in, N·m
 */
export const expectedBreakaway = ({ min, max }: Range): Range => ({ min: min * EXPECTED.min, max: max * EXPECTED.max });

/** What a measured breakaway means beside the torque that it goes in with, N·m. */
export function breakawayFelt(measuredNm: Nm, torqueNm: Range): 'easy' | 'expected' | 'hard' | 'seized' {
  const { min, max } = expectedBreakaway(torqueNm);
  if (measuredNm > SEIZED_AT * torqueNm.max) return 'seized';
  if (measuredNm > max) return 'hard';
  return measuredNm < min ? 'easy' : 'expected';
}
