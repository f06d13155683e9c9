import { CONFIDENCES } from '../src/core/inspection/finding';
import { readEngine } from '../src/core/inspection/findings';
import { seeded } from '../src/core/stats/seeded';
import { NOISE, type Noise, tray } from './trays';

/* docs/judgement.md: how often the first cause is right, stops missed and stops for nothing, and whether confidence is kept. */

const EACH = Number(process.env.BENCH_TRAYS ?? 5000);
const STOPS: readonly string[] = ['coolant_between', 'detonation'];
const percent = (part: number, of: number): string => (of === 0 ? '–' : `${((100 * part) / of).toFixed(1)} %`);

const rows = (Object.keys(NOISE) as Noise[]).map((noise) => {
  const random = seeded(7);
  const right = { first: 0, of: 0, stops: 0, stopTrays: 0, false: 0, calm: 0, hidden: 0 };
  const kept = new Map(CONFIDENCES.map((level) => [level as string, { right: 0, of: 0 }]));
  const wrong = new Map<string, number>();
  let ms = 0;
  for (let i = 0; i < EACH; i++) {
    const { reading, causes, visible } = tray(noise, random);
    const began = performance.now();
    const findings = readEngine(reading);
    ms += performance.now() - began;
    const stops = findings.some(({ urgency }) => urgency === 'stop');
    if (!visible) {
      right.hidden++;
      continue;
    }
    const [first] = findings;
    right.of++;
    if (first && causes.includes(first.cause)) right.first++;
    else {
      const what = `${causes.join('+')} -> ${first?.cause ?? 'nothing'}`;
      wrong.set(what, (wrong.get(what) ?? 0) + 1);
    }
    for (const { cause, confidence } of findings) {
      const level = kept.get(confidence);
      if (!level) continue;
      level.of++;
      if (causes.includes(cause)) level.right++;
    }
    if (causes.some((cause) => STOPS.includes(cause))) {
      right.stopTrays++;
      if (stops) right.stops++;
    } else {
      right.calm++;
      if (stops) right.false++;
    }
  }
  const levels = [...kept.values()].map((level) => `${percent(level.right, level.of)} of ${level.of}`);
  if (process.env.BENCH_WRONG)
    for (const [what, n] of [...wrong].sort((a, b) => b[1] - a[1]).slice(0, 25))
      process.stderr.write(`${noise} ${n} ${what}\n`);
  return `| ${noise} | ${percent(right.first, right.of)} | ${percent(right.stopTrays - right.stops, right.stopTrays)} of ${right.stopTrays} | ${percent(right.false, right.calm)} of ${right.calm} | ${levels.join(' | ')} | ${percent(right.hidden, EACH)} | ${(ms / EACH).toFixed(2)} ms |`;
});
process.stdout.write(
  `| noise | first cause right | stops missed | stops for nothing | ${CONFIDENCES.join(' | ')} | nothing left to see | a tray |\n|---|---|---|---|${'---|'.repeat(CONFIDENCES.length)}---|---|\n${rows.join('\n')}\n`,
);
