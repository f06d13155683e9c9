import type { Cause, FoundWord, SuspectPart, Symptom, TestKind, TestOutcome, TouchedPart } from './misfire-case';

/*
 * How likely each cause makes what is seen, in one place. All figures are assumed: they order what the trade's guides say of
 * each cause (often, sometimes, hardly ever) and are not counted from a fleet. A fleet's own cases will replace them.
 */

/** How often a cause is the one, before anything is known, for one cylinder, bank or engine; relative. */
export const RATES: Readonly<Record<Cause, number>> = {
  coil: 22,
  plug: 20,
  boot: 14,
  lead: 14,
  pack: 20,
  rail: 18,
  cap: 6,
  rotor: 12,
  coil_lead: 10,
  injector: 11,
  mechanical: 7,
  wiring: 6,
  connector: 5,
  mixture_bank: 8,
  mixture_all: 8,
  fuel: 10,
  relearn: 1,
  // Only a visit makes these: see `OF_THE_VISIT`.
  crossed_leads: 0,
  crossed_connectors: 0,
  set: 0,
};

/** Share of the suspicion that a visit has to itself right after it; it fades over `VISIT_KM`. Source: general trade guidance. */
export const VISIT_SHARE = 0.65;
/** Most misfires within so many km of a visit come from the visit. */
export const VISIT_KM = 500;
/** What a visit does to a place that it touched, relative to each other, by what came off. Of pairs and sets: of all together. */
export const OF_THE_VISIT: Readonly<Partial<Record<Cause, Readonly<Partial<Record<TouchedPart, number>>>>>> = {
  connector: { connector: 6, coil: 5, plug: 4, boot: 3 },
  wiring: { connector: 0.8, coil: 0.5 },
  lead: { lead: 4, plug: 3 },
  boot: { boot: 4, lead: 3, plug: 2.5, coil: 2 },
  plug: { plug: 3 },
  coil: { coil: 1.5, plug: 0.5 },
  rail: { coil: 1.5 },
  pack: { coil: 1.5 },
  injector: { connector: 0.4 },
  crossed_leads: { lead: 2.5, plug: 1.5 },
  crossed_connectors: { connector: 1.2, coil: 0.8 },
  set: { plug: 1.2 },
  relearn: { battery: 12 },
};

/** Two at once come together about as often as by chance, and half of it is never told apart. */
export const TWO_AT_ONCE = 0.4;

/** A cylinder that a cause stops sets its code; another sets one by mistake. */
export const CODE_OF_STOPPED = 0.9;
export const CODE_OF_OTHER = 0.025;
/** The code for a misfire at random beside one stopped cylinder, and beside two. */
export const RANDOM_CODE = { one: 0.15, several: 0.5 } as const;
/**
 * A cause of a bank or of the engine: codes are what the computer noticed. It names nobody, some of the cylinders, or nearly all;
 * how often, how likely the random code is then, and each of the cylinders.
 */
export const SHARED_CODES = [
  { share: 0.45, random: 0.92, each: 0.06 },
  { share: 0.4, random: 0.75, each: 0.35 },
  { share: 0.15, random: 0.6, each: 0.8 },
] as const;

/** Share of the counted misfires that fall on the cylinders of a cause; the rest falls anywhere. */
export const COUNTS_ON_STOPPED = 0.88;
/** Counts weigh as so many single misfires: they come from the same drive, so they are not independent. */
export const COUNTS_WEIGH = 8;

