import type { TankDrive } from './case-entry';

/** Of a gauge: a smaller part of a tank says too little. */
const MIN_SHARE_USED = 0.2;

/**
 * How far a whole tank would have brought it, by a drive on part of one: range falls with a misfire, and is the one figure a
 * driver notices.
 *
 * @returns km; null: too little of the tank was used to say
 */
export function rangePerTank({ km, from, to }: TankDrive): number | null {
  const used = from - to;
  return used >= MIN_SHARE_USED ? km / used : null;
}

/** Change of the range of a tank from one drive to another, a share: -0.12 is 12 % less. Null: one of them says too little. */
export function rangeChange(before: TankDrive | null, after: TankDrive | null): number | null {
  const [was, is] = [before && rangePerTank(before), after && rangePerTank(after)];
  return was && is ? is / was - 1 : null;
}
