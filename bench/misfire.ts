import { type Constructed, constructed, tried } from '@/core/misfire/constructed.fixture';
import { costOfMinutes, costToCure, minutesToCure } from '@/core/misfire/cure';
import { diagnose } from '@/core/misfire/diagnose';
import type { Cause, DoneTest, MisfireCase, SuspectPart } from '@/core/misfire/misfire-case';
import { hypothesisKey } from '@/core/misfire/posterior';
import { CAUSES_OF } from '@/core/misfire/states';
import { seeded } from '@/core/stats/seeded';

/*
 * Constructed engines with a known cause: how often it is named first, or among the first two, after the proposed tests, and what
 * the cure takes, against three ways of a workshop. Then how far the probabilities are what they say.
 */

const CASES = Number(process.env.BENCH_CASES ?? 600);
const MAX_STEPS = 12;
/** Somebody looks into everything else. */
const LAST_RESORT_MINUTES = 180;

interface Took {
  readonly steps: number;
  readonly minutes: number;
  readonly cost: number;
  readonly wrongParts: number;
  readonly first: boolean;
  readonly firstTwo: boolean;
}

const cures = ({ truth }: Constructed, cause: Cause, cylinders: readonly number[]): boolean =>
  cause === truth.cause && truth.cylinders.every((cylinder) => cylinders.includes(cylinder) || cylinders.length === 0);

/** As proposed, step by step, until it is cured. */
function asProposed(of: Constructed, random: () => number): Took {
  const done: DoneTest[] = [];
  let [steps, minutes, cost, wrongParts] = [0, 0, 0, 0];
  let named: { first: boolean; firstTwo: boolean } | null = null;
  for (; steps < MAX_STEPS; ) {
    const given: MisfireCase = { ...of.given, testsDone: done };
    const { hypotheses, steps: next } = diagnose(given);
    const [step] = next;
    if (!step) break;
    steps += 1;
    minutes += step.minutes;
    if (step.action === 'test' && step.test) {
      cost += costOfMinutes(given, step.minutes);
      done.push(tried(step.test, of.truth, random));
      continue;
    }
    const keys = hypotheses.slice(0, 2).map(hypothesisKey);
    named ??= { first: keys[0] === hypothesisKey(of.truth), firstTwo: keys.includes(hypothesisKey(of.truth)) };
    cost += costToCure(given, { cause: step.cause ?? 'fuel', cylinders: step.cylinders });
    if (cures(of, step.cause ?? 'fuel', step.cylinders)) return { steps, minutes, cost, wrongParts, ...named };
    if (step.component) wrongParts += 1;
    const [cylinder = null] = step.cylinders;
    if (step.component) done.push({ test: 'replace', component: step.component, cylinder, outcome: 'not_cured' });
    else break;
  }
  const last = costOfMinutes(of.given, LAST_RESORT_MINUTES) + costToCure(of.given, of.truth);
  return {
    steps: steps + 1,
    minutes: minutes + LAST_RESORT_MINUTES,
    cost: cost + last,
    wrongParts,
    ...(named ?? { first: false, firstTwo: false }),
  };
}

/** Parts one after the other, at some cylinders each, until it is cured. @param swaps the part is tried in another cylinder first */
function inTurn(
  of: Constructed,
  parts: readonly SuspectPart[],
  cylinders: readonly number[],
  swaps: boolean,
  random: () => number,
): Took {
  const { given, truth } = of;
  let [steps, minutes, cost, wrongParts] = [0, 0, 0, 0];
  const swapMinutes = { coil: 20, lead: 16, plug: 40, injector: 100 } as const;
  for (const part of parts) {
    const isIt =
      CAUSES_OF[part].includes(truth.cause) && truth.cylinders.some((cylinder) => cylinders.includes(cylinder));
    steps += 1;
    if (swaps) {
      minutes += swapMinutes[part];
      cost += costOfMinutes(given, swapMinutes[part]);
      const misread = random() < 0.04;
      if (isIt === misread) continue;
    }
    const cause = CAUSES_OF[part].find((one) => one === truth.cause) ?? CAUSES_OF[part][0] ?? 'coil';
    const each = minutesToCure(given, { cause, cylinders });
    minutes += each * Math.max(1, cylinders.length / 2);
    cost += costToCure(given, { cause, cylinders }) * cylinders.length;
    wrongParts += cylinders.length - (isIt ? 1 : 0);
    if (isIt) return { steps, minutes, cost, wrongParts, first: false, firstTwo: false };
  }
  const last = costOfMinutes(given, LAST_RESORT_MINUTES) + costToCure(given, truth);
  return {
    steps: steps + 1,
    minutes: minutes + LAST_RESORT_MINUTES,
    cost: cost + last,
    wrongParts,
    first: false,
    firstTwo: false,
  };
}

const coded = ({ given }: Constructed): readonly number[] =>
  given.codes.flatMap((code) => (/^P03(0[1-9]|1[0-2])$/.test(code) ? [Number(code.slice(3))] : [])).slice(0, 1);

const ways: Readonly<Record<string, (of: Constructed, random: () => number) => Took>> = {
  'as proposed': asProposed,
  'swap coil, then plug': (of, random) => inTurn(of, ['coil', 'plug'], coded(of), true, random),
  'replace all of both': (of, random) => inTurn(of, ['coil', 'plug'], of.given.engine.banks.flat(), false, random),
  'follow the code': (of, random) => inTurn(of, ['coil', 'plug', 'lead', 'injector'], coded(of), false, random),
};

const all = Array.from({ length: CASES }, (_, i) => constructed(seeded(i + 1)));
const percent = (share: number): string => `${(share * 100).toFixed(0)} %`;
for (const [name, way] of Object.entries(ways)) {
  const took = all.map((of, i) => way(of, seeded(7919 * (i + 1))));
  const mean = (value: (one: Took) => number): number => took.reduce((sum, one) => sum + value(one), 0) / took.length;
  const names =
    name === 'as proposed'
      ? `, named first ${percent(mean(({ first }) => Number(first)))}, in the first two ${percent(mean(({ firstTwo }) => Number(firstTwo)))}`
      : '';
  process.stdout.write(
    `misfire, ${name}: ${mean(({ steps }) => steps).toFixed(1)} steps, ${mean(({ minutes }) => minutes).toFixed(0)} min, ${mean(({ cost }) => cost).toFixed(0)} of cost, ${mean(({ wrongParts }) => wrongParts).toFixed(2)} wrong parts a case${names}\n`,
  );
}

/** Of all that is said to be so likely, how much is so. */
const BANDS = [0, 0.05, 0.2, 0.4, 0.6, 0.8, 1.0001] as const;
const said = all.flatMap(({ given, truth }) =>
  diagnose(given).hypotheses.map((one) => ({
    probability: one.probability,
    isSo: hypothesisKey(one) === hypothesisKey(truth),
  })),
);
for (const [i, from] of BANDS.slice(0, -1).entries()) {
  const own = said.filter(({ probability }) => probability >= from && probability < (BANDS[i + 1] ?? 1));
  if (own.length === 0) continue;
  const mean = own.reduce((sum, { probability }) => sum + probability, 0) / own.length;
  const share = own.filter(({ isSo }) => isSo).length / own.length;
  process.stdout.write(
    `misfire, said ${percent(from)} to ${percent(Math.min(1, BANDS[i + 1] ?? 1))}: ${own.length} times, on average ${percent(mean)}, so in ${percent(share)}\n`,
  );
}