/** Of a symptom, by cause; what is not named is `OTHER_SYMPTOM`. */
export const SYMPTOMS_OF: Readonly<Record<Symptom, Partial<Record<Cause, number>>>> = {
  idle: {
    injector: 0.55,
    mechanical: 0.6,
    mixture_bank: 0.6,
    mixture_all: 0.6,
    relearn: 0.7,
    plug: 0.3,
    set: 0.3,
    fuel: 0.25,
    wiring: 0.35,
    connector: 0.35,
    cap: 0.25,
    coil: 0.2,
    crossed_leads: 0.4,
    crossed_connectors: 0.4,
  },
  load: {
    coil: 0.55,
    plug: 0.55,
    set: 0.6,
    boot: 0.5,
    lead: 0.5,
    pack: 0.55,
    rail: 0.55,
    coil_lead: 0.5,
    rotor: 0.45,
    cap: 0.4,
    fuel: 0.5,
    injector: 0.35,
    mixture_all: 0.25,
    mixture_bank: 0.2,
    crossed_leads: 0.4,
    crossed_connectors: 0.4,
  },
  cold: { mechanical: 0.4, mixture_bank: 0.35, mixture_all: 0.4, injector: 0.3, fuel: 0.25, plug: 0.3, set: 0.3 },
  hot: { coil: 0.4, pack: 0.4, rail: 0.4, wiring: 0.3, injector: 0.2, fuel: 0.25, rotor: 0.2, connector: 0.2 },
  after_a_while: { coil: 0.4, pack: 0.4, rail: 0.4, fuel: 0.3, wiring: 0.25, connector: 0.2, rotor: 0.2 },
  wet: {
    boot: 0.5,
    lead: 0.5,
    cap: 0.55,
    coil_lead: 0.45,
    rotor: 0.25,
    coil: 0.2,
    pack: 0.2,
    rail: 0.2,
    connector: 0.25,
    wiring: 0.2,
  },
  always: {
    crossed_leads: 0.75,
    crossed_connectors: 0.75,
    coil: 0.25,
    plug: 0.2,
    set: 0.3,
    mechanical: 0.5,
    wiring: 0.45,
    connector: 0.4,
    pack: 0.3,
    rail: 0.3,
    injector: 0.3,
    fuel: 0.35,
    rotor: 0.3,
    coil_lead: 0.25,
  },
  rich_smell: { mixture_all: 0.4, mixture_bank: 0.35, injector: 0.35, coil: 0.2, wiring: 0.2, crossed_leads: 0.25 },
  knocking: { fuel: 0.35, mixture_bank: 0.25, mixture_all: 0.25, mechanical: 0.2, set: 0.2, crossed_leads: 0.2 },
};
/** A symptom is named so often where nothing of the cause speaks for it. */
export const OTHER_SYMPTOM = 0.1;
/** Causes that are always there are not named by when they are. */
export const NEVER_ONLY: readonly Cause[] = ['crossed_leads', 'crossed_connectors'];
export const ONLY_SOMETIMES = 0.03;
/** With two plugs a cylinder the other still fires: one bad plug stumbles under load, and seldom stops the cylinder. */
export const ONE_OF_TWO_PLUGS = { symptoms: { idle: 0.12, load: 0.75, cold: 0.2, always: 0.08 }, code: 0.6 } as const;

