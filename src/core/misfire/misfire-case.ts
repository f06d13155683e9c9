/* A misfire as it is told: the engine, what its codes and its driver say, what was found, and what was tried. */

export const CAUSES = [
  'coil',
  'plug',
  'boot',
  'lead',
  'pack',
  'rail',
  'cap',
  'rotor',
  'coil_lead',
  'injector',
  'mechanical',
  'wiring',
  'connector',
  'mixture_bank',
  'mixture_all',
  'fuel',
  'relearn',
  'crossed_leads',
  'crossed_connectors',
  'set',
] as const;
export type Cause = (typeof CAUSES)[number];

/** Parts that can be looked at, measured or replaced. On a coil over its plug a lead is called a boot. */
export const SUSPECT_PARTS = [
  'coil',
  'lead',
  'plug',
  'boot',
  'injector',
  'cap',
  'rotor',
  'coil_lead',
  'connector',
] as const;
export type SuspectPart = (typeof SUSPECT_PARTS)[number];

/** Parts that can be put into another cylinder. */
export const MOVABLE_PARTS = ['coil', 'lead', 'plug', 'boot', 'injector'] as const satisfies readonly SuspectPart[];
export type MovablePart = (typeof MOVABLE_PARTS)[number];

/** Parts that have a price of their own; a boot costs as a lead. */
export const PRICED_PARTS = ['coil', 'plug', 'lead', 'injector'] as const satisfies readonly SuspectPart[];
type PricedPart = (typeof PRICED_PARTS)[number];

/** When it misfires, and what goes with it, as a driver says it. */
export const SYMPTOMS = [
  'idle',
  'load',
  'cold',
  'hot',
  'after_a_while',
  'wet',
  'always',
  'rich_smell',
  'knocking',
] as const;
export type Symptom = (typeof SYMPTOMS)[number];

export const FOUND_WORDS = [
  'boot_tracked',
  'well_wet',
  'nose_sooty',
  'nose_white',
  'nose_wet',
  'insulator_cracked',
  'connector_loose',
] as const;
export type FoundWord = (typeof FOUND_WORDS)[number];

export const SWAP_OUTCOMES = ['moved', 'stayed', 'both', 'gone'] as const;
export type SwapOutcome = (typeof SWAP_OUTCOMES)[number];

export const TEST_KINDS = [
  'look',
  'resistance',
  'compression',
  'smoke',
  'fuel_pressure',
  'clear_and_drive',
  'replace',
] as const;
export type TestKind = (typeof TEST_KINDS)[number];

export const TEST_OUTCOMES = {
  look: ['found', 'not_found'],
  resistance: ['in_range', 'high', 'open'],
  compression: ['low', 'normal'],
  smoke: ['found', 'not_found'],
  fuel_pressure: ['normal', 'low'],
  clear_and_drive: ['back', 'cured'],
  replace: ['cured', 'not_cured'],
} as const satisfies Readonly<Record<TestKind, readonly string[]>>;
export type TestOutcome = (typeof TEST_OUTCOMES)[TestKind][number];

export interface Swap {
  readonly test: 'swap';
  readonly moved: readonly MovablePart[];
  readonly from: number;
  readonly to: number;
  /** The boots stayed on their plugs; as a rule a boot goes with the coil that it hangs on. */
  readonly bootsStayed?: boolean;
}

export interface OtherTest {
  readonly test: TestKind;
  /** Null: the place as a whole; of a replacement: nobody said what. */
  readonly component: SuspectPart | null;
  /** Null: the engine as a whole. */
  readonly cylinder: number | null;
}

export type MisfireTest = Swap | OtherTest;
/** A swap without an outcome moved parts, and nobody has seen yet what came of it; parts that are put back are one too. */
export type DoneTest =
  | (Swap & { readonly outcome: SwapOutcome | null })
  | (OtherTest & { readonly outcome: TestOutcome });

export interface MisfireEngine {
  /** Cylinders of each bank, in order along it. */
  readonly banks: readonly (readonly number[])[];
  readonly firingOrder: readonly number[];
  readonly ignition: 'coil_on_plug' | 'coil_per_cylinder' | 'coil_rail' | 'waste_spark' | 'distributor';
  readonly plugsPerCylinder: 1 | 2;
  /** Cylinders that it rests at part load. */
  readonly resting: readonly number[];
}

