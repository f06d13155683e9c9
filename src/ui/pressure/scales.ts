import type { Frame } from '@/core/reliability/pressure';

/** A frame laid out on a drawing: life used from left to right, cost upwards on a logarithmic scale. */
export interface Plot {
  readonly frame: Frame;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export const xOf = ({ frame: { life }, left, width }: Plot, value: number): number =>
  left + ((value - life[0]) / (life[1] - life[0])) * width;

export const yOf = ({ frame: { cost }, top, height }: Plot, value: number): number =>
  top + height * (1 - Math.log(value / cost[0]) / Math.log(cost[1] / cost[0]));

export const lifeAt = ({ frame: { life }, left, width }: Plot, x: number): number =>
  life[0] + ((x - left) / width) * (life[1] - life[0]);

export const costAt = ({ frame: { cost }, top, height }: Plot, y: number): number =>
  cost[0] * (cost[1] / cost[0]) ** (1 - (y - top) / height);

/** Where the chart begins: below this a plug is of no interest yet. */
const MIN_LIFE = 0.3;
const MAX_LIFE = 1.6;
const MARGIN = 1.3;

/** The frame that shows a fleet whole. */
export function wholeFrame(points: readonly { readonly life: number; readonly cost: number }[]): Frame {
  const costs = points.map((p) => p.cost);
  const far = Math.max(1.2, ...points.map((p) => Math.min(MAX_LIFE, p.life * 1.05)));
  const [low, high] = costs.length > 0 ? [Math.min(...costs), Math.max(...costs)] : [100, 1000];
  return { life: [MIN_LIFE, far], cost: [low / MARGIN, high * MARGIN] };
}

/** The frame made smaller (factor below 1) or larger about a place in it. */
export function zoomed(frame: Frame, factor: number, at: { readonly life: number; readonly cost: number }): Frame {
  const along = (edge: number): number => at.life + (edge - at.life) * factor;
  const upwards = (edge: number): number => at.cost * (edge / at.cost) ** factor;
  return {
    life: [Math.max(0, along(frame.life[0])), along(frame.life[1])],
    cost: [upwards(frame.cost[0]), upwards(frame.cost[1])],
  };
}

/** Round amounts for the axis: 1, 2 and 5 of each power of ten. */
export function costTicks([low, high]: Frame['cost']): readonly number[] {
  const first = Math.floor(Math.log10(low));
  const last = Math.ceil(Math.log10(high));
  return Array.from({ length: last - first + 1 }, (_, i) => 10 ** (first + i))
    .flatMap((power) => [power, 2 * power, 5 * power])
    .filter((tick) => tick >= low && tick <= high);
}

const LIFE_STEPS = [0.01, 0.05, 0.1, 0.2, 0.5] as const;

/** Round shares of life, at most so many of them. */
export function lifeTicks([from, to]: Frame['life'], most: number): readonly number[] {
  const step = LIFE_STEPS.find((s) => (to - from) / s <= most) ?? 1;
  const first = Math.ceil(from / step - 1e-9);
  const count = Math.floor(to / step + 1e-9) - first + 1;
  return Array.from({ length: Math.max(0, count) }, (_, i) => (first + i) * step);
}

/** What lies beyond the right edge is kept at it, with a mark: the worst must not fall off the chart. */
export const onChart = <T extends { life: number }>({ life }: Frame, p: T): T =>
  p.life > life[1] ? { ...p, life: life[1] } : p;

export const isInside = ({ life, cost }: Frame, p: { life: number; cost: number }): boolean =>
  p.life >= life[0] && p.life <= life[1] && p.cost >= cost[0] && p.cost <= cost[1];
