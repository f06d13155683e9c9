import { MISFIRE_CALCULATION } from '@/app/api/v1/calc-misfire';
import { seeded } from '@/core/stats/seeded';
import { cures, type Step, shown } from './misfire-tests';
import { type Constructed, constructed, type Random } from './misfire-truths';

/*
 * Engines with a known fault, asked over the interface step by step until they are cured: what it takes in minutes, money and
 * wrong parts, against three ways of a workshop; how often each fault is found; and how far the probabilities are what they say,
 * before anything is tested and at the moment of mending.
 */

const CASES = Number(process.env.BENCH_CASES ?? 400);
const NOISES = [0.5, 1, 1.6] as const;
const MAX_STEPS = 14;
/** Somebody looks into everything else. */
const LAST_RESORT_MINUTES = 180;
const PRICES: Readonly<Record<string, number>> = {
  coil: 60,
  pack: 60,
  rail: 60,
  plug: 12,
  set: 72,
  boot: 18,
  lead: 18,
  injector: 120,
  cap: 30,
  rotor: 12,
  coil_lead: 18,
  connector: 8,
};
const PER_MINUTE = 80 / 60;
const REPLACE_MINUTES = 20;

interface Took {
  readonly steps: number;
  readonly minutes: number;
  readonly cost: number;
  readonly wrongParts: number;
  /** By the proposal itself, not by the last resort. */
  readonly found: boolean;
}

interface Suspicion {
  readonly cause: string;
  readonly cylinders: readonly number[];
  readonly probability: number;
}
interface Answer {
  readonly hypotheses: readonly Suspicion[];
  readonly next: Step;
}
const ask = (request: unknown): Answer => MISFIRE_CALCULATION.run(request) as Answer;

/** What was said to be so likely, and whether it was so. */
interface Said {
  readonly probability: number;
  readonly isSo: boolean;
}
const before: Said[] = [];
const mending: Said[] = [];
const isTruth = ({ truth }: Constructed, { cause, cylinders }: Suspicion): boolean =>
  cause === truth.cause && `${cylinders}` === `${truth.cylinders}`;

/** As proposed, step by step, until it is cured. */
function asProposed(of: Constructed, random: Random, noise: number): Took {
  const done: unknown[] = [];
  let [steps, minutes, cost, wrongParts] = [0, 0, 0, 0];
  for (; steps < MAX_STEPS; ) {
    const { hypotheses, next } = ask({ ...of.request, tests_done: done });
    if (steps === 0)
      before.push(...hypotheses.map((one) => ({ probability: one.probability, isSo: isTruth(of, one) })));
    steps += 1;
    minutes += next.minutes;
    cost += next.minutes * PER_MINUTE;
    if (next.action === 'test') {
      done.push(shown(of, next, random, noise));
      continue;
    }
    const meant = hypotheses.filter(
      ({ cause, cylinders }) => cause === next.cause && (next.cylinder === null || cylinders.includes(next.cylinder)),
    );
    const [first] = meant;
    const isCured = cures(of, next, first?.cylinders ?? []);
    if (next.action !== 'watch') mending.push({ probability: first?.probability ?? 0, isSo: isCured });
    cost += next.action === 'replace' ? (PRICES[next.cause ?? ''] ?? 0) : 0;
    if (isCured) return { steps, minutes, cost, wrongParts, found: true };
    if (next.action !== 'replace') break;
    wrongParts += Number(PRICES[next.cause ?? ''] !== undefined && next.cause !== 'connector');
    done.push({ test: 'replace', component: next.component, cylinder: next.cylinder, outcome: 'not_cured' });
  }
  return lastResort(of, { steps, minutes, cost, wrongParts });
}

const lastResort = ({ truth }: Constructed, { steps, minutes, cost, wrongParts }: Omit<Took, 'found'>): Took => ({
  steps: steps + 1,
  minutes: minutes + LAST_RESORT_MINUTES,
  cost: cost + LAST_RESORT_MINUTES * PER_MINUTE + (PRICES[truth.cause] ?? 0),
  wrongParts,
  found: false,
});

