/*
 * Engines with a known fault, made from what the fault does to each firing: how often a cylinder fails to fire at idle, under load,
 * cold, hot and in the wet. From these come counts, codes, the lamp and what a driver says; what is seen and measured at a part
 * comes from whether that part is the faulty one. Nothing here reads the tables of the core: it is judged by this.
 */

export type Random = () => number;

interface Engine {
  readonly arrangement: 'inline' | 'v' | 'flat';
  readonly banks: readonly (readonly number[])[];
  readonly firing_order: readonly number[];
  readonly ignition: 'coil_on_plug' | 'coil_per_cylinder' | 'coil_rail' | 'waste_spark' | 'distributor';
  readonly plugs_per_cylinder: 1 | 2;
}

const engine = (
  ignition: Engine['ignition'],
  banks: Engine['banks'],
  firing_order: readonly number[],
  plugs_per_cylinder: 1 | 2 = 1,
): Engine => ({
  arrangement: banks.length > 1 ? 'v' : 'inline',
  banks,
  firing_order,
  ignition,
  plugs_per_cylinder,
});
const FOUR = [[1, 2, 3, 4]];
const V6 = [
  [1, 3, 5],
  [2, 4, 6],
];
const V8 = [
  [1, 3, 5, 7],
  [2, 4, 6, 8],
];
const ENGINES: readonly Engine[] = [
  engine('coil_on_plug', [[1, 2, 3]], [1, 3, 2]),
  engine('coil_on_plug', FOUR, [1, 3, 4, 2]),
  engine('coil_on_plug', FOUR, [1, 3, 4, 2], 2),
  engine('coil_on_plug', V6, [1, 2, 3, 4, 5, 6]),
  engine('coil_on_plug', V8, [1, 8, 4, 3, 6, 5, 7, 2]),
  engine('coil_rail', FOUR, [1, 3, 4, 2]),
  engine('coil_per_cylinder', V6, [1, 4, 3, 6, 2, 5]),
  engine('waste_spark', FOUR, [1, 3, 4, 2]),
  engine('waste_spark', V6, [1, 2, 3, 4, 5, 6]),
  engine('distributor', FOUR, [1, 3, 4, 2]),
  engine('distributor', [[1, 2, 3, 4, 5, 6]], [1, 5, 3, 6, 2, 4]),
  engine('distributor', V8, [1, 8, 4, 3, 6, 5, 7, 2]),
];

interface Truth {
  readonly cause: string;
  /** By where they were when it began; in order. */
  readonly cylinders: readonly number[];
}

const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)] as T;
export const chance = (p: number, random: Random): boolean => random() < p;
const between = (a: number, b: number, random: Random): number => a + (b - a) * random();
const cylindersOf = ({ banks }: Engine): readonly number[] => banks.flat();
const sorted = (list: readonly number[]): readonly number[] => [...list].sort((a, b) => a - b);

/** What workshops meet, by kind of ignition; how often, relative. */
const MET: Readonly<Record<Engine['ignition'], Readonly<Record<string, number>>>> = {
  coil_on_plug: { coil: 24, plug: 18, boot: 14, injector: 10, mechanical: 7, wiring: 7, connector: 5 },
  coil_rail: { rail: 18, plug: 18, boot: 14, injector: 10, mechanical: 7, wiring: 6 },
  coil_per_cylinder: { coil: 18, plug: 18, lead: 14, injector: 10, mechanical: 7, wiring: 7, connector: 4 },
  waste_spark: { pack: 20, plug: 18, lead: 18, injector: 10, mechanical: 7, wiring: 6 },
  distributor: { lead: 16, plug: 16, cap: 12, rotor: 9, coil_lead: 7, coil: 8, injector: 6, mechanical: 7, wiring: 5 },
};
const ANY = { mixture_bank: 5, mixture_all: 5, fuel: 7 };

interface Visit {
  readonly km_ago: number;
  readonly touched: readonly string[];
  readonly cylinders: readonly number[];
}

/** A visit lately, and what it may have done. */
function visitOf(of: Engine, random: Random): Visit | null {
  if (!chance(0.18, random)) return null;
  const all = cylindersOf(of);
  const whole = chance(0.7, random);
  const cylinders = whole ? all : [...pick(of.banks, random)];
  const touched = chance(0.8, random) ? ['plug', 'connector'] : ['coil', 'connector'];
  const leads = of.ignition === 'distributor' || of.ignition === 'waste_spark' ? ['plug', 'lead'] : touched;
  return { km_ago: Math.round(600 * random() ** 1.5), touched: leads, cylinders };
}

