import type { Nm } from '../shared/kinds';
import { medianOf } from '../stats/median';

/** What the plug is turned against. */
const SEATINGS = ['new_gasket', 'used_gasket', 'conical'] as const;
export type Seating = (typeof SEATINGS)[number];

/** One sample of a wrench that measures both. A drop-out has no torque. */
export interface CurveSample {
  /** Turned since the wrench was set on, degrees, never falling. */
  readonly angleDeg: number;
  readonly torqueNm: Nm | null;
}

export type CurveJob =
  | {
      readonly direction: 'in';
      readonly seating: Seating;
      /** Least and most that the sheet allows, as lubricated, N·m. */
      readonly targetNm: { readonly min: number; readonly max: number };
      /** Angle that is left before the seat, from the reach, the pitch and the turns made by hand; null: not known. */
      readonly runInDeg: number | null;
    }
  | {
      readonly direction: 'out';
      /** Torque at which it was, or should have been, installed, N·m. */
      readonly installNm: Nm;
    };

type CurvePhase = 'run_in' | 'seating' | 'crush' | 'tightening' | 'breaking_loose' | 'running_out';
/**
 * cross_threaded: torque rises where the thread should still run free; yielding: angle grows and torque does not, after
 * the washer is crushed; over_torque: beyond the most that the sheet allows; seizing: it takes twice its install torque.
 */
export const CURVE_FAULTS = ['cross_threaded', 'yielding', 'over_torque', 'seizing'] as const;
export type CurveFault = (typeof CURVE_FAULTS)[number];
export const CURVE_VERDICTS = ['go_on', 'stop', 'done'] as const;
export type CurveVerdict = (typeof CURVE_VERDICTS)[number];

export interface CurveState {
  readonly phase: CurvePhase;
  readonly verdict: CurveVerdict;
  readonly fault: CurveFault | null;
  /** Torque of the thread alone, N·m; null until it is known. */
  readonly freeRunNm: Nm | null;
  /** Angle at which the seat was met, degrees. */
  readonly contactDeg: number | null;
  readonly peakNm: Nm;
  /** Angle at the last sample, degrees. */
  readonly angleDeg: number;
  readonly memory: Memory;
}

interface Point {
  readonly deg: number;
  readonly nm: Nm;
}

interface Memory {
  /** Raw samples not older than `WINDOW_DEG`. */
  readonly raw: readonly Point[];
  /** The same, without single spikes. */
  readonly smooth: readonly Point[];
  /** Samples of the run-in, for the free-run torque. */
  readonly free: readonly number[];
  /** Where torque first left the free run and has not come back. */
  readonly leftFreeAt: number | null;
  /** Steepest rise seen since the contact, N·m a degree. */
  readonly steepest: number;
  /** Where torque last rose as tightening does. */
  readonly roseAt: number | null;
  readonly crushed: boolean;
}

/** Further back nothing is needed, degrees. */
const WINDOW_DEG = 30;
/** Samples behind each smoothed one. */
const SPIKE_FREE = 5;
/** Samples after which the free run is known, and the most that are kept. */
const MIN_FREE = 6;
const MAX_FREE = 40;
/** Torque has left the free run beyond this, as a multiple of it. */
const LEFT_FREE = 1.35;
/** A thread that binds is stopped here: well before three times its free run. */
const BINDS = 1.9;
/** A seat lifts the torque from the one to the other within this angle; a thread that binds takes longer, degrees. */
const SEAT_RISES_WITHIN_DEG = 14;
/** So much before the seat is due, any rise is one of the thread, degrees. */
const EARLY_DEG = 360;
/** Less than this share of the steepest rise is a plateau. */
const FLAT_SHARE = 0.3;
/** A plateau is believed after this angle, degrees. */
const PLATEAU_DEG = 14;
/** Steeper than this is no run-in, N·m a degree. */
const SEAT_SLOPE = 0.04;
/** Steeper than this a washer is crushed no longer, N·m a degree. */
const TIGHTENS = 0.1;
/** A washer is crushed below this share of the least torque that the sheet allows, beyond that of the thread alone. */
const CRUSH_BELOW = 0.67;
/** No new washer takes more than this from contact to tight, degrees. Source: 180 to 240° for a new gasket, with margin. */
const MAX_CRUSH_DEG = 290;
/** Breakaway over this many times the install torque: it is seizing. */
export const SEIZING_FACTOR = 2;

