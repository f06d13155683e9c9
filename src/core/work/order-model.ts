import type { PlainDate } from '../calendar/plain-date';
import type { Layout } from '../engine/layout';
import { siteId } from '../engine/model';
import { type Finding, findingKey } from '../inspection/finding';
import { readEngine } from '../inspection/findings';
import { isCondition } from '../inspection/vocabulary';
import type { ShopWrench } from '../torque/at-vehicle';
import type { PersonUnits } from '../units/person-units';
import type { Ask, CountKind, CountState } from './ask';
import type { Fields, JobRecord, Json } from './entry';
import type { Lift } from './gate-table';
import { isFitted, type PlugRules, readPlaceQuantity, type TaskRules } from './place-done';
import { type PlaceQuantity, type PlaceRecord, placeRecord } from './place-fields';
import type { StepKind } from './procedure/step';
import { answerField, countTarget, ORDER_TARGET, siteTarget, stepTarget } from './targets';
import { type PlaceState, placeState, type TaskAction, type TaskComponent } from './task';

/*
 * An order as the rules see it, at the vehicle and at the desk alike: what is fixed when it is opened, beside the record of
 * what people have said. Every question about the record is answered here, once.
 */

export interface TaskModel {
  readonly id: string;
  readonly action: TaskAction;
  readonly component: TaskComponent;
  readonly rules: TaskRules;
}

/** One place of a task: where one part comes out, goes in, or is looked at. */
export interface PlaceModel {
  /** How entries name it: "site 3A", "coil 3A". */
  readonly target: string;
  /** 3A, or engine. */
  readonly id: string;
  readonly component: TaskComponent;
  /** Id of its task. */
  readonly task: string;
  /** As a person calls it: 3, 3A, coil 3, cap. */
  readonly name: string;
  /** It went to another visit: nothing is recorded here any more. */
  readonly moved: boolean;
  /** Quantities that stand in the record, as they were read when they were typed, in SI. */
  readonly measured: Readonly<Partial<Record<PlaceQuantity, Measured>>>;
}

/** A text as typed, with what it was read as. Another person's units do not change what a bare figure meant. */
interface Measured {
  readonly text: string;
  readonly si: number;
}

export interface StepModel {
  readonly key: string;
  /** Null: opened before steps had kinds. */
  readonly kind: StepKind | null;
  readonly title: string;
  /** Done site by site on the cylinder entry, not ticked on its own. */
  readonly perSite: boolean;
  readonly asks: readonly Ask[];
}

interface CountModel {
  readonly key: string;
  readonly kind: CountKind | null;
  readonly what: string;
  readonly expected: number | null;
  /** The steps at which it is counted. */
  readonly outStep: string;
  readonly backStep: string;
}

export interface OrderModel {
  readonly layout: Layout;
  readonly tasks: readonly TaskModel[];
  readonly places: readonly PlaceModel[];
  readonly steps: readonly StepModel[];
  readonly counts: readonly CountModel[];
  /** Which codes have been kept: before, after. */
  readonly codesKept: readonly string[];
  readonly photos: readonly { readonly target: string }[];
  readonly followUps: number;
  /** The torque wrenches of the shop that are in use. */
  readonly wrenches: readonly ShopWrench[];
  readonly today: PlainDate;
  /** Whoever asks may isolate what this engine has: a traction system is for qualified people. */
  readonly mayIsolate: boolean;
  /** Gates that a supervisor lifted, with the reason. */
  readonly lifts: readonly Lift[];
}

/** The title of a step without what follows on how it is done. */
export const shortTitle = ({ title }: Pick<StepModel, 'title'>): string => title.split(/[;:]/)[0] ?? title;

/** What is known of one target; nothing where nobody has said anything. */
export const fieldsOf = (record: JobRecord, target: string): Fields =>
  Object.hasOwn(record, target) ? (record[target] ?? {}) : {};