function ofVisit({ ignition }: Engine, { cylinders, touched, km_ago }: Visit, random: Random): Truth | null {
  if (!chance(0.75 * Math.max(0, 1 - km_ago / 500), random)) return null;
  const cylinder = pick(cylinders, random);
  const two = sorted([
    cylinder,
    pick(
      cylinders.filter((one) => one !== cylinder),
      random,
    ),
  ]);
  const leads = ignition === 'distributor' || ignition === 'waste_spark' || ignition === 'coil_per_cylinder';
  const roll = random();
  if (roll < 0.12 && touched.includes('plug') && cylinders.length > 2)
    return { cause: 'set', cylinders: sorted(cylinders) };
  if (roll < 0.25 && ignition !== 'coil_rail')
    return { cause: leads ? 'crossed_leads' : 'crossed_connectors', cylinders: two };
  const loosened = {
    coil_rail: 'boot',
    coil_on_plug: 'connector',
    coil_per_cylinder: 'lead',
    waste_spark: 'lead',
    distributor: 'lead',
  };
  if (roll < 0.7) return { cause: loosened[ignition], cylinders: [cylinder] };
  return roll < 0.85 || leads ? { cause: 'plug', cylinders: [cylinder] } : { cause: 'boot', cylinders: [cylinder] };
}

function truthOf(of: Engine, random: Random, only?: string): Truth {
  const odds = Object.entries({ ...MET[of.ignition], ...ANY }).filter(([cause]) => !only || cause === only);
  let left = random() * odds.reduce((sum, [, weight]) => sum + weight, 0);
  let cause = odds[0]?.[0] ?? 'plug';
  for (const [name, weight] of odds) {
    if (left >= 0) cause = name;
    left -= weight;
  }
  const cylinder = pick(cylindersOf(of), random);
  const all = sorted(cylindersOf(of));
  if (cause === 'mixture_bank') return { cause, cylinders: sorted(pick(of.banks, random)) };
  if (['mixture_all', 'fuel', 'rotor', 'coil_lead'].includes(cause)) return { cause, cylinders: all };
  if (of.ignition === 'distributor' && cause === 'coil') return { cause, cylinders: all };
  if (cause === 'cap') return { cause, cylinders: chance(0.5, random) ? all : [cylinder] };
  if (cause === 'pack') {
    const at = of.firing_order.indexOf(cylinder);
    const mate = of.firing_order[(at + of.firing_order.length / 2) % of.firing_order.length] ?? cylinder;
    return { cause, cylinders: sorted([cylinder, mate]) };
  }
  return { cause, cylinders: [cylinder] };
}

const REGIMES = ['idle', 'load', 'cold', 'hot', 'wet', 'cruise'] as const;
type Regime = (typeof REGIMES)[number];
type Profile = Readonly<Partial<Record<Regime, number>>>;