export const beginCurve = (job: CurveJob): CurveState => ({
  phase: job.direction === 'in' ? 'run_in' : 'breaking_loose',
  verdict: 'go_on',
  fault: null,
  freeRunNm: null,
  contactDeg: null,
  peakNm: 0,
  angleDeg: 0,
  memory: { raw: [], smooth: [], free: [], leftFreeAt: null, steepest: 0, roseAt: null, crushed: false },
});

/**
 * Takes the next sample and says whether to go on. Once it has said stop it says nothing else.
 *
 * Source: shape of a torque-to-angle curve (run-in, seating, washer crush, tightening, yield) as general bolting practice
 * describes it; the thresholds are tuned on the simulator and shown with their confusion matrix in the docs.
 */
export function nextSample(job: CurveJob, state: CurveState, sample: CurveSample): CurveState {
  if (state.verdict === 'stop') return state;
  if (sample.torqueNm === null) return { ...state, angleDeg: sample.angleDeg };
  const memory = remember(state.memory, { deg: sample.angleDeg, nm: sample.torqueNm });
  // On the thread a spike would pass for a seat; on the seat torque rises too fast to wait for five samples.
  const nm =
    state.phase === 'run_in'
      ? (memory.smooth.at(-1)?.nm ?? 0)
      : (medianOf(memory.raw.slice(-3).map((known) => known.nm)) ?? 0);
  // Fewer samples than that cannot tell a spike from the truth.
  const peakNm = memory.raw.length < SPIKE_FREE ? state.peakNm : Math.max(state.peakNm, nm);
  const next: CurveState = { ...state, memory, angleDeg: sample.angleDeg, peakNm };
  if (job.direction === 'out') return comingOut(job.installNm, next, nm);
  if (nm > 1.04 * job.targetNm.max + 0.3) return stop(next, 'over_torque');
  return next.phase === 'run_in' ? runningIn(job.runInDeg, next, nm) : seated(job, next, nm);
}

/** A whole curve at once. */
export const readCurve = (job: CurveJob, samples: readonly CurveSample[]): CurveState =>
  samples.reduce((state, sample) => nextSample(job, state, sample), beginCurve(job));

const stop = (state: CurveState, fault: CurveFault): CurveState => ({ ...state, verdict: 'stop', fault });

function remember(memory: Memory, point: Point): Memory {
  const inWindow = (known: Point): boolean => known.deg >= point.deg - WINDOW_DEG;
  const raw = [...memory.raw.filter(inWindow), point];
  const nm = medianOf(raw.slice(-SPIKE_FREE).map((known) => known.nm)) ?? point.nm;
  return { ...memory, raw, smooth: [...memory.smooth.filter(inWindow), { deg: point.deg, nm }] };
}

