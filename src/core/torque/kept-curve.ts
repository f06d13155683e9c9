import type { CurveFault, CurveSample, CurveState, CurveVerdict } from './curve';

/** A torque curve as it is kept with a site: thinned, with what was made of it. */
export interface KeptCurve {
  /** [degrees, N·m] */
  readonly points: readonly (readonly [number, number])[];
  readonly verdict: CurveVerdict;
  readonly fault: CurveFault | null;
  readonly peakNm: number;
  readonly contactDeg: number | null;
  /** The wrench that sent it. */
  readonly source: string;
}

const MAX_POINTS = 160;

/** Thins a curve for keeping: its shape stays, as every n-th sample does, and so does its last. */
export function keepCurve(samples: readonly CurveSample[], state: CurveState, source: string): KeptCurve {
  const read = samples.flatMap(({ angleDeg, torqueNm }) =>
    torqueNm === null ? [] : [[Number(angleDeg.toFixed(1)), Number(torqueNm.toFixed(2))] as const],
  );
  const every = Math.max(1, Math.ceil(read.length / MAX_POINTS));
  return {
    points: read.filter((_, i) => i % every === 0 || i === read.length - 1),
    verdict: state.verdict,
    fault: state.fault,
    peakNm: Number(state.peakNm.toFixed(2)),
    contactDeg: state.contactDeg,
    source,
  };
}