/** Share of the firings that fail in each regime, at the worst, by cause. */
const FAILS: Readonly<Record<string, Profile>> = {
  coil: { idle: 0.2, load: 0.7, hot: 0.6, wet: 0.3, cold: 0.15, cruise: 0.3 },
  pack: { idle: 0.2, load: 0.7, hot: 0.6, wet: 0.3, cold: 0.15, cruise: 0.3 },
  rail: { idle: 0.2, load: 0.7, hot: 0.6, wet: 0.3, cold: 0.15, cruise: 0.3 },
  plug: { idle: 0.25, load: 0.6, cold: 0.35, hot: 0.2, wet: 0.25, cruise: 0.2 },
  set: { idle: 0.15, load: 0.5, cold: 0.25, hot: 0.1, cruise: 0.1 },
  boot: { idle: 0.15, load: 0.55, wet: 0.75, cold: 0.2, cruise: 0.2 },
  lead: { idle: 0.15, load: 0.55, wet: 0.75, cold: 0.2, cruise: 0.2 },
  cap: { idle: 0.3, load: 0.4, wet: 0.8, cold: 0.3, cruise: 0.2 },
  rotor: { idle: 0.25, load: 0.55, wet: 0.4, hot: 0.3, cruise: 0.3 },
  coil_lead: { idle: 0.2, load: 0.6, wet: 0.6, cruise: 0.25 },
  injector: { idle: 0.6, load: 0.35, cold: 0.35, hot: 0.25, cruise: 0.2 },
  mechanical: { idle: 0.75, load: 0.25, cold: 0.6, hot: 0.3, cruise: 0.3 },
  wiring: { idle: 0.5, load: 0.5, hot: 0.5, wet: 0.4, cold: 0.4, cruise: 0.45 },
  connector: { idle: 0.5, load: 0.5, hot: 0.3, wet: 0.4, cold: 0.35, cruise: 0.45 },
  mixture_bank: { idle: 0.35, load: 0.1, cold: 0.3, cruise: 0.08 },
  mixture_all: { idle: 0.35, load: 0.15, cold: 0.35, cruise: 0.08 },
  fuel: { idle: 0.12, load: 0.4, cold: 0.2, hot: 0.25, cruise: 0.15 },
  crossed_leads: { idle: 0.9, load: 0.9, cold: 0.9, hot: 0.9, wet: 0.9, cruise: 0.9 },
  crossed_connectors: { idle: 0.9, load: 0.9, cold: 0.9, hot: 0.9, wet: 0.9, cruise: 0.9 },
  relearn: { idle: 0.3 },
};
const BROAD: readonly string[] = ['mixture_bank', 'mixture_all', 'fuel', 'rotor', 'coil_lead', 'set', 'relearn'];
export const isBroad = ({ cause, cylinders }: Truth): boolean => BROAD.includes(cause) || cylinders.length > 2;

export interface Constructed {
  readonly engine: Engine;
  readonly truth: Truth;
  /** As `calc/misfire` takes it, no test done yet. */
  readonly request: Readonly<Record<string, unknown>>;
}

/** How often each cylinder fails to fire in each regime. */
type Rates = (cylinder: number, regime: Regime) => number;

function ratesOf({ plugs_per_cylinder, banks }: Engine, truth: Truth, random: Random): Rates {
  const severity = between(0.35, 1.1, random);
  const isTwin = truth.cause === 'plug' && plugs_per_cylinder === 2;
  const spread = new Map(banks.flat().map((cylinder) => [cylinder, between(0.4, 1, random)]));
  return (cylinder, regime) => {
    if (!truth.cylinders.includes(cylinder)) return 0.002;
    const share = (FAILS[truth.cause]?.[regime] ?? 0.05) * severity * (isTwin && regime !== 'load' ? 0.15 : 1);
    return Math.min(0.98, share * (isBroad(truth) ? 0.45 * (spread.get(cylinder) ?? 1) : 1));
  };
}

const named = (number: number): string => `P0${number}`;

/** Codes that a fault sets besides those of the misfire, and how often. */
function circuitCodes({ banks }: Engine, { cause, cylinders }: Truth): readonly (readonly [string, number])[] {
  const [at = 1] = cylinders;
  const isFirst = banks[0]?.includes(at) ?? true;
  switch (cause) {
    case 'mixture_bank':
      return [[isFirst ? 'P0171' : 'P0174', 0.7]];
    case 'mixture_all':
      return [['P0171', 0.55]];
    case 'fuel':
      return [['P0171', 0.25]];
    case 'injector':
      return [[named(200 + at), 0.4]];
    case 'wiring':
      return [
        [named(350 + at), 0.5],
        [named(200 + at), 0.2],
      ];
    case 'connector':
      return [[named(350 + at), 0.4]];
    case 'coil':
      return cylinders.length === 1 ? [[named(350 + at), 0.2]] : [];
    default:
      return [];
  }
}

/** What the computer stored. @param mean how often each cylinder failed on the drive that it watched */
function codesOf(
  of: Engine,
  truth: Truth,
  mean: ReadonlyMap<number, number>,
  random: Random,
  noise: number,
): readonly string[] {
  const codes = new Set<string>();
  const all = cylindersOf(of);
  const over = all.filter((cylinder) => (mean.get(cylinder) ?? 0) > 0.02);
  const names = !isBroad(truth) || chance(0.45, random);
  const atRandom = over.length > 2 ? 0.85 : 0.12 + 0.33 * Number(over.length === 2);
  if (chance(atRandom, random)) codes.add('P0300');
  for (const cylinder of over)
    if (names && chance(isBroad(truth) ? 0.45 : 1 - 0.07 * (1 + noise), random)) codes.add(named(300 + cylinder));
  if (chance(0.05 * noise, random)) codes.add(named(300 + pick(all, random)));
  if (codes.size === 0 && chance(0.7, random)) codes.add('P0300');
  for (const [code, often] of circuitCodes(of, truth)) if (chance(often, random)) codes.add(code);
  if (chance(0.03 * noise, random)) codes.add(pick(['P0171', 'P0420', 'P0442'], random));
  return [...codes];
}

