import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { beginCurve, type CurveJob, type CurveSample, type CurveState, nextSample, readCurve } from './curve';

/* Curves drawn by hand, one sample a degree: straight pieces of so many degrees up to so much torque. */

type Piece = readonly [degrees: number, toNm: number];

function drawn(pieces: readonly Piece[], fromNm = 0): readonly CurveSample[] {
  const samples: CurveSample[] = [];
  let nm = fromNm;
  for (const [degrees, toNm] of pieces) {
    const first = nm;
    for (let i = 1; i <= degrees; i += 1) {
      nm = first + ((toNm - first) * i) / degrees;
      samples.push({ angleDeg: samples.length + 1, torqueNm: nm });
    }
    nm = toNm;
  }
  return samples;
}

const runIn: readonly Piece[] = [
  [1, 1],
  [700, 1],
];
const into = (seating: 'new_gasket' | 'used_gasket' | 'conical'): CurveJob => ({
  direction: 'in',
  seating,
  targetNm: { min: 16, max: 19 },
  runInDeg: 700,
});
const conical = into('conical');
const turnsUnknown: CurveJob = { direction: 'in', seating: 'conical', targetNm: { min: 16, max: 19 }, runInDeg: null };
const out: CurveJob = { direction: 'out', installNm: 17.5 };

const verdict = ({ verdict, fault }: CurveState) => [verdict, fault];

describe('a plug that goes in', () => {
  it('is done when the least of the sheet is met, and knows its thread and its seat', () => {
    const state = readCurve(conical, drawn([...runIn, [20, 17]]));
    expect(verdict(state)).toEqual(['done', null]);
    expect(state.freeRunNm).toBeCloseTo(1, 6);
    expect(state.contactDeg).toBeGreaterThan(700);
    expect(state.contactDeg).toBeLessThan(705);
    expect(state.phase).toBe('tightening');
  });

  it('with a new gasket may stand still once, while the washer is crushed', () => {
    const pieces: readonly Piece[] = [...runIn, [12, 6], [150, 8], [40, 17.5]];
    expect(verdict(readCurve(into('new_gasket'), drawn(pieces)))).toEqual(['done', null]);
    // A washer that has been crushed does not give once more: what gives is the thread.
    expect(verdict(readCurve(into('used_gasket'), drawn(pieces)))).toEqual(['stop', 'yielding']);
    expect(verdict(readCurve(conical, drawn(pieces)))).toEqual(['stop', 'yielding']);
  });

  it('is stopped where a washer is crushed for ever, or high up', () => {
    const gasket = into('new_gasket');
    expect(verdict(readCurve(gasket, drawn([...runIn, [12, 6], [400, 7]])))).toEqual(['stop', 'yielding']);
    expect(verdict(readCurve(gasket, drawn([...runIn, [30, 14.5], [80, 14.6]])))).toEqual(['stop', 'yielding']);
  });

  it('is stopped early where the thread binds', () => {
    const crossed = drawn([
      [1, 1],
      [120, 1],
      [160, 6],
    ]);
    const state = readCurve(conical, crossed);
    expect(verdict(state)).toEqual(['stop', 'cross_threaded']);
    // Before it has taken three times the torque of the free thread.
    expect(state.peakNm).toBeLessThan(3);
    // The turns made by hand are not known, but a seat lifts the torque faster than this.
    expect(verdict(readCurve(turnsUnknown, crossed))).toEqual(['stop', 'cross_threaded']);
  });

  it('is stopped where even a steep rise comes long before the seat', () => {
    const steep: readonly Piece[] = [
      [1, 1],
      [200, 1],
      [10, 9],
    ];
    expect(verdict(readCurve(conical, drawn(steep)))).toEqual(['stop', 'cross_threaded']);
    expect(readCurve(turnsUnknown, drawn(steep)).phase).toBe('seating');
  });

  it('is stopped beyond the most of the sheet', () => {
    expect(verdict(readCurve(conical, drawn([...runIn, [8, 30]])))).toEqual(['stop', 'over_torque']);
  });

  it('is not fooled by a single spike, or by samples without a torque', () => {
    const samples = drawn([...runIn, [20, 17]]).map((sample) => {
      if (sample.angleDeg === 300) return { ...sample, torqueNm: 25 };
      return sample.angleDeg % 50 === 0 ? { ...sample, torqueNm: null } : sample;
    });
    // A wrench that shows 25 N·m in a run-in of 1 N·m for one degree has hiccuped.
    expect(verdict(readCurve(conical, samples))).toEqual(['done', null]);
  });
});

describe('a plug that comes out', () => {
  it('breaks loose once and then runs', () => {
    const state = readCurve(
      out,
      drawn([
        [10, 19],
        [10, 5],
        [500, 1],
      ]),
    );
    expect([state.phase, ...verdict(state)]).toEqual(['running_out', 'go_on', null]);
    expect(state.peakNm).toBeGreaterThan(17);
  });

  it('is stopped at twice its install torque, and where it drags once loose', () => {
    expect(verdict(readCurve(out, drawn([[30, 40]])))).toEqual(['stop', 'seizing']);
    const drags: readonly Piece[] = [
      [10, 19],
      [10, 5],
      [60, 24],
    ];
    expect(verdict(readCurve(out, drawn(drags)))).toEqual(['stop', 'seizing']);
  });
});

describe('whatever the wrench says', () => {
  const anySamples = fc
    .array(
      fc.record({
        turned: fc.double({ min: 0, max: 20, noNaN: true }),
        torqueNm: fc.oneof(
          { weight: 9, arbitrary: fc.double({ min: 0, max: 60, noNaN: true }) },
          { weight: 1, arbitrary: fc.constant(null) },
        ),
      }),
      { maxLength: 120 },
    )
    .map((steps) => {
      let angleDeg = 0;
      return steps.map(({ turned, torqueNm }): CurveSample => {
        angleDeg += turned;
        return { angleDeg, torqueNm };
      });
    });
  const anyJob = fc.constantFrom<CurveJob>(conical, into('new_gasket'), into('used_gasket'), out);

  it('stop is the last word, always with a fault, and no fault comes without it', () => {
    fc.assert(
      fc.property(anyJob, anySamples, (job, samples) => {
        let state = beginCurve(job);
        for (const sample of samples) {
          const next = nextSample(job, state, sample);
          if (state.verdict === 'stop') expect(next).toBe(state);
          expect(next.fault !== null).toBe(next.verdict === 'stop');
          expect(next.peakNm).toBeGreaterThanOrEqual(state.peakNm);
          state = next;
        }
      }),
    );
  });

  it('a job is never called done below the least of the sheet, nor out of the engine', () => {
    fc.assert(
      fc.property(anyJob, anySamples, (job, samples) => {
        const state = readCurve(job, samples);
        if (state.verdict !== 'done') return;
        expect(job.direction).toBe('in');
        expect(Math.max(...samples.map(({ torqueNm }) => torqueNm ?? 0))).toBeGreaterThanOrEqual(16);
      }),
    );
  });
});
