import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { beginCurve, type CurveJob, type CurveState, nextSample, readCurve } from '../core/torque/curve';
import { CURVE_KINDS, type CurveKind, type PlayedCurve, playCurve } from './torque-wrench';

const EACH = 500;

/** Where the technician stops: at the word, or when the curve ends. */
function turned({ job, samples }: PlayedCurve): { state: CurveState; atDeg: number; torqueNm: number } {
  let state = beginCurve(job);
  let last = { atDeg: 0, torqueNm: 0 };
  for (const sample of samples) {
    state = nextSample(job, state, sample);
    last = { atDeg: sample.angleDeg, torqueNm: sample.torqueNm ?? last.torqueNm };
    if (state.verdict === 'stop') break;
  }
  return { state, ...last };
}

const played = (kind: CurveKind) =>
  Array.from({ length: EACH }, (_, i) => {
    const curve = playCurve(kind, i + 1);
    return { curve, ...turned(curve) };
  });

describe.each(['good_new_gasket', 'good_used_gasket', 'good_conical', 'comes_loose'] as const)('%s', (kind) => {
  it('is stopped for nothing in fewer than 1 of 100, and is told when it is tight', () => {
    const runs = played(kind);
    expect(runs.filter(({ state }) => state.verdict === 'stop').length).toBeLessThan(EACH / 100);
    if (kind === 'comes_loose') return;
    const done = runs.filter(({ state }) => state.verdict === 'done');
    expect(done.length).toBeGreaterThan(0.99 * EACH);
    for (const { state, curve } of done)
      expect(Math.abs((state.contactDeg ?? -999) - contactOf(curve))).toBeLessThan(20);
  });
});

/** Where the true curve leaves the run-in: the last sample within 1.4 times its free run. */
function contactOf({ samples, freeRunNm }: PlayedCurve): number {
  return samples.findLast(({ torqueNm }) => torqueNm !== null && torqueNm < 1.4 * freeRunNm)?.angleDeg ?? 0;
}

describe('a thread that binds', () => {
  it('is stopped before 1.5 times its free run has doubled again', () => {
    for (const { state, torqueNm, curve } of played('cross_threaded')) {
      expect(state).toMatchObject({ verdict: 'stop', fault: 'cross_threaded' });
      // A single spike of the sensor in the last sample is no torque of the thread.
      expect(Math.min(torqueNm, state.peakNm)).toBeLessThan(3 * curve.freeRunNm);
    }
  });
});

describe('threads that yield', () => {
  it('are told within 30 degrees, and never taken for a washer that is crushed', () => {
    const runs = played('yielding');
    const told = runs.filter(({ state }) => state.fault === 'yielding');
    expect(told.length).toBeGreaterThanOrEqual(0.99 * EACH);
    for (const { atDeg, curve } of told) expect(atDeg - (curve.onsetDeg ?? 0)).toBeLessThan(30);
  });
});

describe('a plug that seizes', () => {
  it('is stopped as soon as it takes twice its install torque', () => {
    for (const { state, atDeg, curve } of played('seizing')) {
      expect(state).toMatchObject({ verdict: 'stop', fault: 'seizing' });
      expect(atDeg - (curve.onsetDeg ?? 0)).toBeLessThan(15);
    }
  });
});

describe('nextSample', () => {
  const anyKind = fc.constantFrom(...CURVE_KINDS);

  it('stops beyond the most that the sheet allows, whatever came before', () => {
    const job: CurveJob = {
      direction: 'in',
      seating: 'conical',
      targetNm: { min: 15, max: 20 },
      runInDeg: null,
    };
    const samples = Array.from({ length: 60 }, (_, i) => ({ angleDeg: 2 * i, torqueNm: i < 30 ? 1 : 1 + (i - 29) }));
    expect(readCurve(job, samples)).toMatchObject({ verdict: 'stop', fault: 'over_torque' });
  });

  it('says nothing else once it has said stop, and loses nothing by samples without torque', () => {
    fc.assert(
      fc.property(anyKind, fc.nat(5000), (kind, seed) => {
        const { job, samples } = playCurve(kind, seed);
        const whole = readCurve(job, samples);
        if (whole.verdict === 'stop') expect(nextSample(job, whole, { angleDeg: 1e4, torqueNm: 99 })).toEqual(whole);
        const gaps = samples.flatMap((sample) => [sample, { angleDeg: sample.angleDeg, torqueNm: null }]);
        const { fault, verdict } = readCurve(job, gaps);
        expect({ fault, verdict }).toEqual({ fault: whole.fault, verdict: whole.verdict });
      }),
      { numRuns: 60 },
    );
  });

  it('reads the same whether the samples come one by one or at once', () => {
    fc.assert(
      fc.property(anyKind, fc.nat(5000), (kind, seed) => {
        const curve = playCurve(kind, seed);
        const { state } = turned(curve);
        const whole = readCurve(curve.job, curve.samples);
        expect([whole.verdict, whole.fault]).toEqual([state.verdict, state.fault]);
      }),
      { numRuns: 60 },
    );
  });
});
