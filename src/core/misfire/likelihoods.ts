import type { Cause, FoundWord, SuspectPart, Symptom, TestKind, TestOutcome } from './misfire-case';

/*
 * How likely each cause makes what is seen, in one place. All figures are assumed: they order what the trade's guides say of
 * each cause (often, sometimes, hardly ever) and are not counted from a fleet. A fleet's own cases will replace them.
 */

/** How often a cause is the one, before anything is known, for one cylinder, bank or engine; relative. */
export const RATES: Readonly<Record<Cause, number>> = {
  coil: 25,
  plug: 22,
  boot: 12,
  lead: 12,
  pack: 20,
  rail: 20,
  cap: 10,
  rotor: 6,
  coil_lead: 4,
  injector: 11,
  mechanical: 4,
  wiring: 4,
  connector: 5,
  mixture_bank: 7,
  mixture_all: 7,
  fuel: 4,
  relearn: 1,
};

/** Leads or connectors of two cylinders that a visit put on crossed; of all pairs that it had off together, relative. */
export const CROSSED_RATE = 24;

/** Two at once come together about as often as by chance, and half of it is never told apart. */
export const TWO_AT_ONCE = 0.5;

/** A cylinder that a cause stops sets its code; another sets one by mistake. */
export const CODE_OF_STOPPED = 0.92;
export const CODE_OF_OTHER = 0.02;
/** A cause of a whole bank or engine sets the code of each of its cylinders so often. */
export const CODE_OF_BROAD = 0.3;
/** The code for a misfire at random, by how many cylinders are stopped. */
export const RANDOM_CODE = { one: 0.15, several: 0.55, broad: 0.75 } as const;

/** Share of the counted misfires that fall on the cylinders of a cause; the rest falls anywhere. */
export const COUNTS_ON_STOPPED = 0.85;
/** Counts weigh as so many single misfires: they come from the same drive, so they are not independent. */
export const COUNTS_WEIGH = 12;

/** Of a symptom, by cause; what is not named is `OTHER_SYMPTOM`. */
export const SYMPTOMS_OF: Readonly<Record<Symptom, Partial<Record<Cause, number>>>> = {
  idle: {
    injector: 0.6,
    mechanical: 0.65,
    mixture_bank: 0.6,
    mixture_all: 0.6,
    relearn: 0.7,
    plug: 0.35,
    fuel: 0.3,
    wiring: 0.4,
    connector: 0.4,
  },
  load: {
    coil: 0.6,
    plug: 0.6,
    boot: 0.55,
    lead: 0.55,
    pack: 0.6,
    rail: 0.6,
    coil_lead: 0.5,
    rotor: 0.45,
    cap: 0.45,
    fuel: 0.4,
    injector: 0.35,
  },
  cold: { mechanical: 0.4, mixture_bank: 0.4, mixture_all: 0.45, injector: 0.3, fuel: 0.35, coil: 0.2, plug: 0.3 },
  wet: {
    boot: 0.5,
    lead: 0.5,
    cap: 0.6,
    coil_lead: 0.5,
    rotor: 0.25,
    coil: 0.2,
    pack: 0.25,
    connector: 0.25,
    wiring: 0.2,
  },
  always: {
    coil: 0.35,
    plug: 0.25,
    mechanical: 0.5,
    wiring: 0.45,
    connector: 0.4,
    pack: 0.4,
    rail: 0.4,
    injector: 0.35,
    fuel: 0.45,
  },
};
export const OTHER_SYMPTOM = 0.12;
/** With two plugs a cylinder the other still fires: one bad plug stumbles under load, and seldom stops the cylinder. */
export const ONE_OF_TWO_PLUGS = { symptoms: { idle: 0.12, load: 0.75, cold: 0.2, always: 0.08 }, code: 0.6 } as const;

/** Of what was seen in a cylinder, when the cause is there; what is not named, and elsewhere, is its `BASE`. */
export const FOUND_OF: Readonly<Record<FoundWord, Partial<Record<Cause, number>>>> = {
  boot_tracked: { boot: 0.5, lead: 0.45, coil: 0.12, plug: 0.12, pack: 0.08, rail: 0.1 },
  well_wet: { boot: 0.35, lead: 0.3, coil: 0.15, rail: 0.15, connector: 0.1, pack: 0.06 },
  nose_sooty: {
    mixture_bank: 0.5,
    mixture_all: 0.5,
    injector: 0.25,
    plug: 0.2,
    coil: 0.15,
    boot: 0.15,
    lead: 0.15,
    pack: 0.15,
    rail: 0.15,
    mechanical: 0.2,
  },
  nose_white: { mixture_bank: 0.35, mixture_all: 0.3, injector: 0.25, fuel: 0.15, mechanical: 0.1 },
  nose_wet: {
    coil: 0.4,
    boot: 0.4,
    lead: 0.4,
    pack: 0.4,
    rail: 0.4,
    wiring: 0.5,
    connector: 0.45,
    plug: 0.45,
    injector: 0.2,
  },
  insulator_cracked: { plug: 0.3 },
  connector_loose: { connector: 0.8, wiring: 0.15 },
};
export const FOUND_BASE: Readonly<Record<FoundWord, number>> = {
  boot_tracked: 0.03,
  well_wet: 0.05,
  nose_sooty: 0.08,
  nose_white: 0.06,
  nose_wet: 0.06,
  insulator_cracked: 0.01,
  connector_loose: 0.03,
};

