import { siteId } from '../engine/model';
import { fastWear } from '../gap/wear';
import { sayGap } from '../units/say';
import type { Cause, EngineReading, Observation, SiteReading, Urgency } from './finding';
import { SHAPES, type Shape } from './shape';
import type { Condition } from './vocabulary';

export type Looked = SiteReading & { readonly seen: readonly Observation[] };

/** What a rule looks for at a site: the words of its evidence and how clear they are; null: not there. */
type Sign = (site: Looked, reading: EngineReading) => { readonly words: string; readonly severity: number } | null;

export interface Rule {
  readonly cause: Cause;
  readonly sign: Sign;
  /** The places in which the sign means this; the first that fits is told. */
  readonly shapes: readonly Shape[];
  readonly urgency: Urgency;
  readonly next: readonly string[];
  /** Less sure than its sign: other causes look the same. */
  readonly ambiguous?: boolean;
  /** Of these causes only the first that fires is told: they explain the same sign. */
  readonly family?: string;
}

const ANYWHERE: readonly Shape[] = SHAPES;

const any =
  (...conditions: readonly Condition[]): Sign =>
  ({ seen }) => {
    const found = seen.filter(({ condition }) => conditions.includes(condition));
    const [first] = found;
    if (!first) return null;
    return {
      words: found.map(({ condition }) => condition).join(', '),
      severity: Math.max(...found.map(({ severity }) => severity)),
    };
  };

const without =
  (sign: Sign, ...never: readonly Condition[]): Sign =>
  (site, reading) =>
    any(...never)(site, reading) ? null : sign(site, reading);

const wornOut: Sign = ({ gapMm }, { gapLimitMm }) =>
  gapMm !== null && gapLimitMm !== null && gapMm > gapLimitMm
    ? {
        words: `gap ${sayGap(gapMm)}, over ${sayGap(gapLimitMm)}`,
        severity: gapMm > 1.1 * gapLimitMm ? 3 : 2,
      }
    : null;

const wearsFaster: Sign = (site, { sites }) => {
  const fast = fastWear(sites).get(siteId(site));
  return fast === undefined
    ? null
    : {
        words: `wears ${fast.rate.toFixed(1)} µm per 1,000 km, the others ${fast.others.toFixed(1)}`,
        severity: fast.rate > 2 * fast.others ? 3 : 2,
      };
};

const leaks: Sign = (site, reading) => {
  const soot = any('seat sooted')(site, reading);
  if (site.breakaway !== 'loose') return null;
  return { words: soot ? 'came out loose, seat sooted' : 'came out loose', severity: soot ? 3 : 2 };
};

const dry = without(any('nose black dry'), 'nose black oily');
const hot = any('nose white', 'nose blistered');

/**
 * The rules, in the order in which they are told within a family: what is special comes before what is general.
 *
 * Source: general trade guidance on reading removed plugs. They are suspicions with evidence, never verdicts.
 */
