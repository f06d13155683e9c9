import { type Constructed, chance, isBroad, type Random } from './misfire-truths';

/* What a test shows on an engine with a known fault, and whether what is done cures it. */

export interface Step {
  readonly action: string;
  readonly test: string | null;
  readonly component: string | null;
  readonly moved: readonly string[];
  readonly from: number | null;
  readonly to: number | null;
  readonly cylinder: number | null;
  readonly cause: string | null;
  readonly minutes: number;
}

/** Parts by the name that a step gives them, and the faults that they have. */
const FAULTS_OF: Readonly<Record<string, readonly string[]>> = {
  coil: ['coil', 'pack', 'rail'],
  plug: ['plug'],
  boot: ['boot'],
  lead: ['lead', 'boot'],
  injector: ['injector'],
  cap: ['cap'],
  rotor: ['rotor'],
  coil_lead: ['coil_lead'],
  connector: ['connector'],
};

/** How often a look finds the fault, by where one looks. */
const SEEN: Readonly<Record<string, number>> = { cap: 0.75, rotor: 0.75, coil: 0.3 };
const SEEN_FROM_ABOVE: Readonly<Record<string, number>> = {
  connector: 0.85,
  wiring: 0.2,
  boot: 0.3,
  lead: 0.35,
  crossed_leads: 0.65,
  crossed_connectors: 0.65,
};
const SMOKES: Readonly<Record<string, number>> = { mixture_bank: 0.75, mixture_all: 0.4 };
const GONE_BY_ITSELF: Readonly<Record<string, number>> = { relearn: 0.85, connector: 0.15 };

/** How likely a test shows what speaks of a fault, and the two things that it can say. */
function showing({ truth }: Constructed, { test, component, cylinder }: Step): readonly [number, string, string] {
  const { cause } = truth;
  const here = cylinder === null || truth.cylinders.includes(cylinder);
  const isIt = here && component !== null && (FAULTS_OF[component]?.includes(cause) ?? false);
  switch (test) {
    case 'look': {
      const [yes, no] = ['found', 'not_found'];
      if (component === null) return [here ? (SEEN_FROM_ABOVE[cause] ?? 0.02) : 0.02, yes, no];
      if (component === 'plug' && cause === 'set') return [0.75, yes, no];
      if ((component === 'lead' || component === 'connector') && cause.startsWith('crossed') && here)
        return [0.6, yes, no];
      return [isIt ? (SEEN[component] ?? 0.6) : 0.03, yes, no];
    }
    case 'resistance': {
      const shows = component === 'coil' ? 0.4 : 0.6;
      return [isIt ? shows : 0.02, 'open', 'in_range'];
    }
    case 'compression':
      return [here && cause === 'mechanical' ? 0.88 : 0.004, 'low', 'normal'];
    case 'smoke':
      return [SMOKES[cause] ?? 0.03, 'found', 'not_found'];
    case 'fuel_pressure':
      return [cause === 'fuel' ? 0.75 : 0.02, 'low', 'normal'];
    default:
      return [GONE_BY_ITSELF[cause] ?? 0.05, 'cured', 'back'];
  }
}

/** What a test shows on the real engine, as `tests_done` takes it. */
export function shown(of: Constructed, step: Step, random: Random, noise: number): Record<string, unknown> {
  const misread = chance(0.02 + 0.02 * noise, random);
  const { test, component, cylinder, moved, from, to } = step;
  if (test === 'swap') return { test, moved, from, to, outcome: swapped(of, step, misread, random) };
  const [likely, yes, no] = showing(of, step);
  const isSeen = chance(likely, random) !== (misread && likely < 0.1);
  return { test, component, cylinder, outcome: isSeen ? yes : no };
}

function swapped({ truth, engine: of }: Constructed, { moved, from }: Step, misread: boolean, random: Random): string {
  const { cause, cylinders } = truth;
  const here = cylinders.length === 1 && cylinders[0] === from;
  const withCoil = of.ignition === 'coil_on_plug' && moved.includes('coil');
  const hangs = withCoil && cause === 'boot' && chance(0.9, random);
  const goes = here && (hangs || moved.some((part) => FAULTS_OF[part]?.includes(cause)));
  if (here && cause === 'connector' && moved.includes('coil') && chance(0.55, random)) return 'gone';
  if (goes !== misread) return 'moved';
  return isBroad(truth) && chance(0.2, random) ? 'both' : 'stayed';
}

/** Whether what is done cures it. Of an engine with one bank its mixture is that of the whole engine. */
export function cures(
  { truth, engine: of }: Constructed,
  { cause, cylinder }: Pick<Step, 'cause' | 'cylinder'>,
  cylinders: readonly number[],
): boolean {
  const mixture = (name: string | null): string | null =>
    name === 'mixture_bank' && of.banks.length === 1 ? 'mixture_all' : name;
  const at = cylinder === null ? cylinders : [cylinder];
  return (
    mixture(cause) === mixture(truth.cause) && (at.length === 0 || truth.cylinders.every((one) => at.includes(one)))
  );
}
