/** What a removed plug can show, by region. Several may hold at once; "healthy" is recorded too. */
export const CONDITIONS = {
  nose: [
    'nose tan',
    'nose grey',
    'nose white',
    'nose blistered',
    'nose black dry',
    'nose black oily',
    'nose coloured trace',
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
  insulator: ['insulator oily', 'carbon track', 'insulator cracked'],
  well: ['oil in well', 'water in well', 'coolant in well', 'debris in well'],
} as const;

export type ConditionRegion = keyof typeof CONDITIONS;
export const ALL_CONDITIONS: readonly string[] = Object.values(CONDITIONS).flat();

/** How the plug came loose, where no torque was measured. `unknown` differs from `normal`. */
export const BREAKAWAY_FEELS = ['loose', 'normal', 'tight', 'seized', 'unknown'] as const;

export const TORQUE_METHODS = ['wrench', 'angle', 'feel'] as const;
