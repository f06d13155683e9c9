import type { BankAccess, Fastener } from '../../engine/access';
import type { AccessItem, Ways } from '../../engine/access-items';
import type { Layout } from '../../engine/layout';
import type { BankPlace, Ignition } from '../../engine/model';
import type { VisitWork } from '../../engine/other-work';
import type { WeakPoint } from '../../engine/weak-points';
import type { PolicyOptions } from '../../policy/policies';
import type { Ask, Counted } from '../ask';
import type { EarlierRemoval } from './removal';
import { itemsOff, type VisitTask } from './visit';

export const PHASES = ['prepare', 'open', 'plugs', 'close', 'prove'] as const;
export type Phase = (typeof PHASES)[number];

/** What a step is, whatever it is called on an engine: what the rules go by. */
export const STEP_KINDS = [
  'safe',
  'codes_before',
  'parts',
  'compare',
  'cold',
  'isolate',
  'gas',
  'fuel',
  'open',
  'reach',
  'rags',
  'clean',
  'leads',
  'wells',
  'loosen_short',
  'loosen_long',
  'sites',
  'distributor',
  'other',
  'clear',
  'refit',
  'close',
  'count',
  'lids',
  'start',
  'relearn',
  'codes_after',
  'sweep',
  'road',
  'recheck',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** One step of a procedure. */
export interface Step {
  /** Its kind; with the number of its bank or the key of its item where each has one. */
  readonly key: string;
  readonly kind: StepKind;
  readonly phase: Phase;
  readonly title: string;
  /** Why it is done, and done here. */
  readonly why: string;
  /** The hazard at this very step, and the control. */
  readonly caution: string | null;
  readonly tools: readonly string[];
  readonly consumables: readonly string[];
  /** What has to be written down before it can be ticked. */
  readonly asks: readonly Ask[];
  readonly minutes: number;
  /** Done site by site on the cylinder entry, not ticked on its own. */
  readonly perSite: boolean;
}

/** What a technician wrote at an item on the way. */
export interface ItemNote {
  /** Key of the item. */
  readonly item: string;
  readonly says: string;
  readonly by: string;
  readonly unit: string;
}

/** What a procedure depends on besides the tasks of the visit. */
export interface ProcedureEngine {
  readonly layout: Layout;
  /** By bank, in the order of the layout's banks; a bank without one counts as open. */
  readonly access: readonly BankAccess[];
  /** Screws of coils and other parts that are no item on the way. */
  readonly fasteners: readonly Fastener[];
  /** What is on the way to the plugs, in the order in which it comes off; null: nobody has written it. */
  readonly items: readonly AccessItem[] | null;
  /** What technicians left for the next at an item, the latest first. */
  readonly notes: readonly ItemNote[];
  /** What this vehicle has, where an item is only on some. */
  readonly options: readonly string[];
  /** Which way is taken where there are two. */
  readonly ways: Ways;
  /** Time constant of its head, minutes; null: a usual one. */
  readonly coolingMinutes: number | null;
  readonly hybrid: boolean;
  readonly fuel: string | null;
  readonly headMaterial: 'aluminium' | 'iron';
  readonly weakPoints: readonly WeakPoint[];
  /** The last removal on record; null: none. */
  readonly earlier: EarlierRemoval | null;
  /** The option in force of each policy. */
  readonly policies: Readonly<Partial<PolicyOptions>>;
  /** Minutes for a service of all its plugs as somebody stated them: they hold where no items are written. */
  readonly minutes: number;
  /** By what this shop's own orders took, over what was computed; 1: nothing is known. */
  readonly correction: number;
}

export interface ProcedureInput extends ProcedureEngine {
  readonly tasks: readonly VisitTask[];
  /** Null: no task takes a plug out, or its sheet is not known. */
  readonly plug: PlugWork | null;
  /** What is done in the same visit besides the ignition. */
  readonly otherWork: readonly VisitWork[];
}

/** The plug as it goes in. */
export interface PlugWork {
  readonly number: string;
  readonly seat: 'gasket' | 'conical';
  readonly socket: string | null;
  readonly gapMm: { readonly min: number; readonly max: number };
  /** As it will be set, lubricant allowed for, N·m. */
  readonly torqueNm: { readonly min: number; readonly max: number };
  /** What goes on the threads: in words, and which compound if any. */
  readonly threads: { readonly says: string; readonly compound: string | null };
  /** How the old ones come out, as the sheet or a newer bulletin says it; null: neither speaks of it. */
  readonly method: string | null;
}

export interface Procedure {
  readonly steps: readonly Step[];
  readonly counts: readonly Counted[];
  /** Of the whole job: exactly the sum of its steps. */
  readonly minutes: number;
}

export const LEAD_WORDS: Readonly<Record<Ignition, string>> = {
  coil_on_plug: 'coil',
  coil_per_cylinder: 'lead',
  coil_rail: 'coil rail',
  waste_spark: 'lead',
  distributor: 'lead',
};

export const SIDE: Readonly<Record<BankPlace, string>> = {
  only: '',
  left: ' of the left bank',
  right: ' of the right bank',
  front: ' of the front bank',
  rear: ' of the rear bank',
};

export type Draft = Step & {
  /** Its minutes are what they are, whatever a shop states for the whole. */
  readonly isFixed: boolean;
};

/** The key of a step of one of several: a bank from 1, or an item. */
export const stepOf = (kind: StepKind, which: number | string): string => `${kind}_${which}`;

/** @param of the bank from 1, or the item, where each has such a step */
export const draft = (
  phase: Phase,
  kind: StepKind,
  title: string,
  why: string,
  minutes: number,
  {
    part,
    ...over
  }: Partial<Omit<Draft, 'phase' | 'kind' | 'key' | 'title' | 'why' | 'minutes'>> & {
    part?: number | string;
  } = {},
): Draft => ({
  phase,
  kind,
  key: part === undefined ? kind : stepOf(kind, part),
  title,
  why,
  minutes,
  caution: null,
  tools: [],
  consumables: [],
  asks: [],
  perSite: false,
  isFixed: false,
  ...over,
});

/** Whether the battery is disconnected for the job. */
export const isIsolated = (input: ProcedureInput): boolean =>
  input.hybrid || input.policies.battery === 'always' || itemsOff(input).some(({ part }) => part === 'intake');

export const text = (key: string, what: string): Ask => ({ key, what, kind: 'text' });
export const choice = (key: string, what: string, choices: readonly string[], accepts?: readonly string[]): Ask => ({
  key,
  what,
  kind: 'choice',
  choices,
  ...(accepts ? { accepts } : {}),
});

export const isGas = (fuel: string | null): boolean => fuel === 'lpg' || fuel === 'cng';