/** Of what was seen in a cylinder, when the cause is there; what is not named, and elsewhere, is its `BASE`. */
export const FOUND_OF: Readonly<Record<FoundWord, Partial<Record<Cause, number>>>> = {
  boot_tracked: { boot: 0.5, lead: 0.45, coil: 0.1, plug: 0.12, pack: 0.08, rail: 0.08 },
  well_wet: { boot: 0.35, lead: 0.3, coil: 0.12, rail: 0.12, connector: 0.1, pack: 0.06 },
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
  nose_white: { mixture_bank: 0.35, mixture_all: 0.3, injector: 0.25, fuel: 0.2, mechanical: 0.1 },
  nose_wet: {
    coil: 0.4,
    boot: 0.4,
    lead: 0.4,
    pack: 0.4,
    rail: 0.4,
    wiring: 0.45,
    connector: 0.45,
    plug: 0.4,
    injector: 0.2,
    mechanical: 0.2,
    crossed_leads: 0.4,
    crossed_connectors: 0.4,
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
  coil: { wiring: 0.5, connector: 0.5, coil: 0.25, pack: 0.25, rail: 0.2, crossed_connectors: 0.1 },
  injector: { injector: 0.45, wiring: 0.35, connector: 0.05 },
};
export const CIRCUIT_BASE = 0.01;

/** A code for the mixture of a bank. Air that was not burnt reads lean, so a misfire of any kind may set it. */
export const TRIM = { mixture_bank: 0.7, mixture_all: 0.6, injector: 0.15, fuel: 0.3, other: 0.05 } as const;

type Outcomes = Readonly<Partial<Record<TestOutcome, number>>>;
interface TestTable {
  /** When the cause is this, in the cylinder that is tested. */
  readonly byCause: Readonly<Partial<Record<Cause, Outcomes>>>;
  readonly other: Outcomes;
}

const seen = (chance: number): Outcomes => ({ found: chance, not_found: 1 - chance });
const ohms = (high: number, open: number): Outcomes => ({ in_range: 1 - high - open, high, open });
const pressure = (low: number): Outcomes => ({ low, normal: 1 - low });

/** Of a look, by what is looked at; the whole place is looked at from above: connector, boot, well, where each lead goes. */
const LOOKS: Readonly<Record<SuspectPart | 'place', TestTable>> = {
  place: {
    byCause: {
      connector: seen(0.85),
      wiring: seen(0.25),
      boot: seen(0.35),
      lead: seen(0.35),
      coil: seen(0.12),
      crossed_leads: seen(0.75),
      crossed_connectors: seen(0.55),
    },
    other: seen(0.04),
  },
  coil: {
    byCause: { coil: seen(0.3), pack: seen(0.3), rail: seen(0.3), connector: seen(0.6), boot: seen(0.5) },
    other: seen(0.03),
  },
  lead: { byCause: { lead: seen(0.6), crossed_leads: seen(0.6) }, other: seen(0.04) },
  boot: { byCause: { boot: seen(0.65), coil: seen(0.08), plug: seen(0.1) }, other: seen(0.04) },
  plug: {
    byCause: { plug: seen(0.6), set: seen(0.7), injector: seen(0.15), mechanical: seen(0.2), boot: seen(0.2) },
    other: seen(0.06),
  },
  injector: { byCause: { injector: seen(0.2), wiring: seen(0.1) }, other: seen(0.03) },
  cap: { byCause: { cap: seen(0.75), rotor: seen(0.08) }, other: seen(0.04) },
  rotor: { byCause: { rotor: seen(0.7), cap: seen(0.08) }, other: seen(0.04) },
  coil_lead: { byCause: { coil_lead: seen(0.6) }, other: seen(0.03) },
  connector: {
    byCause: { connector: seen(0.88), wiring: seen(0.25), crossed_connectors: seen(0.5) },
    other: seen(0.03),
  },
};
const NO_OHMS: TestTable = { byCause: {}, other: ohms(0.02, 0.01) };
const RESISTANCES: Readonly<Record<SuspectPart, TestTable>> = {
  coil: { byCause: { coil: ohms(0.25, 0.15), pack: ohms(0.25, 0.2), rail: ohms(0.25, 0.15) }, other: ohms(0.02, 0.01) },
  lead: { byCause: { lead: ohms(0.3, 0.35) }, other: ohms(0.03, 0.01) },
  boot: { byCause: { boot: ohms(0.2, 0.15) }, other: ohms(0.03, 0.01) },
  plug: { byCause: { plug: ohms(0.1, 0.1) }, other: ohms(0.02, 0.01) },
  injector: { byCause: { injector: ohms(0.25, 0.2) }, other: ohms(0.02, 0.01) },
  rotor: { byCause: { rotor: ohms(0.25, 0.25) }, other: ohms(0.02, 0.01) },
  coil_lead: { byCause: { coil_lead: ohms(0.3, 0.35) }, other: ohms(0.03, 0.01) },
  cap: NO_OHMS,
  connector: { byCause: { connector: ohms(0.1, 0.2), wiring: ohms(0.1, 0.25) }, other: ohms(0.02, 0.01) },
};
/** One low cylinder beside normal ones is falsely low at most once in 200. */
const COMPRESSION: TestTable = { byCause: { mechanical: pressure(0.88) }, other: pressure(0.005) };
const SMOKE: TestTable = { byCause: { mixture_bank: seen(0.75), mixture_all: seen(0.45) }, other: seen(0.04) };
const FUEL_PRESSURE: TestTable = {
  byCause: { fuel: pressure(0.75), mixture_all: pressure(0.08) },
  other: pressure(0.03),
};
const DRIVE: TestTable = {
  byCause: {
    relearn: { back: 0.15, cured: 0.85 },
    connector: { back: 0.8, cured: 0.2 },
    fuel: { back: 0.85, cured: 0.15 },
  },
  other: { back: 0.94, cured: 0.06 },
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
    case 'fuel_pressure':
      return FUEL_PRESSURE;
    case 'clear_and_drive':
      return DRIVE;
  }
}

/** A replacement cures what it replaces; now and then something else, by what was taken off and put on again. */
export const CURED = { right: 0.97, disturbed: 0.2, other: 0.03 } as const;

/** A boot goes with the coil that it hangs on, unless somebody says that it stayed. */
export const BOOT_GOES = 0.9;
/** After a swap, "the coil of 2" may be the one that came from 2 or the one that sits there now. */
export const MEANT_HOME = 0.6;

/** After a swap: how sure its outcome is where one cause alone is there. */
export const SWAP = {
  /** The part is bad: the misfire goes with it. */
  moved: { moved: 0.92, stayed: 0.04, both: 0.01, gone: 0.03 },
  /** Something that stayed is bad. */
  stayed: { moved: 0.04, stayed: 0.9, both: 0.01, gone: 0.05 },
  /** A connector that was taken off and pressed on. */
  disturbed: { moved: 0.05, stayed: 0.4, both: 0.02, gone: 0.53 },
  /** One of two causes goes with the parts, the other stays. */
  split: { moved: 0.1, stayed: 0.1, both: 0.77, gone: 0.03 },
  /** A cause of a whole bank or engine. */
  broad: { moved: 0.06, stayed: 0.68, both: 0.18, gone: 0.08 },
} as const;
