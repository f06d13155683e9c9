import { beginCurve, nextSample } from '../src/core/torque/curve';
import { CURVE_KINDS, playCurve } from '../src/simulators/torque-wrench';

/* The confusion matrix of docs/reading.md: what the core says to so many curves of each kind from the stand-in wrench. */

const EACH = Number(process.env.BENCH_CURVES ?? 1000);
const SAYS = ['done', 'loose', 'cross_threaded', 'yielding', 'over_torque', 'seizing', 'nothing'] as const;

const rows = CURVE_KINDS.map((kind) => {
  const counts = new Map<string, number>();
  for (let seed = 1; seed <= EACH; seed++) {
    const { job, samples } = playCurve(kind, seed);
    let state = beginCurve(job);
    for (const sample of samples) {
      state = nextSample(job, state, sample);
      if (state.verdict === 'stop') break;
    }
    const loose = state.phase === 'running_out' ? 'loose' : 'nothing';
    const says = state.fault ?? (state.verdict === 'done' ? 'done' : loose);
    counts.set(says, (counts.get(says) ?? 0) + 1);
  }
  return `| ${kind.replaceAll('_', ' ')} | ${SAYS.map((says) => counts.get(says) ?? '').join(' | ')} |`;
});
process.stdout.write(
  `| played \\ read | ${SAYS.map((says) => says.replaceAll('_', ' ')).join(' | ')} |\n|---|${'---|'.repeat(SAYS.length)}\n${rows.join('\n')}\n`,
);
