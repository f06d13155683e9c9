/**
 * What a removed plug, its boot, its well and its connector can show, by region. Several may hold at once; what is normal
 * has its own words, so that "nothing found" differs from "not looked at".
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
  boot: ['boot sound', 'boot swollen', 'boot torn', 'boot tracked'],
  connector: ['connector locks', 'connector tab broken'],
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
export const NORMAL: ReadonlySet<string> = new Set<Condition>([...ALL_NORMAL, 'nose grey', 'electrodes rounded']);

/** How the plug came loose, where no torque was measured. `unknown` differs from `normal`. */
export const BREAKAWAY_FEELS = ['loose', 'normal', 'tight', 'seized', 'unknown'] as const;
export type BreakawayFeel = (typeof BREAKAWAY_FEELS)[number];

export const TORQUE_METHODS = ['wrench', 'angle', 'feel'] as const;
export type TorqueMethod = (typeof TORQUE_METHODS)[number];