/** Codes of a coil's or an injector's circuit, when the cause is in that cylinder. */
export const CIRCUIT_OF: Readonly<Record<'coil' | 'injector', Partial<Record<Cause, number>>>> = {
  coil: { wiring: 0.6, connector: 0.55, coil: 0.3, pack: 0.3, rail: 0.25 },
  injector: { injector: 0.45, wiring: 0.35, connector: 0.05 },
};
export const CIRCUIT_BASE = 0.01;

/** A code for the mixture of a bank. Air that was not burnt reads lean, so a misfire of any kind may set it. */
export const TRIM = { mixture_bank: 0.7, mixture_all: 0.6, injector: 0.15, fuel: 0.15, other: 0.05 } as const;

type Outcomes = Readonly<Partial<Record<TestOutcome, number>>>;
interface TestTable {
  /** When the cause is this, in the cylinder that is tested. */
  readonly of: Readonly<Partial<Record<Cause, Outcomes>>>;
  readonly other: Outcomes;
}

const seen = (found: number): Outcomes => ({ found, not_found: 1 - found });
const ohms = (high: number, open: number): Outcomes => ({ in_range: 1 - high - open, high, open });

/** Of a look, by what is looked at; the whole place is looked at from above: connector, boot, well. */
const LOOKS: Readonly<Record<SuspectPart | 'place', TestTable>> = {
  place: {
    of: { connector: seen(0.9), wiring: seen(0.25), boot: seen(0.35), lead: seen(0.35), coil: seen(0.15) },
    other: seen(0.04),
  },
  coil: {
    of: { coil: seen(0.35), pack: seen(0.3), rail: seen(0.3), connector: seen(0.75), boot: seen(0.3) },
    other: seen(0.03),
  },
  lead: { of: { boot: seen(0.6), lead: seen(0.55) }, other: seen(0.04) },
  plug: { of: { plug: seen(0.6), injector: seen(0.15), mechanical: seen(0.2), boot: seen(0.2) }, other: seen(0.06) },
  injector: { of: { injector: seen(0.2), wiring: seen(0.1) }, other: seen(0.03) },
};
const RESISTANCES: Readonly<Record<SuspectPart, TestTable>> = {
  coil: { of: { coil: ohms(0.25, 0.15), pack: ohms(0.25, 0.2), rail: ohms(0.25, 0.15) }, other: ohms(0.02, 0.01) },
  lead: { of: { lead: ohms(0.3, 0.4), boot: ohms(0.2, 0.15) }, other: ohms(0.03, 0.01) },
  plug: { of: { plug: ohms(0.1, 0.1) }, other: ohms(0.02, 0.01) },
  injector: { of: { injector: ohms(0.25, 0.2) }, other: ohms(0.02, 0.01) },
};
const COMPRESSION: TestTable = { of: { mechanical: { low: 0.9, normal: 0.1 } }, other: { low: 0.03, normal: 0.97 } };
const SMOKE: TestTable = { of: { mixture_bank: seen(0.75), mixture_all: seen(0.4) }, other: seen(0.05) };
const DRIVE: TestTable = {
  of: {
    relearn: { back: 0.15, cured: 0.85 },
    connector: { back: 0.7, cured: 0.3 },
    fuel: { back: 0.75, cured: 0.25 },
  },
  other: { back: 0.93, cured: 0.07 },
};

/** The table of a test that is not a swap or a replacement. */
export function tableOf(test: Exclude<TestKind, 'replace'>, component: SuspectPart | null): TestTable {
  switch (test) {
    case 'look':
      return LOOKS[component ?? 'place'];
    case 'resistance':
      return RESISTANCES[component ?? 'coil'];
    case 'compression':
      return COMPRESSION;
    case 'smoke':
      return SMOKE;
    case 'clear_and_drive':
      return DRIVE;
  }
}

/** A replacement cures what it replaces; now and then something else, by what was taken off and put on again. */
export const CURED = { right: 0.97, disturbed: 0.2, other: 0.03 } as const;

/** After a swap: how sure its outcome is where one cause alone is there. */
export const SWAP = {
  /** The part is bad: the misfire goes with it. */
  moved: { moved: 0.92, stayed: 0.03, both: 0.02, gone: 0.03 },
  /** Something that stayed is bad. */
  stayed: { moved: 0.03, stayed: 0.9, both: 0.02, gone: 0.05 },
  /** A connector that was taken off and pressed on. */
  disturbed: { moved: 0.05, stayed: 0.35, both: 0.02, gone: 0.58 },
  /** One of two causes goes with the parts, the other stays. */
  split: { moved: 0.1, stayed: 0.1, both: 0.77, gone: 0.03 },
  /** A cause of a whole bank or engine. */
  broad: { moved: 0.05, stayed: 0.6, both: 0.25, gone: 0.1 },
} as const;