/** Parts one after the other, at some cylinders each, until it is cured. @param swaps the part is tried in another cylinder first */
function inTurn(
  of: Constructed,
  parts: readonly string[],
  at: readonly number[],
  swaps: boolean,
  random: Random,
): Took {
  const { truth } = of;
  let [steps, minutes, cost, wrongParts] = [0, 0, 0, 0];
  for (const part of parts) {
    const kinds = { coil: ['coil', 'pack', 'rail'], lead: ['lead', 'boot'] }[part] ?? [part];
    const isIt = kinds.includes(truth.cause) && truth.cylinders.every((cylinder) => at.includes(cylinder));
    steps += 1;
    if (swaps) {
      const took = part === 'plug' ? 40 : 20;
      minutes += took;
      cost += took * PER_MINUTE;
      const misread = random() < 0.04;
      if (isIt === misread) continue;
    }
    const each = REPLACE_MINUTES * Math.max(1, at.length / 2);
    minutes += each;
    cost += each * PER_MINUTE + (PRICES[part] ?? 0) * at.length;
    wrongParts += at.length - Number(isIt);
    if (isIt) return { steps, minutes, cost, wrongParts, found: true };
  }
  return lastResort(of, { steps, minutes, cost, wrongParts });
}

const coded = ({ request }: Constructed): readonly number[] =>
  (request.codes as readonly string[])
    .flatMap((code) => (/^P03(0[1-9]|1[0-2])$/.test(code) ? [Number(code.slice(3))] : []))
    .slice(0, 1);

const ways: Readonly<Record<string, (of: Constructed, random: Random, noise: number) => Took>> = {
  'as proposed': asProposed,
  'swap coil, then plug': (of, random) => inTurn(of, ['coil', 'plug'], coded(of), true, random),
  'replace all of both': (of, random) => inTurn(of, ['coil', 'plug'], of.engine.banks.flat(), false, random),
  'follow the code': (of, random) => inTurn(of, ['coil', 'plug', 'lead', 'injector'], coded(of), false, random),
};

const percent = (share: number): string => `${(share * 100).toFixed(0)} %`;
const mean = <T>(list: readonly T[], value: (one: T) => number): number =>
  list.reduce((sum, one) => sum + value(one), 0) / Math.max(1, list.length);
const tell = (line: string): void => {
  process.stdout.write(`misfire, ${line}\n`);
};

const all = NOISES.flatMap((noise, n) =>
  Array.from({ length: Math.ceil(CASES / NOISES.length) }, (_, i) => ({
    of: constructed(seeded(1 + i + 10_000 * n), noise),
    noise,
    seed: 7919 * (i + 1) + n,
  })),
);
for (const [name, way] of Object.entries(ways)) {
  const took = all.map(({ of, noise, seed }) => way(of, seeded(seed), noise));
  tell(
    `${name}: ${mean(took, ({ steps }) => steps).toFixed(1)} steps, ${mean(took, ({ minutes }) => minutes).toFixed(0)} min, ${mean(took, ({ cost }) => cost).toFixed(0)} of cost, ${mean(took, ({ wrongParts }) => wrongParts).toFixed(2)} wrong parts a case, found ${percent(mean(took, ({ found }) => Number(found)))}`,
  );
  if (way !== asProposed) continue;
  const classes = [...new Set(all.map(({ of }) => of.truth.cause))].sort();
  for (const cause of classes) {
    const own = took.filter((_, i) => all[i]?.of.truth.cause === cause);
    tell(
      `${cause}: ${own.length} cases, found ${percent(mean(own, ({ found }) => Number(found)))}, ${mean(own, ({ minutes }) => minutes).toFixed(0)} min, ${mean(own, ({ wrongParts }) => wrongParts).toFixed(2)} wrong parts`,
    );
  }
}

const BANDS = [0, 0.05, 0.2, 0.4, 0.6, 0.8, 1.0001] as const;
for (const [when, list] of [
  ['before any test', before],
  ['at the moment of mending', mending],
] as const)
  for (const [i, from] of BANDS.slice(0, -1).entries()) {
    const own = list.filter(({ probability }) => probability >= from && probability < (BANDS[i + 1] ?? 1));
    if (own.length > 0)
      tell(
        `${when}, said ${percent(from)} to ${percent(Math.min(1, BANDS[i + 1] ?? 1))}: ${own.length} times, on average ${percent(mean(own, ({ probability }) => probability))}, so in ${percent(mean(own, ({ isSo }) => Number(isSo)))}`,
      );
  }
