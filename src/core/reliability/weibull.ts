/** How long parts last, as a Weibull distribution over life used (1 is the limit). */
export interface LifeModel {
  readonly shape: number;
  /** Life used by which 63 % have failed. */
  readonly scale: number;
  /** What it rests on: nothing but experience of the trade, or this fleet's own failures. */
  readonly basis: 'assumed' | 'evidence';
}

/** Until there is evidence. Source: house prior, wear-out with the middle of failures well past the limit. */
export const ASSUMED_LIFE: LifeModel = { shape: 4, scale: 1.7, basis: 'assumed' };

/**
 * Chance that a part that has come to `age` fails before `age + more`, both as life used.
 *
 * @returns in [0, 1]; exact to double precision for small chances too
 */
export function failureChance({ shape, scale }: LifeModel, age: number, more: number): number {
  const hazard = (life: number): number => (Math.max(0, life) / scale) ** shape;
  return -Math.expm1(hazard(age) - hazard(age + Math.max(0, more)));
}
