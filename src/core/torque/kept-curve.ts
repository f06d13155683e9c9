import type { Nm } from '../shared/kinds';
import { keptNm, roundTo } from '../units/round';
import {
  CURVE_FAULTS,
  CURVE_VERDICTS,
  type CurveFault,
  type CurveSample,
  type CurveState,
  type CurveVerdict,
} from './curve';

/** A torque curve as it is kept with a site: thinned, with what was made of it. It travels as JSON, hence no interface. */
export type KeptCurve = {
  /** [degrees, N·m] */
  readonly points: readonly (readonly [number, number])[];
  readonly verdict: CurveVerdict;
  readonly fault: CurveFault | null;
  readonly peakNm: Nm;
  readonly contactDeg: number | null;
  /** The wrench that sent it. */
  readonly source: string;
};

/** Whether something that came as JSON is such a curve. */
export function isKeptCurve<T>(json: T): json is T & KeptCurve {
  if (typeof json !== 'object' || json === null) return false;
  const { points, verdict, fault = null, peakNm, source } = json as Partial<Record<keyof KeptCurve, unknown>>;
  return (
    Array.isArray(points) &&
    CURVE_VERDICTS.some((known) => known === verdict) &&
    (fault === null || CURVE_FAULTS.some((known) => known === fault)) &&
    typeof peakNm === 'number' &&
    typeof source === 'string'
  );
}

const MAX_POINTS = 160;

/** Thins a curve for keeping: its shape stays, as every n-th sample does, and so does its last. */
export function keepCurve(samples: readonly CurveSample[], state: CurveState, source: string): KeptCurve {
  const read = samples.flatMap(({ angleDeg, torqueNm }) =>
    torqueNm === null ? [] : [[roundTo(angleDeg, 1), keptNm(torqueNm)] as const],
  );
  const every = Math.max(1, Math.ceil(read.length / MAX_POINTS));
  return {
    points: read.filter((_, i) => i % every === 0 || i === read.length - 1),
    verdict: state.verdict,
    fault: state.fault,
    peakNm: keptNm(state.peakNm),
    contactDeg: state.contactDeg,
    source,
  };
}