/** Whether a step is open, done or marked as not done. */
export const stepStateIn = (record: JobRecord, key: string): 'open' | 'done' | 'not_done' => {
  const { state } = fieldsOf(record, stepTarget(key));
  return state === 'done' || state === 'not_done' ? state : 'open';
};

/** One place as the rules read it. */
export const placeIn = (record: JobRecord, target: string): PlaceRecord => placeRecord(fieldsOf(record, target));

/** What became of a place so far. */
export function placeStateIn(record: JobRecord, { target, moved }: Pick<PlaceModel, 'target' | 'moved'>): PlaceState {
  const { done, leftWhy } = placeIn(record, target);
  return placeState({ moved, done, left: leftWhy.trim() !== '' });
}

/** The places at which work is still to be done. */
export const openPlacesIn = ({ places }: Pick<OrderModel, 'places'>, record: JobRecord): readonly PlaceModel[] =>
  places.filter((place) => placeStateIn(record, place) === 'open');

/** The task of a place. */
export const taskOf = (
  { tasks }: Pick<OrderModel, 'tasks'>,
  { task }: Pick<PlaceModel, 'task'>,
): TaskModel | undefined => tasks.find(({ id }) => id === task);

/** What the plugs of an order are measured by; null: it has no task on plugs. */
export const plugRulesOf = ({ tasks }: Pick<OrderModel, 'tasks'>): PlugRules | null =>
  tasks.flatMap(({ rules }) => (rules.component === 'plug' ? [rules] : []))[0] ?? null;

/** Whether a plug, coil or other part is replaced at a place, as far as is known. */
export function isNewAt(model: Pick<OrderModel, 'tasks'>, record: JobRecord, place: PlaceModel): boolean {
  const task = taskOf(model, place);
  return task !== undefined && isFitted(task.action, placeIn(record, place.target));
}

/** A typed quantity of a place in SI; null where nothing is typed or it cannot be read. */
export function quantityIn(
  { places }: Pick<OrderModel, 'places'>,
  target: string,
  field: PlaceQuantity,
  text: string,
  units: PersonUnits,
): number | null {
  const place = places.find((place) => place.target === target);
  const known = place?.measured[field];
  if (known && known.text === text) return known.si;
  const read = readPlaceQuantity(place?.component ?? 'plug', field, text, units);
  return read.ok ? read.value : null;
}

const numberOf = (json: Json | undefined): number | null => (typeof json === 'number' ? json : null);

/** Each count as far as it has been made. */
export const countsIn = (
  { counts }: Pick<OrderModel, 'counts'>,
  record: JobRecord,
): readonly (CountState & CountModel)[] =>
  counts.map((count) => {
    const { out, back } = fieldsOf(record, countTarget(count.key));
    const counted = fieldsOf(record, stepTarget(count.outStep))[answerField('found')];
    return { ...count, out: numberOf(out), back: numberOf(back), found: typeof counted === 'string' ? counted : '' };
  });

/**
 * Findings that stop the work, from what the record says: told at once, with the network gone too, by the rules of the desk.
 *
 * @param decided keys of findings on which a supervisor has spoken
 */
export function stopsIn(layout: Layout, record: JobRecord, decided: readonly string[]): readonly Finding[] {
  const sites = layout.sites.map((site) => {
    const { cylinder, position } = site;
    const { seen, breakawayFeel } = placeIn(record, siteTarget(siteId(site)));
    const words = Object.entries(seen).flatMap(([condition, severity]) =>
      isCondition(condition) ? [{ condition, severity }] : [],
    );
    const looked = words.length === 0 ? null : words;
    return { cylinder, position, seen: looked, gapMm: null, breakaway: breakawayFeel, differs: null, wear: null };
  });
  const directionKnown = Boolean(fieldsOf(record, ORDER_TARGET).trayFirst);
  return readEngine({ layout, deactivated: [], directionKnown, gapLimitMm: null, sites }).filter(
    (finding) => finding.urgency === 'stop' && !decided.includes(findingKey(finding)),
  );
}
