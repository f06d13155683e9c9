import { daysBetween, type PlainDate } from '../calendar/plain-date';
import { type CoilAdvice, chooseCoils } from '../components/coil-choice';
import type { Certainty, DueState } from '../due/due';
import { compareDue, NEARLY_USED, WINDOW_DAYS } from '../due/vehicle-due';
import type { Layout } from '../engine/layout';
import { allPlaces, choosePlaces, isCoil, isOfEngine, type PlaceChoice, placeId } from '../engine/places';
import type { Answer } from '../inspection/answer';
import type { PolicyOptions } from '../policy/policies';
import { visitMinutes } from './procedure/generate';
import type { ProcedureEngine } from './procedure/step';
import { replaceAt, type VisitTask } from './procedure/visit';
import type { TaskAction, TaskComponent, TaskWhy } from './task';

/* What belongs to a visit when it is opened: what is due, what stands behind the same cover, what the policies ask for, and what
   somebody found. Each comes with its reason, the minutes it adds and what its parts cost; a person takes or leaves each. */

/** A component of the vehicle, as far as a proposal depends on it. */
export interface ComponentFacts {
  readonly component: TaskComponent;
  readonly state: DueState;
  readonly certainty: Certainty | null;
  /** The likely due day. */
  readonly due: PlainDate | null;
  readonly lifeUsed: number | null;
  /** Of one; null: the catalogue has none. */
  readonly price: number | null;
  readonly quantity: number;
}

export interface ProposalInput {
  readonly today: PlainDate;
  readonly engine: ProcedureEngine;
  readonly components: readonly ComponentFacts[];
  readonly options: Pick<PolicyOptions, 'coils_with_plugs' | 'leads_with_plugs' | 'inspection_sample'>;
  readonly money: { readonly labourPerHour: number; readonly downtimePerVisit: number };
  /** When it leaves the fleet, and for what share of a new set's life it would still use it; null: it stays. */
  readonly retires: { readonly on: PlainDate; readonly share: number } | null;
  /** That one coil fails before the plugs are changed again, from 0 to 1. */
  readonly coilChance: number;
  /** Confirmed, and not answered by a task yet. */
  readonly findings: readonly { readonly key: string; readonly answers: readonly Answer[] }[];
}

export type ProposalReason =
  /** Due by the day of the visit, or within the window after it. */
  | {
      readonly kind: 'due';
      readonly state: DueState;
      readonly on: PlainDate | null;
      readonly retires: PlainDate | null;
    }
  /** Nobody knows how old it is: looked at, not bought. */
  | { readonly kind: 'assumed'; readonly state: DueState }
  /** Behind the same cover, with so much of its life used. */
  | { readonly kind: 'nearly_used'; readonly lifeUsed: number }
  | {
      readonly kind: 'policy';
      readonly policy: 'coils_with_plugs' | 'leads_with_plugs';
      readonly advice: CoilAdvice | null;
    }
  | { readonly kind: 'finding'; readonly key: string };

export interface Proposal {
  readonly action: TaskAction;
  readonly component: TaskComponent;
  readonly places: PlaceChoice;
  readonly why: TaskWhy;
  readonly reason: ProposalReason;
  /** Taken unless a person leaves it. */
  readonly isTaken: boolean;
  /** Bay time that it adds to those before it, minutes. */
  readonly minutes: number;
  /** Of its parts; null: a price is not known. */
  readonly partsCost: number | null;
}

type Wanted = Omit<Proposal, 'minutes' | 'partsCost'>;

/** A vehicle that leaves before so much of a new set is used is asked about: skip it, or fit a cheaper one. */
const WORTH_A_SET = 0.5;

/** Chance that a coil fails in a year, until a fleet has evidence of its own. Source: general trade guidance, coarse. */
const COIL_FAILURES_A_YEAR = 0.02;

/** Chance that one coil fails within some years, by what is assumed. @returns from 0 to 1 */
export const assumedCoilChance = (years: number): number => 1 - Math.exp(-COIL_FAILURES_A_YEAR * Math.max(0, years));

/** What belongs to a visit opened today, the most pressing first. Nothing that the engine has not is proposed, and nothing twice. */
export function proposeVisit(input: ProposalInput): readonly Proposal[] {
  const due = dueNow(input);
  const wanted = [...due, ...nearlyUsed(input, due)];
  const policies = byPolicy(input, wanted);
  // What is replaced by policy need not be looked at.
  const withPolicies = [...wanted.filter(({ component }) => !has(policies, component)), ...policies];
  return priced(input, [...withPolicies, ...byFinding(input, withPolicies)]);
}

/** What is past, due soon or to be looked at; what falls due within the window comes with it, and what binds first at any rate. */
function dueNow({ today, engine, components, options, retires }: ProposalInput): readonly Wanted[] {
  const sorted = [...components].sort(compareDue);
  const first = sorted.find(({ state }) => state !== 'no-match' && state !== 'no-date');
  const from = first?.due && first.due > today ? first.due : today;
  // What binds first is shown at any rate; far from its day it is left, unless a person takes it.
  const isVisitDue = first?.state !== 'later' || daysBetween(today, from) <= WINDOW_DAYS;
  return sorted.flatMap((item): Wanted[] => {
    if (item.state === 'no-match' || item.state === 'no-odometer') return [];
    if (item.state === 'inspect' || (item.certainty === 'assumed' && item === first))
      return [look(engine.layout, item, options)];
    const isWanted =
      item.state === 'past' || item === first || (item.due !== null && daysBetween(from, item.due) <= WINDOW_DAYS);
    if (!isWanted || item.state === 'no-date' || item.certainty === 'assumed') return [];
    const leaves = item.component === 'plug' && retires !== null && retires.share < WORTH_A_SET ? retires.on : null;
    const reason = { kind: 'due', state: item.state, on: item.due, retires: leaves } as const;
    return [
      {
        action: 'replace',
        component: item.component,
        places: 'all',
        why: 'due',
        reason,
        isTaken: isVisitDue && leaves === null,
      },
    ];
  });
}

