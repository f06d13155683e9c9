import type { Nm } from '@/core/shared/kinds';
import { seeded } from '../core/stats/seeded';
import type { CurveJob, CurveSample, Seating } from '../core/torque/curve';

/* A wrench that measures torque and angle, as a stand-in for a real one: what it would send while a plug is turned. */

export const CURVE_KINDS = [
  'good_new_gasket',
  'good_used_gasket',
  'good_conical',
  'cross_threaded',
  'yielding',
  'comes_loose',
  'seizing',
] as const;
export type CurveKind = (typeof CURVE_KINDS)[number];

export interface PlayedCurve {
  readonly job: CurveJob;
  readonly samples: readonly CurveSample[];
  /** Angle at which the fault begins, degrees; null: there is none. */
  readonly onsetDeg: number | null;
  /** Torque of the thread alone, N·m. */
  readonly freeRunNm: Nm;
}

interface Shape {
  readonly job: CurveJob;
  /** True torque by angle, N·m. */
  readonly torqueAt: (deg: number) => number;
  readonly untilDeg: number;
  /** From here on the person turns slowly. */
  readonly slowFromDeg: number;
  readonly onsetDeg: number | null;
  readonly freeRunNm: Nm;
}

/** Sensor noise, N·m and as a share of the figure; share of samples lost, and of single spikes. */
const NOISE = { nm: 0.06, share: 0.012, lost: 0.02, spike: 0.004 };

/** Plays one curve, always the same for the same seed. */
export function playCurve(kind: CurveKind, seed: number): PlayedCurve {
  const random = seeded(seed * 7919 + CURVE_KINDS.indexOf(kind));
  const between = (min: number, max: number): number => min + (max - min) * random();
  const shape = SHAPES[kind](between, (items) => items[Math.floor(random() * items.length)] ?? 'new_gasket');
  const normal = (): number => random() + random() + random() + random() - 2;
  const samples: CurveSample[] = [];
  for (let deg = 0; deg < shape.untilDeg; deg += deg < shape.slowFromDeg ? between(1.5, 4) : between(0.7, 1.8)) {
    const torque = shape.torqueAt(deg);
    const spike = random() < NOISE.spike ? between(2, 8) : 0;
    const read = torque + normal() * 1.7 * (NOISE.nm + NOISE.share * torque) + spike;
    samples.push({ angleDeg: deg, torqueNm: random() < NOISE.lost ? null : Math.max(0, read) });
  }
  const { job, onsetDeg, freeRunNm } = shape;
  return { job, samples, onsetDeg, freeRunNm };
}

type Between = (min: number, max: number) => number;
type Pick = (items: readonly Seating[]) => Seating;

const SHAPES: Readonly<Record<CurveKind, (between: Between, pick: Pick) => Shape>> = {
  good_new_gasket: (between) => goesIn('new_gasket', between),
  good_used_gasket: (between) => goesIn('used_gasket', between),
  good_conical: (between) => goesIn('conical', between),
  cross_threaded: binds,
  yielding: (between, pick) => yields(goesIn(pick(['new_gasket', 'used_gasket', 'conical']), between), between),
  comes_loose: (between) => comesOut(between, false),
  seizing: (between) => comesOut(between, true),
};

/** Threads are never quite round: the run-in wavers once a turn. */
const waver = (deg: number, share: number, phase: number): number =>
  1 + share * Math.sin(((deg + phase) * Math.PI) / 180);

function goesIn(seating: Seating, between: Between): Shape {
  const min = between(12, 22);
  const max = min * between(1.15, 1.35) + 2;
  const freeRunNm = between(0.8, 2);
  const contact = between(120, 1500);
  const [share, phase] = [between(0.02, 0.14), between(0, 360)];
  const free = (deg: number): number => freeRunNm * waver(deg, share, phase);
  const crushNm = between(0.25, 0.5) * min;
  const crushDeg = seating === 'new_gasket' ? between(60, 150) : 0;
  const crushSlope = crushDeg === 0 ? 0 : (between(0.01, 0.1) * min) / crushDeg;
  const elastic = seating === 'conical' ? between(0.6, 1.1) : between(0.14, 0.3);
  const onGasket = seating === 'new_gasket' ? between(0.16, 0.4) : between(0.35, 0.7);
  const tight = seating === 'conical' ? elastic : onGasket;
  const crushAt = contact + (seating === 'new_gasket' ? crushNm / elastic : 0);
  const torqueAt = (deg: number): number => {
    if (deg < contact) return free(deg);
    if (deg < crushAt) return free(deg) + elastic * (deg - contact);
    const crushed = free(deg) + elastic * (crushAt - contact) + crushSlope * Math.min(crushDeg, deg - crushAt);
    return crushed + tight * Math.max(0, deg - crushAt - crushDeg);
  };
  let untilDeg = contact;
  while (torqueAt(untilDeg) < min + 0.85 * (max - min)) untilDeg += 0.5;
  const known = between(0, 1) < 0.7;
  return {
    job: {
      direction: 'in',
      seating,
      targetNm: { min, max },
      runInDeg: known ? Math.max(0, contact + between(-150, 150)) : null,
    },
    torqueAt,
    untilDeg,
    slowFromDeg: contact,
    onsetDeg: null,
    freeRunNm,
  };
}

/** The thread binds early: torque grows where nothing should hold it. */
function binds(between: Between, pick: Pick): Shape {
  const good = goesIn(pick(['new_gasket', 'used_gasket', 'conical']), between);
  const onsetDeg = between(60, 320);
  const growsBy = between(55, 220);
  const most = good.job.direction === 'in' ? good.job.targetNm.max : 20;
  const [share, phase] = [between(0.02, 0.14), between(0, 360)];
  const torqueAt = (deg: number): number =>
    Math.min(most, good.freeRunNm * waver(deg, share, phase) * Math.exp(Math.max(0, deg - onsetDeg) / growsBy));
  return {
    ...good,
    job: {
      ...good.job,
      ...(good.job.direction === 'in' && { runInDeg: good.job.runInDeg === null ? null : between(1200, 3000) }),
    },
    torqueAt,
    untilDeg: onsetDeg + 4 * growsBy,
    onsetDeg,
  };
}

/** A sound start, and then threads that give way. */
function yields(good: Shape, between: Between): Shape {
  const min = good.job.direction === 'in' ? good.job.targetNm.min : 15;
  const yieldNm = between(0.78, 0.96) * min;
  let onsetDeg = 0;
  while (good.torqueAt(onsetDeg) < yieldNm) onsetDeg += 0.5;
  const slope = between(-0.03, 0.012);
  return {
    ...good,
    torqueAt: (deg) => (deg < onsetDeg ? good.torqueAt(deg) : yieldNm + slope * (deg - onsetDeg)),
    untilDeg: onsetDeg + 120,
    onsetDeg,
  };
}

function comesOut(between: Between, seizing: boolean): Shape {
  const installNm = between(15, 28);
  const peak = installNm * (seizing ? between(2.2, 3.6) : between(0.55, 1.6));
  const windUp = between(6, 25);
  const runs = seizing ? peak : between(0.05, 0.22) * installNm;
  const torqueAt = (deg: number): number =>
    deg < windUp ? (peak * deg) / windUp : runs + (peak - runs) * Math.exp(-(deg - windUp) / 18);
  const onsetDeg = seizing ? (windUp * 2 * installNm) / peak : null;
  return {
    job: { direction: 'out', installNm },
    slowFromDeg: 0,
    torqueAt,
    untilDeg: windUp + 300,
    onsetDeg,
    freeRunNm: runs,
  };
}