export const TOUCHED_PARTS = ['coil', 'plug', 'lead', 'boot', 'connector', 'battery'] as const;
export type TouchedPart = (typeof TOUCHED_PARTS)[number];

/** A figure or a sign at a place, at a moment: what sat there then follows from the swaps before it. */
interface AtPlace {
  readonly cylinder: number;
  /** How many of the tests had been done; 0 where absent. */
  readonly after?: number;
}
/** Misfires in 1,000 firings of the cylinder itself. */
export interface Count extends AtPlace {
  readonly per1000: number;
}
export interface Find extends AtPlace {
  readonly word: FoundWord;
}

export interface RecentWork {
  readonly kmAgo: number;
  readonly touched: readonly TouchedPart[];
  readonly cylinders: readonly number[];
  /** Its record has gaps outside their range, or another number than the sheet's. */
  readonly setInDoubt?: boolean;
}

/** What the record says of a part at one place, besides its age. */
interface PlaceRecord {
  readonly component: SuspectPart;
  readonly cylinder: number;
  /** Parts of this kind that failed in this cylinder before. */
  readonly failedHere: number;
  /** Others of its lot that failed, wherever they sat. */
  readonly lotFailed: number;
}

export interface MisfireCase {
  readonly engine: MisfireEngine;
  /** By SAE J2012: "P0302". */
  readonly codes: readonly string[];
  readonly counts: readonly Count[];
  readonly symptoms: readonly Symptom[];
  readonly lamp: 'off' | 'on' | 'flashing';
  readonly ages: readonly {
    readonly component: SuspectPart;
    readonly cylinder: number;
    /** Share of its limit. */
    readonly lifeUsed: number;
  }[];
  readonly recentWork: readonly RecentWork[];
  readonly record: readonly PlaceRecord[];
  /** What is known to go wrong with engines of this family. */
  readonly weak: readonly Cause[];
  /** Cylinders that somebody names in words: held against the codes, and no evidence. */
  readonly spoken: readonly number[];
  readonly found: readonly Find[];
  readonly testsDone: readonly DoneTest[];
  /** The removed parts of an open order say that the work stops. */
  readonly stoppedByFinding?: boolean;
  /** To get at a cylinder and close again, minutes, over the work itself; what is left out, or open already, takes none. */
  readonly opening: readonly { readonly cylinder: number; readonly minutes: number }[];
  /** Of each test or replacement, by its name; what is left out is as usual. */
  readonly minutes: Readonly<Partial<Record<string, number>>>;
  readonly prices: Readonly<Partial<Record<PricedPart, number>>>;
  readonly labourPerHour: number;
  readonly downtimePerHour: number;
}

/** One thing that may be wrong, with the cylinders that it stops. */
export interface Hypothesis {
  readonly cause: Cause;
  readonly cylinders: readonly number[];
}

/** To get at some cylinders and close again, minutes: those of a bank have one way. */
export function openingOf({ engine, opening }: MisfireCase, cylinders: readonly number[]): number {
  const each = (cylinder: number): number => opening.find((opened) => opened.cylinder === cylinder)?.minutes ?? 0;
  return engine.banks
    .map((bank) => Math.max(0, ...bank.filter((cylinder) => cylinders.includes(cylinder)).map(each)))
    .reduce((sum, minutes) => sum + minutes, 0);
}

export const cylindersOf = ({ banks }: Pick<MisfireEngine, 'banks'>): readonly number[] => banks.flat();

/** A part as this engine has it: a coil over its plug has a boot and no lead, and a lead's boot is one with it. */
export function partOn({ ignition }: Pick<MisfireEngine, 'ignition'>, part: SuspectPart): SuspectPart {
  const hasBoots = ignition === 'coil_on_plug' || ignition === 'coil_rail';
  if (part === 'lead' && hasBoots) return 'boot';
  return part === 'boot' && !hasBoots ? 'lead' : part;
}

/** A test that speaks of the parts that this engine has. */
export function testOn<T extends MisfireTest>(engine: MisfireEngine, test: T): T {
  if (test.test === 'swap')
    return { ...test, moved: [...new Set(test.moved.map((part) => partOn(engine, part) as MovablePart))] };
  return test.component === null ? test : { ...test, component: partOn(engine, test.component) };
}
