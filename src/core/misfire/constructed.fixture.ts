import { companions } from '../engine/coils';
import type { Random } from '../stats/seeded';
import {
  cylindersOf,
  type DoneTest,
  type Hypothesis,
  type MisfireCase,
  type MisfireEngine,
  type MisfireTest,
  type Symptom,
} from './misfire-case';
import { CAUSES_OF, isBroad } from './states';

/*
 * Engines with a known cause, for tests and for the benchmark. What they show is made by a workshop's rules of thumb with noise,
 * not by the tables of the core: the core is not asked what it told.
 */

export const ENGINES: readonly MisfireEngine[] = [
  { banks: [[1, 2, 3]], firingOrder: [1, 2, 3], ignition: 'coil_on_plug', plugsPerCylinder: 1, resting: [] },
  { banks: [[1, 2, 3, 4]], firingOrder: [1, 3, 4, 2], ignition: 'coil_on_plug', plugsPerCylinder: 1, resting: [] },
  { banks: [[1, 2, 3, 4]], firingOrder: [1, 3, 4, 2], ignition: 'coil_on_plug', plugsPerCylinder: 2, resting: [] },
  { banks: [[1, 2, 3, 4]], firingOrder: [1, 3, 4, 2], ignition: 'waste_spark', plugsPerCylinder: 1, resting: [] },
  { banks: [[1, 2, 3, 4]], firingOrder: [1, 3, 4, 2], ignition: 'coil_rail', plugsPerCylinder: 1, resting: [] },
  {
    banks: [[1, 2, 3, 4, 5, 6]],
    firingOrder: [1, 5, 3, 6, 2, 4],
    ignition: 'distributor',
    plugsPerCylinder: 1,
    resting: [],
  },
  {
    banks: [
      [1, 2, 3],
      [4, 5, 6],
    ],
    firingOrder: [1, 4, 2, 5, 3, 6],
    ignition: 'coil_on_plug',
    plugsPerCylinder: 1,
    resting: [],
  },
  {
    banks: [
      [1, 3, 5],
      [2, 4, 6],
    ],
    firingOrder: [1, 2, 3, 4, 5, 6],
    ignition: 'coil_per_cylinder',
    plugsPerCylinder: 1,
    resting: [],
  },
  {
    banks: [
      [1, 2, 3, 4],
      [5, 6, 7, 8],
    ],
    firingOrder: [1, 5, 4, 8, 6, 3, 7, 2],
    ignition: 'coil_on_plug',
    plugsPerCylinder: 1,
    resting: [],
  },
  {
    banks: [
      [1, 3, 5, 7],
      [2, 4, 6, 8],
    ],
    firingOrder: [1, 8, 4, 3, 6, 5, 7, 2],
    ignition: 'distributor',
    plugsPerCylinder: 1,
    resting: [],
  },
  {
    banks: [
      [1, 3],
      [2, 4],
    ],
    firingOrder: [1, 3, 2, 4],
    ignition: 'waste_spark',
    plugsPerCylinder: 1,
    resting: [],
  },
];

export function engineAt(i: number): MisfireEngine {
  const engine = ENGINES[i];
  if (!engine) throw new Error('there is no such engine');
  return engine;
}

const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)] as T;

/** What is wrong with it, and what it says of it. */
interface Constructed {
  readonly given: MisfireCase;
  readonly truth: Hypothesis;
}

/** Nothing was looked at or tried yet, and the shop says nothing of its prices. */
const NOTHING_DONE = {
  opening: [],
  record: [],
  weak: [],
  spoken: [],
  found: [],
  testsDone: [],
  minutes: {},
  prices: {},
  labourPerHour: 60,
  downtimePerHour: 20,
} as const;

/** A misfire of cylinder 2 of an inline four under load. */
export const plainCase = (over: Partial<MisfireCase> = {}): MisfireCase => ({
  ...NOTHING_DONE,
  engine: engineAt(1),
  codes: ['P0302'],
  counts: [],
  symptoms: ['load'],
  lamp: 'on',
  ages: [],
  recentWork: [],
  ...over,
});

/** About as often as workshops meet them. */
const MET: readonly (readonly [Hypothesis['cause'], number])[] = [
  ['coil', 26],
  ['plug', 24],
  ['lead', 14],
  ['injector', 12],
  ['connector', 8],
  ['mechanical', 6],
  ['mixture_bank', 6],
  ['wiring', 4],
];

function truthFor(engine: MisfireEngine, random: Random): Hypothesis {
  const cause = pick(
    MET.flatMap(([one, weight]) => Array<Hypothesis['cause']>(weight).fill(one)),
    random,
  );
  const cylinder = pick(cylindersOf(engine), random);
  const pair = companions(engine.firingOrder).find((two) => two.includes(cylinder)) ?? [cylinder];
  const { ignition } = engine;
  if (cause === 'mixture_bank') return { cause, cylinders: [...pick(engine.banks, random)].sort((a, b) => a - b) };
  if (cause === 'connector')
    return {
      cause: ignition === 'coil_on_plug' || ignition === 'coil_per_cylinder' ? 'connector' : 'plug',
      cylinders: [cylinder],
    };
  if (cause === 'lead')
    return { cause: ignition === 'coil_on_plug' || ignition === 'coil_rail' ? 'boot' : 'lead', cylinders: [cylinder] };
  if (cause !== 'coil') return { cause, cylinders: [cylinder] };
  if (ignition === 'waste_spark') return { cause: 'pack', cylinders: [...pair].sort((a, b) => a - b) };
  if (ignition === 'coil_rail') return { cause: 'rail', cylinders: [cylinder] };
  return { cause: ignition === 'distributor' ? 'lead' : 'coil', cylinders: [cylinder] };
}

