import type { Site } from '../engine/layout';
import type { Km, Mm, Nm, PersonId } from '../shared/kinds';
import type { UnitSystem } from '../units/person-units';
import type { JobRecord, Json } from './entry';
import type { OrderModel, PlaceModel, StepModel, TaskModel } from './order-model';
import type { PlugRules } from './place-done';
import type { Phase } from './procedure/step';
import type { Stop } from './stop';
import type { TaskWhy } from './task';

/** A plug site: what the drawing of the engine shows, and where the parts of a cylinder are worked on. */
export interface FloorSite extends Site {
  readonly id: string;
  readonly name: string;
  readonly where: string;
}

export interface FloorTask extends TaskModel {
  readonly why: TaskWhy;
  /** What the wrench is to reach, N·m; null: nothing is torqued by a sheet. */
  readonly targetNm: Nm | null;
  /** Its sheet, in words; null: it works by none. */
  readonly source: string | null;
}

export interface FloorPlace extends PlaceModel {
  /** The plug sites that the part serves, by their ids; none for a part of the whole engine. */
  readonly sites: readonly string[];
  /** By the record. */
  readonly expectedNumber: string | null;
  /** Keys of the numbers that are the same part as that; null: the record names none. */
  readonly expectedKeys: readonly string[] | null;
  /** Serial of the part that is in, by the record. */
  readonly expectedTag: string | null;
  /** Of a lead, as the engine needs it; null: another part, or nobody has measured it. */
  readonly lengthMm: Mm | null;
  readonly fittedGapMm: Mm | null;
  /** Distance since it was fitted, km, where both ends are sure. */
  readonly sinceKm: Km | null;
  readonly doneBy: string | null;
  /** Lot and compound of the part that is in it, in words: whoever undoes it wants to know. */
  readonly fittedWith: string | null;
  /** Done under another revision than the one in force, and not released. */
  readonly redo: boolean;
}

/** The plug of a job that has one, and how it is tightened. */
export interface FloorPlug {
  readonly rules: PlugRules;
  readonly seat: 'gasket' | 'conical';
  readonly thread: string | null;
  /** What the wrench is to reach, N·m. */
  readonly targetNm: Nm;
  readonly source: string;
}

export interface FloorStep extends StepModel {
  readonly phase: Phase | null;
  readonly why: string | null;
  readonly caution: string | null;
  readonly tools: readonly string[];
  readonly consumables: readonly string[];
  readonly minutes: number | null;
}

/** Two people said otherwise about one field: what stands, and what was said beside it. */
export interface Difference {
  readonly id: string;
  readonly target: string;
  readonly field: string;
  readonly said: Json;
  readonly by: string;
  readonly at: string;
}

/** An order as a device at the vehicle carries it: all that is needed with the network gone. */
export interface FloorJob extends OrderModel {
  readonly orderId: string;
  readonly orderNumber: number;
  readonly live: boolean;
  readonly unitNumber: string;
  readonly vehicleName: string;
  readonly engineCode: string;
  readonly hybrid: boolean;
  readonly caution: string;
  /** What the dash showed at the last reading, in its unit; null: nobody has read it. */
  readonly dash: { readonly shown: number; readonly unit: 'km' | 'mi' } | null;
  /** Null: no task takes a plug out. */
  readonly plug: FloorPlug | null;
  readonly tasks: readonly FloorTask[];
  /** A newer sheet is in force than the one that this order works by. */
  readonly sheetChanged: string | null;
  /** What whoever did the plugs the last time left for the next. */
  readonly noteBefore: string | null;
  /** Every plug site of the engine. */
  readonly sites: readonly FloorSite[];
  readonly places: readonly FloorPlace[];
  readonly steps: readonly FloorStep[];
  readonly record: JobRecord;
  readonly differences: readonly Difference[];
  readonly photos: readonly {
    readonly id: string;
    readonly target: string;
    readonly by: string;
    readonly at: string;
  }[];
  /** Of the set before this one, at the same sites. */
  readonly photosBefore: readonly {
    readonly id: string;
    readonly orderId: string;
    readonly target: string;
    /** ISO day. */
    readonly on: string;
  }[];
  /** Keys of findings on which a supervisor has spoken. */
  readonly decided: readonly string[];
  /** Why it stands still. */
  readonly stops: readonly Stop[];
  /** Since when the person who asks is working at it; null: they are not. */
  readonly workingSince: string | null;
  readonly minutes: number;
  readonly minutesWorked: number;
  /** A code reader is connected at the server. */
  readonly hasCodeReader: boolean;
  /** Of a demo fleet: the stand-ins may be played. */
  readonly demo: boolean;
  readonly units: UnitSystem;
  readonly personId: PersonId;
  /** When the server gave it: of two the later is the truer. ISO 8601. */
  readonly asOf: string;
}
