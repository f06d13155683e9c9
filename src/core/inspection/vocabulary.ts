import type { Ignition } from '../engine/model';
import type { Component } from '../engine/quantities';

/**
 * What a removed plug, what stands above it, and the distributor can show, by region. Several may hold at once; what is
 * normal has its own words, so that "nothing found" differs from "not looked at".
 */
export const CONDITIONS = {
  nose: [
    'nose tan',
    'nose grey',
    'nose white',
    'nose blistered',
    'nose black dry',
    'nose black oily',
    'nose coloured trace',
    'nose washed clean',
    'nose cracked',
  ],
  deposits: ['no deposits', 'ash', 'glazed', 'bridged'],
  electrodes: [
    'electrodes sharp',
    'electrodes rounded',
    'electrodes eroded',
    'electrodes melted',
    'electrodes peppered',
  ],
  shell: ['threads clean', 'threads rusted', 'threads galled', 'seat sooted'],
  gasket: ['gasket present', 'gasket missing', 'gasket doubled'],
  insulator: ['insulator clean', 'insulator oily', 'carbon track', 'insulator cracked'],
  well: ['well dry', 'oil in well', 'water in well', 'coolant in well', 'debris in well'],
  boot: ['boot sound', 'boot swollen', 'boot torn', 'boot tracked', 'boot spring corroded', 'boot left on the plug'],
  connector: ['connector locks', 'second lock home', 'connector tab broken', 'connector pins corroded'],
  coil: [
    'coil sound',
    'coil body cracked',
    'coil swollen',
    'coil melted',
    'coil tower tracked',
    'coil terminal corroded',
    'coil oily',
    'coil stuck in the well',
  ],
  lead: [
    'lead sound',
    'lead burnt',
    'lead chafed',
    'lead boot torn',
    'lead tracked',
    'lead terminal loose',
    'lead of another cylinder',
  ],
  cap: [
    'cap sound',
    'cap cracked',
    'cap tracked',
    'cap terminals burnt',
    'cap terminals oxidised',
    'cap wet inside',
    'cap centre button worn',
  ],
  rotor: ['rotor sound', 'rotor tip burnt', 'rotor cracked', 'rotor worn', 'rotor corroded'],
  seal: ['seal dry', 'seal weeping', 'seal hard'],
} as const;

export type ConditionRegion = keyof typeof CONDITIONS;
export type Condition = (typeof CONDITIONS)[ConditionRegion][number];
export const ALL_CONDITIONS: readonly Condition[] = Object.values(CONDITIONS).flat();
export const isCondition = (word: string): word is Condition => (ALL_CONDITIONS as readonly string[]).includes(word);

/** One word a region for what is as it should be. */
export const ALL_NORMAL: readonly Condition[] = [
  'nose tan',
  'no deposits',
  'electrodes sharp',
  'threads clean',
  'gasket present',
  'insulator clean',
  'well dry',
  'boot sound',
  'connector locks',
];

/** Words that say that a region is as it should be. A rounded electrode is wear, which its gap tells better. */
export const NORMAL: ReadonlySet<string> = new Set<Condition>([
  ...ALL_NORMAL,
  'nose grey',
  'electrodes rounded',
  'second lock home',
  'coil sound',
  'lead sound',
  'cap sound',
  'rotor sound',
  'seal dry',
]);

/** What is looked at of a component where it is worked on, besides the coil or lead above a plug. */
export const REGIONS_OF: Readonly<Record<Exclude<Component, 'consumable'>, readonly ConditionRegion[]>> = {
  plug: ['nose', 'deposits', 'electrodes', 'shell', 'gasket', 'insulator', 'well', 'boot', 'connector'],
  coil: ['coil', 'boot', 'connector', 'well'],
  rail: ['coil', 'boot', 'connector', 'well'],
  boot: ['boot', 'well'],
  lead: ['lead'],
  lead_set: ['lead'],
  cap: ['cap'],
  rotor: ['rotor'],
  seal: ['seal', 'well'],
};

/** What stands above the plugs of an engine of this ignition. */
export const aboveThePlug = (ignition: Ignition): 'coil' | 'lead' =>
  ignition === 'coil_on_plug' || ignition === 'coil_rail' ? 'coil' : 'lead';

/** How the plug came loose, where no torque was measured. `unknown` differs from `normal`. */
export const BREAKAWAY_FEELS = ['loose', 'normal', 'tight', 'seized', 'unknown'] as const;
export type BreakawayFeel = (typeof BREAKAWAY_FEELS)[number];

export const TORQUE_METHODS = ['wrench', 'angle', 'feel'] as const;
export type TorqueMethod = (typeof TORQUE_METHODS)[number];
