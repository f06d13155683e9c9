import type { PlaceField } from './place-fields';
import type { StepKind } from './procedure/step';
import type { TaskComponent } from './task';

/*
 * Gates: what has to be so before the next thing is done. A supervisor may lift a gate for one visit, with a reason that stays
 * on its record. What is said here is printed in the docs.
 */

/** What a gate stands before, in the order of work. */
export const STAGES = ['work', 'access', 'out', 'in', 'start', 'close'] as const;
export type Stage = (typeof STAGES)[number];

export const STAGE_WORDS: Readonly<Record<Stage, string>> = {
  work: 'any step',
  access: 'anything is opened',
  out: 'a plug comes out',
  in: 'the new plug is torqued',
  start: 'the engine is started',
  close: 'the order is closed',
};

export const GATES = [
  'safe',
  'parts',
  'isolated',
  'fuel',
  'temperature',
  'wells',
  'by_hand',
  'breakaway',
  'threads',
  'dropped',
  'solvent',
  'pieces',
  'counts',
  'clicks',
  'codes',
  'proved',
] as const;
export type Gate = (typeof GATES)[number];

interface GateRule {
  readonly before: Stage;
  /** As a person calls it. */
  readonly says: string;
  /** When it opens. */
  readonly opens: string;
  /** What it keeps from happening. */
  readonly hazard: string;
  /** The steps that open it; none: what is recorded at each place, or at the counts. */
  readonly steps: readonly StepKind[];
}

export const GATE_TABLE: Readonly<Record<Gate, GateRule>> = {
  safe: {
    before: 'work',
    says: 'hood, shoes, eyes, bystanders',
    opens: 'one press by the technician',
    hazard: 'a hood that falls, a splinter or jet of air in the eye, a child near the fan',
    steps: ['safe'],
  },
  parts: {
    before: 'access',
    says: 'right parts',
    opens: 'every new part is read, every new gap measured and in range; a new cap compared with the old',
    hazard: 'a wrong reach that strikes the piston; a runnable vehicle opened for a kit that is not whole',
    steps: ['parts', 'compare'],
  },
  isolated: {
    before: 'access',
    says: 'ignition, battery and traction isolated',
    opens: 'isolated; on a hybrid by a qualified person, written down',
    hazard: 'shock from coil or traction system; an engine that starts by itself',
    steps: ['isolate'],
  },
  fuel: {
    before: 'access',
    says: 'fuel line without pressure',
    opens: 'relieved, tray set, no ignition source; gas valve closed and line empty',
    hazard: 'fuel that sprays and burns',
    steps: ['fuel', 'gas'],
  },
  temperature: {
    before: 'out',
    says: 'engine temperature',
    opens: 'cold, or as the sheet asks: felt, measured, or by the time since it was shut off',
    hazard: 'threads torn out of a hot aluminium head; burns',
    steps: ['cold'],
  },
  wells: {
    before: 'out',
    says: 'wells clean',
    opens: 'cleaned, with how, and looked into',
    hazard: 'what lies in the well falls into the cylinder',
    steps: ['clean', 'wells'],
  },
  by_hand: {
    before: 'in',
    says: 'started by hand',
    opens: 'said for each place by the press that says torqued',
    hazard: 'cross-threading',
    steps: [],
  },
  breakaway: {
    before: 'in',
    says: 'breakaway',
    opens: 'nothing seized, or soaked before it was turned on',
    hazard: 'a plug that breaks in the head',
    steps: [],
  },
  threads: {
    before: 'in',
    says: 'threads in the head',
    opens: 'looked at and sound, or a supervisor decided on the repair',
    hazard: 'a plug that is thrown out of its hole',
    steps: [],
  },
  dropped: {
    before: 'in',
    says: 'dropped plug',
    opens: 'none dropped, or its gap measured again and its insulator looked at',
    hazard: 'a cracked insulator or a closed gap that misfires',
    steps: [],
  },
  solvent: {
    before: 'start',
    says: 'solvent gone',
    opens: 'after penetrant: cylinders cleared, aired, nothing flammable open',
    hazard: 'a cylinder full of fluid bends its rod; vapour catches fire',
    steps: ['clear'],
  },
  pieces: {
    before: 'start',
    says: 'every piece there',
    opens: 'no insulator is cracked, or every piece of it is there',
    hazard: 'a piece of insulator in the cylinder that scores its wall or bends a valve',
    steps: [],
  },
  counts: {
    before: 'start',
    says: 'counts',
    opens: 'tools, rags, caps, fasteners and gaskets: out equals in, every place done',
    hazard: 'a rag in a port, a tool in the fan',
    steps: ['count'],
  },
  clicks: {
    before: 'start',
    says: 'connectors and leads home',
    opens: 'each connector and second lock clicks',
    hazard: 'a misfire on the road from a connector that works loose',
    steps: ['refit'],
  },
  codes: {
    before: 'close',
    says: 'codes',
    opens: 'read and kept before and after',
    hazard: 'nobody can tell what the work changed',
    steps: ['codes_before', 'codes_after'],
  },
  proved: {
    before: 'close',
    says: 'proved',
    opens: 'started, relearned where it has to, looked round, road tested with its odometer',
    hazard: 'a fault or a forgotten part handed to the driver',
    steps: ['start', 'relearn', 'lids', 'sweep', 'road'],
  },
};

/** Gates that one place opens for itself. */
export const PLACE_GATES = ['by_hand', 'breakaway', 'threads', 'dropped'] as const satisfies readonly Gate[];

/** A gate that a supervisor let stay shut behind the work. */
export interface Lift {
  readonly gate: Gate;
  /** The place for which it is lifted; null: for the whole visit. */
  readonly target: string | null;
  readonly reason: string;
  readonly by: string;
  readonly at: string;
}

/** Which stage a step belongs to; null: it may be said at any time. */
const STAGE_OF: Readonly<Record<StepKind, Stage | null>> = {
  safe: null,
  codes_before: 'work',
  parts: 'work',
  compare: 'work',
  cold: 'work',
  isolate: 'work',
  gas: 'work',
  fuel: 'work',
  open: 'access',
  reach: 'access',
  rags: 'access',
  clean: 'access',
  leads: 'access',
  wells: 'access',
  loosen_short: 'out',
  loosen_long: 'out',
  sites: null,
  distributor: null,
  other: 'access',
  clear: 'out',
  refit: 'access',
  close: 'access',
  count: 'access',
  start: 'start',
  relearn: 'start',
  lids: 'start',
  codes_after: 'start',
  sweep: 'start',
  road: 'start',
  recheck: 'work',
};

/** The stage of a step; null: no gate stands before it. */
export const stageOfStep = (kind: StepKind | null): Stage | null => (kind === null ? null : STAGE_OF[kind]);

/** What is said of a new part on the bench, away from the vehicle, or of work that is not done at all. */
const ON_THE_BENCH: ReadonlySet<PlaceField> = new Set([
  'believedNumber',
  'newNumber',
  'tagIn',
  'newGap',
  'newLot',
  'dropped',
  'compound',
  'compoundBatch',
  'remark',
  'leftWhy',
]);

/** The stage of a field of a place; null: no gate stands before it. */
export function stageOfField(component: TaskComponent, field: PlaceField): Stage | null {
  if (ON_THE_BENCH.has(field)) return null;
  return component === 'plug' ? 'out' : 'access';
}