export const RULES: readonly Rule[] = [
  {
    cause: 'detonation',
    sign: any('electrodes melted', 'electrodes peppered'),
    shapes: ANYWHERE,
    urgency: 'stop',
    next: [
      'Stop: do not return it to service before the cause is known.',
      'Look into the cylinder with a borescope: piston crown, valves.',
      'Check the fuel’s grade, the timing and knock control, the cooling, and the heat range against the sheet.',
    ],
  },
  {
    cause: 'coolant_between',
    sign: any('nose coloured trace', 'nose washed clean'),
    shapes: ['neighbours'],
    urgency: 'stop',
    next: [
      'Stop: suspect the head gasket between these two.',
      'Compression and leak-down on both, and pressure on the cooling system while you listen.',
      'Test the coolant for combustion gas.',
    ],
    family: 'coolant',
  },
  {
    cause: 'coolant_in_one',
    sign: any('nose coloured trace', 'nose washed clean'),
    shapes: ['one', 'ends', 'some', 'bank', 'partners', 'position', 'deactivated'],
    urgency: 'before_return',
    next: [
      'Pressure on the cooling system overnight, then look into the cylinder.',
      'An injector that leaks washes clean as well: check its balance.',
    ],
    ambiguous: true,
    family: 'coolant',
  },
  {
    cause: 'coloured_by_fuel',
    sign: any('nose coloured trace'),
    shapes: ['all'],
    urgency: 'note',
    next: ['A fuel additive colours every nose alike. Ask what was filled in.'],
    family: 'coolant',
  },
  {
    cause: 'washed_alike',
    sign: any('nose coloured trace', 'nose washed clean'),
    shapes: ['all'],
    urgency: 'before_return',
    next: [
      'Much too rich, or steam from the intake: fuel pressure, level and colour of the coolant.',
      'Ask whether it was flooded at the last start.',
    ],
    ambiguous: true,
    family: 'coolant',
  },
  {
    cause: 'loose_plug',
    sign: leaks,
    shapes: ANYWHERE,
    urgency: 'before_return',
    next: ['Check seat and thread, fit a new gasket, tighten by the sheet.', 'Ask how it was tightened the last time.'],
    family: 'hot',
  },
  {
    cause: 'seat_leaked',
    sign: (site, reading) => (site.breakaway === 'loose' ? null : any('seat sooted')(site, reading)),
    shapes: ANYWHERE,
    urgency: 'soon',
    next: [
      'Clean the seat in the head, one new gasket, torque by the sheet.',
      'It was not loose: a gasket used twice, dirt on the seat, or the wrong seat.',
    ],
  },
  {
    cause: 'bank_lean',
    sign: hot,
    shapes: ['bank'],
    urgency: 'before_return',
    next: [
      'Look for unmetered air on that bank.',
      'Fuel trims of both banks side by side.',
      'Fuel pressure and injectors of that bank.',
    ],
    family: 'hot',
  },
  {
    cause: 'runner_leak',
    sign: hot,
    shapes: ['ends'],
    urgency: 'soon',
    next: ['Smoke test of the intake manifold: its ends leak first.'],
    ambiguous: true,
    family: 'hot',
  },
  {
    cause: 'lean_or_hot',
    sign: hot,
    shapes: ['all'],
    urgency: 'before_return',
    next: ['Compare the heat range with the sheet.', 'Fuel trims, fuel pressure, timing, cooling.'],
    family: 'hot',
  },
  {
    cause: 'cylinder_hot',
    sign: hot,
    shapes: ['one', 'some', 'neighbours', 'partners', 'position', 'deactivated'],
    urgency: 'before_return',
    next: ['That injector’s flow, and air drawn in beside its runner.', 'The heat range of that very plug.'],
    family: 'hot',
  },
  {
    cause: 'rests_at_part_load',
    sign: any('nose black dry', 'nose black oily', 'ash'),
    shapes: ['deactivated'],
    urgency: 'note',
    next: [
      'These cylinders rest at part load and foul by it. See whether oil use has grown.',
      'Ask whether the maker has a bulletin on it.',
    ],
    family: 'dark',
  },
  {
    cause: 'one_position_weak',
    sign: dry,
    shapes: ['position'],
    urgency: 'soon',
    next: ['Spark of that row of plugs: its coils, leads and trigger.'],
    family: 'dark',
  },
  {
    cause: 'bank_rich',
    sign: dry,
    shapes: ['bank'],
    urgency: 'before_return',
    next: [
      'Exhaust leak ahead of that bank’s sensor: it reads lean and enriches.',
      'Fuel trims of both banks side by side.',
      'Spark of that bank.',
    ],
    family: 'dark',
  },
  {
    cause: 'rich_or_weak_spark',
    sign: dry,
    shapes: ['all'],
    urgency: 'soon',
    next: [
      'Ask about short trips and long idling first.',
      'Air filter, fuel trims, coolant temperature sensor.',
      'Spark demand against what the coils give.',
    ],
    family: 'dark',
  },
  {
    cause: 'cylinder_rich',
    sign: dry,
    shapes: ['one', 'some', 'neighbours', 'ends', 'partners'],
    urgency: 'before_return',
    next: [
      'Does it misfire? Swap its coil, lead or plug and see whether the fault moves.',
      'Injector that leaks; compression.',
    ],
    family: 'dark',
  },
  {
    cause: 'oil_everywhere',
    sign: any('nose black oily'),
    shapes: ['all', 'bank'],
    urgency: 'soon',
    next: ['Crankcase ventilation first.', 'Oil use over a measured distance, then leak-down.'],
    family: 'oil inside',
  },
  {
    cause: 'oil_inside',
    sign: any('nose black oily'),
    shapes: ['one', 'neighbours', 'ends', 'position', 'partners', 'some'],
    urgency: 'soon',
    next: ['Compression dry and wet, leak-down: rings or valve guides.', 'Crankcase ventilation.'],
    family: 'oil inside',
  },
  {
    cause: 'oil_outside',
    sign: without(any('insulator oily', 'oil in well'), 'nose black oily'),
    shapes: ANYWHERE,
    urgency: 'soon',
    next: ['Cam cover gasket and tube seal of these wells.', 'Clean wells and boots: oil swells a boot.'],
  },
  {
    cause: 'tracked',
    sign: any('carbon track', 'boot tracked'),
    shapes: ANYWHERE,
    urgency: 'before_return',
    next: [
      'Replace plug and boot together: one tracks the other again.',
      'Look at the coil’s tip and the well for moisture.',
    ],
  },
  {
    cause: 'water_in_well',
    sign: any('water in well', 'threads rusted'),
    shapes: ANYWHERE,
    urgency: 'soon',
    next: [
      'Dry the wells and find where water comes in: cover seal, drain, washing.',
      'Check boots and connectors for green.',
    ],
  },
  {
    cause: 'coolant_in_well',
    sign: any('coolant in well'),
    shapes: ANYWHERE,
    urgency: 'before_return',
    next: [
      'Dry the well before its plug moves: what stands there runs into the cylinder.',
      'Hoses, pipes and housings above it, then pressure on the cooling system.',
    ],
  },
  {
    cause: 'other_part',
    sign: ({ differs }) => (differs ? { words: 'its number is not the one on record', severity: 3 } : null),
    shapes: ANYWHERE,
    urgency: 'note',
    next: ['Correct the record by what was read.', 'Doubt the interval: nobody knows how long it has been in.'],
  },
  {
    cause: 'partner_polarity',
    sign: (site, reading) =>
      any('electrodes eroded')(site, reading) ?? wornOut(site, reading) ?? wearsFaster(site, reading),
    shapes: ['partners'],
    urgency: 'note',
    next: [
      'One of each pair fires from the ground electrode and wears more: nothing is wrong.',
      'Compare like with like at the next change.',
    ],
    family: 'wear',
  },
  {
    cause: 'gap_worn_out',
    sign: wornOut,
    shapes: ['all', 'bank', 'position', 'deactivated', 'ends', 'some', 'neighbours'],
    urgency: 'soon',
    next: ['They ran past what this gap allows: look at the interval, and at the coils that fired them.'],
    family: 'wear',
  },
  {
    cause: 'gap_worn_in_one',
    sign: wornOut,
    shapes: ['one'],
    urgency: 'soon',
    next: [
      'A hot or lean cylinder wears faster: compare its nose with the others.',
      'Was its gap right when it went in?',
    ],
    family: 'wear',
  },
  {
    cause: 'bank_wears_faster',
    sign: wearsFaster,
    shapes: ['bank'],
    urgency: 'soon',
    next: [
      'A hotter or leaner bank wears its gaps faster: fuel trims of both banks side by side.',
      'Intake gasket and vacuum lines of that bank; exhaust leak ahead of its sensor.',
    ],
    family: 'wear',
  },
  {
    cause: 'wears_faster',
    sign: wearsFaster,
    shapes: ['one', 'some', 'neighbours', 'ends', 'position', 'deactivated', 'partners'],
    urgency: 'note',
    next: ['Compare its nose and its coil with the others; measure it again at the next change.'],
    ambiguous: true,
    family: 'wear',
  },
  {
    cause: 'electrodes_worn',
    sign: any('electrodes eroded'),
    shapes: ANYWHERE,
    urgency: 'note',
    next: ['At the end of its life, or it ran hot: look at the interval and at its nose.'],
    family: 'wear',
  },
  {
    cause: 'ash',
    sign: any('ash'),
    shapes: ANYWHERE.filter((shape) => shape !== 'deactivated'),
    urgency: 'note',
    next: ['Oil or fuel additives; oil use.'],
  },
  {
    cause: 'glazed',
    sign: any('glazed'),
    shapes: ANYWHERE,
    urgency: 'soon',
    next: ['Misfire under load after long idling: ask how it is driven.'],
  },
  {
    cause: 'bridged',
    sign: any('bridged'),
    shapes: ANYWHERE,
    urgency: 'before_return',
    next: ['Deposits have come loose: borescope for more of them.'],
  },
  {
    cause: 'cracked',
    sign: any('insulator cracked'),
    shapes: ANYWHERE,
    urgency: 'before_return',
    next: [
      'Is every piece there? One that is missing lies in the cylinder: do not crank.',
      'A socket that tilts, a fall or knock cracks it.',
    ],
  },
  {
    cause: 'threads_hurt',
    sign: (site, reading) =>
      any('threads galled')(site, reading) ?? (site.breakaway === 'seized' ? { words: 'seized', severity: 2 } : null),
    shapes: ANYWHERE,
    urgency: 'before_return',
    next: ['Inspect the thread in the head before anything goes in.', 'Chase or insert: a supervisor decides.'],
  },
  {
    cause: 'wrong_gaskets',
    sign: any('gasket missing', 'gasket doubled'),
    shapes: ANYWHERE,
    urgency: 'before_return',
    next: [
      'Look for the gasket that is missing, or the second one, before a plug goes in.',
      'Seat depth and torque were wrong: look at the thread.',
    ],
  },
  {
    cause: 'debris',
    sign: any('debris in well'),
    shapes: ANYWHERE,
    urgency: 'note',
    next: ['Clean before the plug comes out; see where it comes from.'],
  },
  {
    cause: 'boot_spent',
    sign: any('boot swollen', 'boot torn'),
    shapes: ANYWHERE,
    urgency: 'before_return',
    next: ['Replace these boots; a swollen one has met oil.'],
  },
  {
    cause: 'connector_broken',
    sign: any('connector tab broken'),
    shapes: ANYWHERE,
    urgency: 'soon',
    next: ['Secure it so that it cannot shake loose, and order the housing.'],
  },
];