/** Nobody knows how old it is: so many of it are looked at as the policy says. */
function look(
  layout: Layout,
  { component, state }: ComponentFacts,
  { inspection_sample }: Pick<PolicyOptions, 'inspection_sample'>,
): Wanted {
  return {
    action: 'inspect',
    component,
    places: samplePlaces(layout, component, inspection_sample),
    why: 'due',
    reason: { kind: 'assumed', state },
    isTaken: true,
  };
}

/** One, those of the bank that is reached worst, or all. The worst bank of an engine is named first. */
function samplePlaces(
  layout: Layout,
  component: TaskComponent,
  sample: PolicyOptions['inspection_sample'],
): PlaceChoice {
  const places = allPlaces(layout, component);
  const [first] = places;
  if (sample === 'all' || isOfEngine(component) || !first) return 'all';
  if (sample === 'one') return [placeId(first)];
  const [bank] = layout.model.banks;
  return bank && layout.model.banks.length > 1 ? { bank: bank.place } : 'all';
}

const has = (wanted: readonly Wanted[], component: TaskComponent): boolean =>
  wanted.some((item) => item.component === component);

/** What is nearly used and comes into reach anyway. */
const nearlyUsed = ({ components }: ProposalInput, wanted: readonly Wanted[]): readonly Wanted[] =>
  wanted.length === 0
    ? []
    : components.flatMap(({ component, lifeUsed, certainty }): Wanted[] => {
        if (has(wanted, component) || certainty === 'assumed' || lifeUsed === null || lifeUsed < NEARLY_USED) return [];
        const reason = { kind: 'nearly_used', lifeUsed } as const;
        const isTaken = wanted.some((item) => item.isTaken);
        return [{ action: 'replace', component, places: 'all', why: 'with_other_work', reason, isTaken }];
      });

/** Coils and leads that come off to get at the plugs: taken with them, or not at all. */
function byPolicy(input: ProposalInput, wanted: readonly Wanted[]): readonly Wanted[] {
  const plugs = wanted.find(({ component, action }) => component === 'plug' && action === 'replace');
  if (!plugs) return [];
  const all = { action: 'replace', places: 'all', why: 'with_other_work' } as const;
  return input.components.flatMap(({ component, state }): Wanted[] => {
    if (wanted.some((item) => item.component === component && item.action === 'replace') || state === 'no-match')
      return [];
    if (component === 'lead_set' && input.options.leads_with_plugs === 'always')
      return [
        {
          ...all,
          component,
          reason: { kind: 'policy', policy: 'leads_with_plugs', advice: null },
          isTaken: plugs.isTaken,
        },
      ];
    if (!isCoil(component) || input.options.coils_with_plugs === 'on_failure') return [];
    const advice = coilAdvice(input, component);
    const isWanted = input.options.coils_with_plugs === 'with_plugs' || advice?.advice === 'all';
    const isTaken = isWanted && plugs.isTaken;
    return [{ ...all, component, reason: { kind: 'policy', policy: 'coils_with_plugs', advice }, isTaken }];
  });
}

/** All coils now, while they are off, against one more visit for each that fails; null without a price. */
function coilAdvice(
  { components, engine, money, coilChance }: ProposalInput,
  component: TaskComponent,
): CoilAdvice | null {
  const coil = components.find((fact) => fact.component === component);
  if (!coil || coil.price === null) return null;
  // One coil by itself another day: the same way in, and the same proof.
  const [place] = allPlaces(engine.layout, component);
  const again = place ? visitMinutes(engine, [replaceAt(component, [place])]) : 0;
  return chooseCoils({
    others: coil.quantity,
    price: coil.price,
    accessHours: again / 60,
    chanceEach: coilChance,
    labourPerHour: money.labourPerHour,
    downtimePerVisit: money.downtimePerVisit,
  });
}

/** What would answer a confirmed finding. */
const byFinding = ({ findings }: ProposalInput, wanted: readonly Wanted[]): readonly Wanted[] =>
  findings.flatMap(({ key, answers }) =>
    answers.flatMap(({ action, component, places }): Wanted[] =>
      has(wanted, component)
        ? []
        : [{ action, component, places, why: 'finding', reason: { kind: 'finding', key }, isTaken: true }],
    ),
  );

/** A proposal as the procedure sees it; null where the engine has no such place. */
export function visitTaskOf(layout: Layout, item: Wanted): VisitTask | null {
  const places = choosePlaces(layout, item.component, item.places);
  return places.ok ? { ...item, places: places.value, partNumber: null, torqueNm: null } : null;
}

/** With the minutes that each adds to those before it, and the price of its parts. */
function priced(input: ProposalInput, wanted: readonly Wanted[]): readonly Proposal[] {
  let before: readonly VisitTask[] = [];
  let spent = 0;
  return wanted.flatMap((item): Proposal[] => {
    const task = visitTaskOf(input.engine.layout, item);
    if (!task) return [];
    const sum = visitMinutes(input.engine, [...before, task]);
    const minutes = sum - spent;
    if (item.isTaken) {
      before = [...before, task];
      spent = sum;
    }
    return [{ ...item, minutes, partsCost: partsCostOf(input, item, task.places.length) }];
  });
}

function partsCostOf({ components }: ProposalInput, { action, component }: Wanted, places: number): number | null {
  if (action !== 'replace') return 0;
  const price = components.find((fact) => fact.component === component)?.price ?? null;
  return price === null ? null : price * places;
}
