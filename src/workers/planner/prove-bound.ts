import type { Highs } from 'highs';
import type { BoundModel } from '@/core/planning/solver/bound-model';

/** What the solver says is never above the optimum may be by its own tolerance: so much is taken off. */
const TOLERANCE = 1e-6;

/** The solver's own layout of a model. */
function laidOut({ offset, columns, cost, rows }: BoundModel, infinity: number) {
  const starts = new Int32Array(rows.length + 1);
  const size = rows.reduce((sum, row) => sum + row.columns.length, 0);
  const indices = new Int32Array(size);
  const values = new Float64Array(size);
  let at = 0;
  for (const [i, row] of rows.entries()) {
    indices.set(row.columns, at);
    values.set(row.weights, at);
    at += row.columns.length;
    starts[i + 1] = at;
  }
  return {
    numCols: columns.length,
    numRows: rows.length,
    offset,
    colCost: Float64Array.from(cost),
    colLower: Float64Array.from(columns, ({ isFixed }) => (isFixed ? 1 : 0)),
    colUpper: new Float64Array(columns.length).fill(1),
    rowLower: Float64Array.from(rows, ({ least }) => (Number.isFinite(least) ? least : -infinity)),
    rowUpper: Float64Array.from(rows, ({ most }) => most),
    matrix: { format: 'csr', numRows: rows.length, numCols: columns.length, starts, indices, values },
  } as const;
}

/** Each job on its cheapest day, as if nobody else were there: never above the optimum either. */
function simpleBound({ offset, columns, cost }: BoundModel): number {
  const least = new Map<number, number>();
  for (const [i, { job, isFixed }] of columns.entries()) {
    const each = cost[i] ?? 0;
    least.set(job, isFixed ? each : Math.min(least.get(job) ?? 0, each));
  }
  return [...least.values()].reduce((sum, each) => sum + each, offset);
}

/** The solver looks at its clock only now and then. */
const LATE_SECONDS = 0.5;

/**
 * A cost below which no plan can be: first by fractions of jobs, then, as long as there is time, by whole ones.
 *
 * @param models parts whose bounds add up
 * @param seconds for all of them
 * @param onBound told each time the sum rises; its thread is blocked in between
 */
export function proveBound(
  highs: Highs,
  models: readonly BoundModel[],
  seconds: number,
  onBound: (bound: number) => void,
): number {
  const until = performance.now() + seconds * 1000;
  const left = (): number => (until - performance.now()) / 1000 - LATE_SECONDS;
  const bounds = models.map(simpleBound);
  const sum = (): number => bounds.reduce((total, bound) => total + bound, 0);
  const tell = (part: number, bound: number): void => {
    const sure = bound - TOLERANCE * (1 + Math.abs(bound));
    if (!Number.isFinite(sure) || sure <= (bounds[part] ?? 0)) return;
    bounds[part] = sure;
    onBound(sum());
  };
  onBound(sum());
  const open = models.flatMap((model, part) => (model.columns.length > 0 ? [{ model, part }] : []));
  for (const { model, part } of open)
    if (left() > 0) tell(part, byFractions(highs, model, left()) ?? Number.NEGATIVE_INFINITY);
  for (const [i, { model, part }] of open.entries()) {
    const share = left() / (open.length - i);
    if (share > MIN_SHARE_SECONDS) byWholes(highs, model, share, (bound) => tell(part, bound));
  }
  return sum();
}

/** Less is not worth beginning. */
const MIN_SHARE_SECONDS = 0.3;

const byFractions = (highs: Highs, model: BoundModel, seconds: number): number | null =>
  highs.withModel(laidOut(model, highs.infinity), (solver) => {
    solver.options.set({ output_flag: false, time_limit: seconds, random_seed: 1 });
    solver.run();
    return solver.getModelStatus() === highs.constants.modelStatus.optimal ? solver.getObjectiveValue() : null;
  });

function byWholes(highs: Highs, model: BoundModel, seconds: number, tell: (bound: number) => void): void {
  const { integer } = highs.constants.variableType;
  const integrality = new Int32Array(model.columns.length).fill(integer);
  highs.withModel({ ...laidOut(model, highs.infinity), integrality }, (solver) => {
    solver.options.set({ output_flag: false, time_limit: seconds, random_seed: 1, mip_rel_gap: 1e-6 });
    solver.run({
      [highs.constants.callbackType.mipLogging](event: { data: { mip_dual_bound?: number } }) {
        tell(event.data.mip_dual_bound ?? Number.NEGATIVE_INFINITY);
      },
    });
    tell(Number(solver.info.get('mip_dual_bound')));
  });
}
