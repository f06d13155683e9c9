import type { BankAccess, Fastener } from '../../engine/access';
import type { Layout } from '../../engine/layout';
import type { BankPlace, Ignition } from '../../engine/model';
import type { WeakPoint } from '../../engine/weak-points';
import type { PolicyOptions } from '../../policy/policies';
import type { Ask, Counted } from '../ask';
import type { EarlierRemoval } from './removal';
import { banksOpened, type VisitTask } from './visit';

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
  'open',
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
  'road',
  'recheck',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** One step of a procedure. */
export interface Step {
  /** Its kind; with the number of its bank where each bank has one. */
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

export interface ProcedureInput {
  readonly layout: Layout;
  /** By bank, in the order of the layout's banks; a bank without one counts as open. */
  readonly access: readonly BankAccess[];
  readonly fasteners: readonly Fastener[];
  readonly hybrid: boolean;
  readonly fuel: string | null;
  readonly headMaterial: 'aluminium' | 'iron';
  readonly tasks: readonly VisitTask[];
  /** Null: no task takes a plug out. */
  readonly plug: PlugWork | null;
  readonly weakPoints: readonly WeakPoint[];
  /** The last removal on record; null: none. */
  readonly earlier: EarlierRemoval | null;
  /** The option in force of each policy. */
  readonly policies: Readonly<Partial<PolicyOptions>>;
  /** What is done in the same visit besides the ignition. */
  readonly otherWork: readonly { readonly what: string; readonly minutes: number }[];
  /** Minutes for a service of all its plugs. */
  readonly minutes: number;
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
}

export interface Procedure {
  readonly steps: readonly Step[];
  readonly counts: readonly Counted[];
  /** Of the whole job, with what this engine's own history adds. */
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

export type Draft = Omit<Step, 'minutes'> & {
  /** Its share of what its phase takes. */
  readonly weight: number;
  /** Minutes that do not depend on the job's; null: its share. */
  readonly fixedMinutes: number | null;
};

/** The key of a step of one bank. @param bank from 1 */
export const bankStep = (kind: StepKind, bank: number): string => `${kind}_${bank}`;

/** @param bank from 1, where each bank has such a step */
export const draft = (
  phase: Phase,
  kind: StepKind,
  title: string,
  why: string,
  { bank, ...over }: Partial<Omit<Draft, 'phase' | 'kind' | 'key' | 'title' | 'why'>> & { bank?: number } = {},
): Draft => ({
  phase,
  kind,
  key: bank === undefined ? kind : bankStep(kind, bank),
  title,
  why,
  caution: null,
  tools: [],
  consumables: [],
  asks: [],
  perSite: false,
  weight: 1,
  fixedMinutes: null,
  ...over,
});

/** Whether the battery is disconnected for the job. */
export const isIsolated = (
  input: Pick<ProcedureInput, 'hybrid' | 'policies' | 'access' | 'layout' | 'tasks'>,
): boolean => input.hybrid || input.policies.battery === 'always' || intakeOff(input);

export const text = (key: string, what: string): Ask => ({ key, what, kind: 'text' });
export const choice = (key: string, what: string, choices: readonly string[], accepts?: readonly string[]): Ask => ({
  key,
  what,
  kind: 'choice',
  choices,
  ...(accepts ? { accepts } : {}),
});

export const isGas = (fuel: string | null): boolean => fuel === 'lpg' || fuel === 'cng';
/** A bank that is reached lies under the intake. */
function intakeOff(input: Pick<ProcedureInput, 'access' | 'layout' | 'tasks'>): boolean {
  const opened = banksOpened(input);
  return input.access.some((bank, i) => bank.access === 'under_intake' && opened.has(i + 1));
}
