export const ARRANGEMENTS = ['inline', 'v', 'flat'] as const;
type Arrangement = (typeof ARRANGEMENTS)[number];

export const MOUNTINGS = ['longitudinal', 'transverse'] as const;
export type Mounting = (typeof MOUNTINGS)[number];

export const IGNITIONS = ['coil_on_plug', 'coil_per_cylinder', 'coil_rail', 'waste_spark', 'distributor'] as const;
export type Ignition = (typeof IGNITIONS)[number];

export const INDUCTIONS = ['natural', 'turbo', 'supercharged'] as const;

export const POSITIONS = ['A', 'B'] as const;
type Position = (typeof POSITIONS)[number];

/** Where a bank stands, as seen by a person in front of the vehicle, looking down at the engine. */
export const BANK_PLACES = ['only', 'left', 'right', 'front', 'rear'] as const;
export type BankPlace = (typeof BANK_PLACES)[number];

export interface Bank {
  readonly place: BankPlace;
  /** Cylinder numbers, from the viewer's left (transverse) or from the front of the vehicle (longitudinal). */
  readonly cylinders: readonly number[];
}

/** A coil and the plug sites it fires. */
export interface Coil {
  /** What the drawing and a person call it: "2", "rail", "1+4". */
  readonly name: string;
  readonly fires: readonly SiteKey[];
  /** Which of its terminals serves which plug, in the order of `fires`: upper, lower. Absent where nobody has said. */
  readonly terminals?: readonly string[];
}

export const ROTATIONS = ['clockwise', 'counterclockwise'] as const;
export type Rotation = (typeof ROTATIONS)[number];

/** Seen from above; towers count clockwise from 1. */
export interface Distributor {
  readonly rotation: Rotation;
  readonly towerOfCylinder1: number;
}

export interface EngineModel {
  readonly arrangement: Arrangement;
  readonly mounting: Mounting;
  readonly ignition: Ignition;
  readonly plugsPerCylinder: 1 | 2;
  /** Bank 1 first: the one that holds cylinder 1. */
  readonly banks: readonly Bank[];
  readonly firingOrder: readonly number[];
  /**
   * Two plugs a cylinder: the holes of each bank in the order in which they lie along the head, where those of a cylinder are
   * not beside one another across it.
   */
  readonly holes?: readonly (readonly SiteKey[])[] | null;
  /** One strip holds the connectors of all coils of a bank and comes off first. */
  readonly connectorRail?: boolean;
  /** Every plug site is fired by exactly one of them. */
  readonly coils: readonly Coil[];
  readonly distributor: Distributor | null;
}

/** A plug site: never "plug n", always a cylinder and a position. */
export interface SiteKey {
  readonly cylinder: number;
  readonly position: Position;
}

/** A site by one word, as on screens and in records: 3A. */
export const siteId = ({ cylinder, position }: SiteKey): string => `${cylinder}${position}`;
