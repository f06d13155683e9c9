import { type Layout, neighbours } from '../src/core/engine/layout';
import type { SiteKey } from '../src/core/engine/model';
import type { Cause } from '../src/core/inspection/finding';
import type { Condition } from '../src/core/inspection/vocabulary';
import type { Random } from '../src/core/stats/seeded';

/* What each fault does to an engine: where it acts, and what it leaves there. Written from that alone, not from the rules that
   read it: the two must not share a line. */

/** A sign a fault leaves on a plug, and how often. */
export type Leaves = readonly (readonly [Condition, number])[];

export interface Fault {
  readonly cause: Cause;
  readonly weight: number;
  /** Sites it acts on; null: this engine cannot have it. */
  readonly acts: (layout: Layout, rests: readonly number[], random: Random) => readonly SiteKey[] | null;
  /** One of these at least. */
  readonly leaves: Leaves;
  readonly beside?: Leaves;
  readonly gap?: (random: Random) => number;
  readonly growsMm?: number;
  readonly loose?: true;
  readonly differs?: true;
}

export const pick = <T>(items: readonly T[], random: Random): T => items[Math.floor(random() * items.length)] as T;
const everywhere: Fault['acts'] = ({ sites }) => sites;
const oneCylinder: Fault['acts'] = ({ sites }, _, random) => {
  const { cylinder } = pick(sites, random);
  return sites.filter((site) => site.cylinder === cylinder);
};
/** What makes one knock is seldom its own: the fuel, the timing, the heat of the day. */
const oneOrTwo: Fault['acts'] = (layout, rests, random) => [
  ...(oneCylinder(layout, rests, random) ?? []),
  ...(random() < 0.5 ? (oneCylinder(layout, rests, random) ?? []) : []),
];
const oneSite: Fault['acts'] = ({ sites }, _, random) => [pick(sites, random)];
const oneBank: Fault['acts'] = ({ model, sites }, _, random) => {
  if (model.banks.length < 2) return null;
  const { cylinders } = pick(model.banks, random);
  return sites.filter(({ cylinder }) => cylinders.includes(cylinder));
};
/** Where a bank is one end of each pair its gaps grow apart by polarity alone: nobody could call the bank the cause. */
const oneBankOfItself: Fault['acts'] = (layout, rests, random) =>
  layout.model.ignition === 'waste_spark' ? null : oneBank(layout, rests, random);
const besideEachOther: Fault['acts'] = (layout, _, random) => {
  const { cylinder } = pick(layout.sites, random);
  const beside = pick(neighbours(layout, cylinder), random);
  return layout.sites.filter((site) => site.cylinder === cylinder || site.cylinder === beside);
};
const rowEnds: Fault['acts'] = ({ model, sites }) => {
  const ends = model.banks.flatMap(({ cylinders: row }) => [row[0], row.at(-1)]);
  return model.banks.every(({ cylinders }) => cylinders.length > 2)
    ? sites.filter(({ cylinder }) => ends.includes(cylinder))
    : null;
};
const resting: Fault['acts'] = ({ sites }, rests) =>
  rests.length > 0 ? sites.filter(({ cylinder }) => rests.includes(cylinder)) : null;
const oneRow: Fault['acts'] = ({ model, sites }, _, random) => {
  if (model.plugsPerCylinder === 1) return null;
  const row = pick(['A', 'B'] as const, random);
  return sites.filter(({ position }) => position === row);
};
/** The same end of each pair, as the coils are wound alike; in a V they may lie in one bank. */
const negative: Fault['acts'] = ({ model, sites }) =>
  model.ignition === 'waste_spark'
    ? sites.filter(({ cylinder }) => model.coils.some(({ fires }) => fires[0]?.cylinder === cylinder))
    : null;

