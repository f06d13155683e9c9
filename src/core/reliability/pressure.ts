import { failureChance, type LifeModel } from './weibull';

export interface PressureInput {
  /** Life used of the full limit by the worst site; 1 at the limit. */
  readonly lifeUsed: number;
  /** What another week adds to it. */
  readonly weeklyLife: number;
  /** Beyond this it is not counted, however long it waits: nobody knows that a life which is assumed is past its limit. */
  readonly mostLife?: number | null;
  /** Cost of a failure on the road for this vehicle, in the fleet's currency. */
  readonly failureCost: number;
  /** Cost a week for each per cent of life over the limit: fuel and the load on the coil. */
  readonly wearCostPerPercent: number;
  readonly model: LifeModel;
}

/** Service pressure in parts: money a week if the work waits. */
export interface Pressure {
  readonly chance: number;
  readonly failure: number;
  readonly wear: number;
  readonly total: number;
}

/** What it costs to let a vehicle wait one more week. */
export function pressureOf(input: PressureInput): Pressure {
  const chance = failureChance(input.model, input.lifeUsed, input.weeklyLife);
  const failure = chance * input.failureCost;
  const wear = wearCost(input.lifeUsed, input.wearCostPerPercent);
  return { chance, failure, wear, total: failure + wear };
}

const wearCost = (lifeUsed: number, perPercent: number): number => Math.max(0, lifeUsed - 1) * 100 * perPercent;

/**
 * The cost of a failure at which a vehicle with this life used stands on the line of one service pressure.
 *
 * @returns null where wear past the limit alone costs more than that
 */
export function costOnIsobar(total: number, input: Omit<PressureInput, 'failureCost'>): number | null {
  const chance = failureChance(input.model, input.lifeUsed, input.weeklyLife);
  const rest = total - wearCost(input.lifeUsed, input.wearCostPerPercent);
  return rest > 0 && chance > 0 ? rest / chance : null;
}

interface Isobar {
  readonly total: number;
  /** Every fourth one is drawn heavier. */
  readonly heavy: boolean;
  readonly points: readonly { readonly lifeUsed: number; readonly cost: number }[];
}

export interface Frame {
  readonly life: readonly [number, number];
  readonly cost: readonly [number, number];
}

const POINTS = 240;
/** Lines go on a little beyond the frame, so that a drawing can cut them off at its edge. */
const BEYOND = 1.5;

/** The lines that cross a frame, each twice the pressure of the last; lowest first. */
export function isobars(frame: Frame, input: Omit<PressureInput, 'failureCost' | 'lifeUsed'>): readonly Isobar[] {
  const [from, to] = frame.life;
  const lives = Array.from({ length: POINTS + 1 }, (_, i) => from + ((to - from) * i) / POINTS);
  return Array.from({ length: 24 }, (_, i) => i - 8).flatMap((power) => {
    const total = 2 ** power;
    const points = lives.flatMap((lifeUsed) => {
      const cost = costOnIsobar(total, { ...input, lifeUsed });
      return cost !== null && cost >= frame.cost[0] / BEYOND && cost <= frame.cost[1] * BEYOND
        ? [{ lifeUsed, cost }]
        : [];
    });
    return points.length > 1 ? [{ total, heavy: power % 4 === 0, points }] : [];
  });
}