/** Up to the seat: the thread alone turns, and nothing else may hold it. */
function runningIn(runInDeg: number | null, state: CurveState, nm: Nm): CurveState {
  const { memory } = state;
  const known = memory.free.length === MAX_FREE && state.freeRunNm !== null;
  const measured = known ? state.freeRunNm : medianOf(memory.free);
  const freeRunNm = memory.free.length < MIN_FREE ? null : measured;
  if (freeRunNm === null || nm <= LEFT_FREE * freeRunNm) {
    // The first of them count: a thread that binds slowly must not become its own measure.
    const free = memory.free.length < MAX_FREE ? [...memory.free, nm] : memory.free;
    return { ...state, freeRunNm, memory: { ...memory, free, leftFreeAt: null } };
  }
  const leftFreeAt = memory.leftFreeAt ?? state.angleDeg;
  const left = { ...state, freeRunNm, memory: { ...memory, leftFreeAt } };
  if (nm < BINDS * freeRunNm) {
    // Creeping up for long is binding too, even before it has doubled.
    return state.angleDeg - leftFreeAt > 4 * SEAT_RISES_WITHIN_DEG ? stop(left, 'cross_threaded') : left;
  }
  const early = runInDeg !== null && leftFreeAt < runInDeg - EARLY_DEG;
  const slow = state.angleDeg - leftFreeAt > SEAT_RISES_WITHIN_DEG;
  if (early || slow) return stop(left, 'cross_threaded');
  return { ...left, phase: 'seating', contactDeg: leftFreeAt };
}

/** From the seat on: a washer is crushed once, then torque rises until the sheet is met. */
function seated(job: CurveJob & { direction: 'in' }, state: CurveState, nm: Nm): CurveState {
  const { targetNm, seating } = job;
  if (nm >= targetNm.min) return { ...state, phase: 'tightening', verdict: 'done' };
  const slope = slopeOf(state.memory.smooth);
  const steepest = Math.max(state.memory.steepest, slope);
  const rises = slope > Math.max(SEAT_SLOPE, FLAT_SHARE * steepest);
  const roseAt = rises ? state.angleDeg : (state.memory.roseAt ?? state.angleDeg);
  const flatFor = state.angleDeg - roseAt;
  const since = state.angleDeg - (state.contactDeg ?? state.angleDeg);
  const memory = { ...state.memory, steepest, roseAt };
  const crushedBy = CRUSH_BELOW * targetNm.min + (state.freeRunNm ?? 0);
  const mayCrush = seating === 'new_gasket' && !memory.crushed && nm < crushedBy;
  if (state.phase === 'crush') {
    const tooHigh = nm >= crushedBy && flatFor >= PLATEAU_DEG;
    if (tooHigh || since > MAX_CRUSH_DEG) return stop({ ...state, memory }, 'yielding');
    return slope > TIGHTENS
      ? { ...state, phase: 'tightening', memory: { ...memory, crushed: true } }
      : { ...state, memory };
  }
  if (flatFor < PLATEAU_DEG) return { ...state, memory };
  if (mayCrush) return { ...state, phase: 'crush', memory: { ...memory, steepest: 0 } };
  return stop({ ...state, memory }, 'yielding');
}

/** Breaking loose takes what it takes once; then it falls, or the thread is galling. */
function comingOut(installNm: Nm, state: CurveState, nm: Nm): CurveState {
  if (nm > SEIZING_FACTOR * installNm) return stop(state, 'seizing');
  if (state.phase === 'breaking_loose')
    return state.peakNm > 0.2 * installNm && nm < 0.6 * state.peakNm ? { ...state, phase: 'running_out' } : state;
  // Once loose it runs: torque that grows again drags aluminium along.
  return nm > 1.15 * installNm ? stop(state, 'seizing') : state;
}

/** Least-squares slope over the last 15 degrees, N·m a degree; 0 where there are too few samples. */
function slopeOf(points: readonly Point[]): number {
  const last = points.at(-1);
  const recent = last ? points.filter((point) => point.deg >= last.deg - WINDOW_DEG / 2) : [];
  if (recent.length < 3) return 0;
  const mean = (figureOf: (point: Point) => number): number =>
    recent.reduce((sum, p) => sum + figureOf(p), 0) / recent.length;
  const [deg, nm] = [mean((p) => p.deg), mean((p) => p.nm)];
  const spread = recent.reduce((sum, p) => sum + (p.deg - deg) ** 2, 0);
  return spread === 0 ? 0 : recent.reduce((sum, p) => sum + (p.deg - deg) * (p.nm - nm), 0) / spread;
}