export const FAULTS: readonly Fault[] = [
  { cause: 'rich_or_weak_spark', weight: 6, acts: everywhere, leaves: [['nose black dry', 1]] },
  { cause: 'bank_rich', weight: 4, acts: oneBank, leaves: [['nose black dry', 1]] },
  { cause: 'cylinder_rich', weight: 5, acts: oneCylinder, leaves: [['nose black dry', 1]] },
  {
    cause: 'lean_or_hot',
    weight: 4,
    acts: everywhere,
    leaves: [
      ['nose white', 0.9],
      ['nose blistered', 0.4],
    ],
  },
  {
    cause: 'bank_lean',
    weight: 3,
    acts: oneBank,
    leaves: [
      ['nose white', 0.9],
      ['nose blistered', 0.4],
    ],
  },
  {
    cause: 'cylinder_hot',
    weight: 4,
    acts: oneCylinder,
    leaves: [
      ['nose white', 0.8],
      ['nose blistered', 0.5],
    ],
  },
  { cause: 'runner_leak', weight: 2, acts: rowEnds, leaves: [['nose white', 1]] },
  { cause: 'oil_inside', weight: 6, acts: oneCylinder, leaves: [['nose black oily', 1]], beside: [['ash', 0.2]] },
  { cause: 'oil_everywhere', weight: 3, acts: everywhere, leaves: [['nose black oily', 1]] },
  {
    cause: 'oil_outside',
    weight: 6,
    acts: oneCylinder,
    leaves: [
      ['oil in well', 0.8],
      ['insulator oily', 0.8],
    ],
  },
  {
    cause: 'coolant_between',
    weight: 3,
    acts: besideEachOther,
    leaves: [
      ['nose coloured trace', 0.8],
      ['nose washed clean', 0.7],
    ],
  },
  {
    cause: 'coolant_in_one',
    weight: 3,
    acts: oneCylinder,
    leaves: [
      ['nose coloured trace', 0.7],
      ['nose washed clean', 0.6],
    ],
  },
  { cause: 'coloured_by_fuel', weight: 1, acts: everywhere, leaves: [['nose coloured trace', 1]] },
  { cause: 'washed_alike', weight: 1, acts: everywhere, leaves: [['nose washed clean', 1]] },
  {
    cause: 'detonation',
    weight: 4,
    acts: oneOrTwo,
    leaves: [
      ['electrodes peppered', 0.9],
      ['electrodes melted', 0.6],
    ],
    beside: [['nose white', 0.4]],
  },
  {
    cause: 'loose_plug',
    weight: 4,
    acts: oneSite,
    leaves: [],
    beside: [
      ['seat sooted', 0.7],
      ['nose white', 0.4],
    ],
    loose: true,
  },
  { cause: 'seat_leaked', weight: 3, acts: oneSite, leaves: [['seat sooted', 1]] },
  {
    cause: 'tracked',
    weight: 5,
    acts: oneSite,
    leaves: [
      ['carbon track', 0.9],
      ['boot tracked', 0.7],
    ],
  },
  {
    cause: 'water_in_well',
    weight: 4,
    acts: oneCylinder,
    leaves: [
      ['water in well', 0.8],
      ['threads rusted', 0.8],
    ],
  },
  { cause: 'coolant_in_well', weight: 2, acts: oneCylinder, leaves: [['coolant in well', 1]] },
  {
    cause: 'gap_worn_out',
    weight: 5,
    acts: everywhere,
    leaves: [],
    beside: [['electrodes eroded', 0.6]],
    gap: (r) => 1.45 + 0.4 * r(),
  },
  {
    cause: 'gap_worn_in_one',
    weight: 4,
    acts: oneCylinder,
    leaves: [],
    beside: [['electrodes eroded', 0.6]],
    gap: (r) => 1.45 + 0.4 * r(),
  },
  { cause: 'bank_wears_faster', weight: 3, acts: oneBankOfItself, leaves: [], growsMm: 0.2 },
  { cause: 'wears_faster', weight: 3, acts: oneCylinder, leaves: [], growsMm: 0.2 },
  { cause: 'partner_polarity', weight: 4, acts: negative, leaves: [], growsMm: 0.16 },
  { cause: 'electrodes_worn', weight: 3, acts: everywhere, leaves: [['electrodes eroded', 1]] },
  { cause: 'other_part', weight: 3, acts: oneSite, leaves: [], differs: true },
  {
    cause: 'rests_at_part_load',
    weight: 12,
    acts: resting,
    leaves: [
      ['nose black dry', 0.6],
      ['nose black oily', 0.5],
      ['ash', 0.3],
    ],
  },
  { cause: 'one_position_weak', weight: 10, acts: oneRow, leaves: [['nose black dry', 1]] },
  { cause: 'ash', weight: 3, acts: everywhere, leaves: [['ash', 1]] },
  { cause: 'glazed', weight: 3, acts: everywhere, leaves: [['glazed', 1]] },
  { cause: 'bridged', weight: 2, acts: oneSite, leaves: [['bridged', 1]] },
  { cause: 'cracked', weight: 3, acts: oneSite, leaves: [['insulator cracked', 1]] },
  { cause: 'threads_hurt', weight: 3, acts: oneSite, leaves: [['threads galled', 1]] },
  { cause: 'wrong_gaskets', weight: 2, acts: oneSite, leaves: [['gasket missing', 1]] },
  { cause: 'debris', weight: 3, acts: everywhere, leaves: [['debris in well', 0.8]] },
  {
    cause: 'boot_spent',
    weight: 3,
    acts: oneSite,
    leaves: [
      ['boot swollen', 0.7],
      ['boot torn', 0.5],
    ],
  },
  { cause: 'connector_broken', weight: 3, acts: oneSite, leaves: [['connector tab broken', 1]] },
];