const SAID: Readonly<Partial<Record<Hypothesis['cause'], Symptom>>> = {
  coil: 'load',
  pack: 'load',
  rail: 'load',
  plug: 'load',
  boot: 'wet',
  lead: 'wet',
  injector: 'idle',
  mechanical: 'idle',
  mixture_bank: 'idle',
  wiring: 'always',
  connector: 'always',
};

/** A loose connector comes from a visit as a rule; others were in the workshop lately by chance. */
const wasWorkedOn = ({ cause }: Hypothesis, random: Random, noise: number): boolean =>
  cause === 'connector' ? random() > noise : random() < noise / 2;

/** @param noise share of what is said or shown that is wrong or missing */
export function constructed(random: Random, noise = 0.15): Constructed {
  const engine = pick(ENGINES, random);
  const truth = truthFor(engine, random);
  const all = cylindersOf(engine);
  const codes = new Set<string>();
  for (const cylinder of truth.cylinders)
    if (random() > (isBroad(truth) ? 0.65 : noise / 2)) codes.add(`P03${String(cylinder).padStart(2, '0')}`);
  if (random() < noise / 3) codes.add(`P03${String(pick(all, random)).padStart(2, '0')}`);
  if (truth.cylinders.length > 1 && random() < 0.6) codes.add('P0300');
  if (truth.cause === 'mixture_bank' && random() > noise)
    codes.add(engine.banks.findIndex((bank) => bank.includes(truth.cylinders[0] ?? 0)) === 0 ? 'P0171' : 'P0174');
  // A wire to an injector sets the injector’s code too.
  if (random() < ({ injector: 0.4, wiring: 0.2 }[truth.cause as string] ?? 0))
    codes.add(`P02${String(truth.cylinders[0]).padStart(2, '0')}`);
  if (truth.cause === 'wiring' && random() < 0.6) codes.add(`P03${50 + (truth.cylinders[0] ?? 0)}`);
  const usual = SAID[truth.cause];
  const symptoms: Symptom[] =
    usual && random() > noise * 2 ? [usual] : [pick(['idle', 'load', 'cold'] as const, random)];
  const isOld = random() < 0.4;
  return {
    truth,
    given: {
      ...NOTHING_DONE,
      engine,
      codes: [...codes],
      counts: [],
      symptoms,
      lamp: random() < 0.2 ? 'flashing' : 'on',
      ages: isOld
        ? all.map((cylinder) => ({
            component: 'plug' as const,
            cylinder,
            lifeUsed: truth.cause === 'plug' ? 1.1 : 0.6,
          }))
        : [],
      recentWork: wasWorkedOn(truth, random, noise)
        ? [{ kmAgo: 60, touched: ['plug', 'connector'], cylinders: all }]
        : [],
    },
  };
}

/** What a test shows on the real engine. @param noise chance that it is misread */
export function tried(test: MisfireTest, truth: Hypothesis, random: Random, noise = 0.04): DoneTest {
  const isMisread = random() < noise;
  if (test.test === 'swap') {
    const goes =
      test.moved.some((part) => CAUSES_OF[part].includes(truth.cause)) && truth.cylinders.includes(test.from);
    const isCured = truth.cause === 'connector' && truth.cylinders.includes(test.from) && random() < 0.6;
    if (isCured) return { ...test, outcome: 'gone' };
    return { ...test, outcome: goes !== isMisread ? 'moved' : 'stayed' };
  }
  const isHere = test.cylinder === null || truth.cylinders.includes(test.cylinder);
  const isIt = isHere && (test.component === null ? false : CAUSES_OF[test.component].includes(truth.cause));
  switch (test.test) {
    case 'look': {
      const shows = (isHere && test.component === null && truth.cause === 'connector') || (isIt && random() < 0.5);
      return { ...test, outcome: shows !== isMisread ? 'found' : 'not_found' };
    }
    case 'resistance':
      return { ...test, outcome: isIt && random() < 0.45 ? 'open' : 'in_range' };
    case 'compression':
      return { ...test, outcome: (isHere && truth.cause === 'mechanical') !== isMisread ? 'low' : 'normal' };
    case 'fuel_pressure':
      return { ...test, outcome: truth.cause === 'fuel' && random() < 0.75 ? 'low' : 'normal' };
    case 'smoke':
      return { ...test, outcome: truth.cause === 'mixture_bank' && random() < 0.75 ? 'found' : 'not_found' };
    case 'clear_and_drive':
      return { ...test, outcome: random() < 0.06 ? 'cured' : 'back' };
    case 'replace':
      return { ...test, outcome: isIt ? 'cured' : 'not_cured' };
  }
}