/** What a driver says: of each regime by how badly it stumbles there. */
function symptomsOf(of: Engine, rate: Rates, random: Random, noise: number): readonly string[] {
  const noticed = (regime: Regime): number => Math.max(...cylindersOf(of).map((cylinder) => rate(cylinder, regime)));
  const symptoms = (['idle', 'load', 'cold', 'hot', 'wet'] as const).filter((regime) => {
    const says = noticed(regime) > 0.12 ? 0.9 * noticed(regime) * (1 - 0.15 * noise) : 0.03 * noise;
    return chance(says, random);
  });
  const least = Math.min(...(['idle', 'load', 'cruise'] as const).map(noticed));
  const always = chance(least > 0.35 ? 0.6 : 0.05 * noise, random);
  const late = chance(0.5, random);
  return [...symptoms.map((one) => (one === 'hot' && late ? 'after_a_while' : one)), ...(always ? ['always'] : [])];
}

const FIRST_SEEN: Readonly<Record<string, string>> = {
  boot: 'boot_tracked',
  lead: 'boot_tracked',
  plug: 'insulator_cracked',
  connector: 'connector_loose',
};

function foundOf(of: Engine, { cause, cylinders }: Truth, random: Random, noise: number) {
  const word = cylinders.length === 1 && chance(0.12, random) ? FIRST_SEEN[cause] : undefined;
  const stray = chance(0.05 * noise, random)
    ? [{ cylinder: pick(cylindersOf(of), random), word: pick(['well_wet', 'nose_sooty'], random) }]
    : [];
  return [...(word ? [{ cylinder: cylinders[0], word }] : []), ...stray];
}

function agesOf(of: Engine, { cause, cylinders }: Truth, random: Random) {
  if (!chance(0.4, random)) return [];
  return ['plug', 'coil'].flatMap((component) =>
    cylindersOf(of).map((cylinder) => {
      const isWorn = cause === component && cylinders.includes(cylinder) && chance(0.7, random);
      return { component, cylinder, life_used: isWorn ? between(0.8, 1.3, random) : between(0.1, 1, random) };
    }),
  );
}

/** @param noise 0: clean; 1: as a busy workshop has it; 2: much of what is told is wrong or missing */
export function constructed(random: Random, noise: number, only?: string): Constructed {
  const fits = ENGINES.filter(({ ignition }) => !only || only in { ...MET[ignition], ...ANY });
  const of = pick(fits, random);
  const visit = visitOf(of, random);
  const truth = (!only && visit && ofVisit(of, visit, random)) || truthOf(of, random, only);
  const rate = ratesOf(of, truth, random);
  const all = cylindersOf(of);
  // The drive on which the computer watched: some of each.
  const driven = REGIMES.filter((regime) => regime !== 'wet' || chance(0.5, random));
  const mean = new Map(
    all.map((cylinder) => [cylinder, driven.reduce((sum, regime) => sum + rate(cylinder, regime), 0) / driven.length]),
  );
  const per1000 = (cylinder: number): number =>
    Math.min(1000, Math.round(1000 * (mean.get(cylinder) ?? 0) * between(0.7, 1.3, random)));
  return {
    engine: of,
    truth,
    request: {
      layout: of,
      codes: codesOf(of, truth, mean, random, noise),
      counts: chance(0.35, random) ? all.map((cylinder) => ({ cylinder, per_1000: per1000(cylinder) })) : [],
      symptoms: symptomsOf(of, rate, random, noise),
      lamp: chance(Math.max(...mean.values()) > 0.1 ? 0.5 : 0.03, random) ? 'flashing' : 'on',
      ages: agesOf(of, truth, random),
      recent_work: visit ? [visit] : [],
      found: foundOf(of, truth, random, noise),
      labour_per_hour: 60,
      downtime_per_hour: 20,
    },
  };
}
