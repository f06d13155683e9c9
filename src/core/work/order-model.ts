import { partKey } from '../catalogue/match';
import type { Layout } from '../engine/layout';
import { siteId } from '../engine/model';
import { type Finding, findingKey } from '../inspection/finding';
import { readEngine } from '../inspection/findings';
import { isCondition } from '../inspection/vocabulary';
import type { PersonUnits } from '../units/person-units';
import { type Ask, askFaults, type CountKind, type CountState, startFaults } from './ask';
import type { Fields, JobRecord, Json } from './entry';
import type { StepKind } from './procedure/step';
import { type Faults, readSiteQuantity, type SiteRules, siteFaults } from './site-done';
import { type SiteQuantity, type SiteRecord, siteRecord } from './site-fields';
import { answerField, countTarget, ORDER_TARGET, siteTarget, stepTarget } from './targets';

/*
 * An order as the rules see it, at the vehicle and at the desk alike: what is fixed when it is opened, beside the record of
 * what people have said. Every question about the record is answered here, once.
 */

export interface SiteModel {
  readonly id: string;
  readonly name: string;
  /** Quantities that stand in the record, as they were read when they were typed, mm or N·m. */
  readonly measured: Readonly<Partial<Record<SiteQuantity, Measured>>>;
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
  /** The step at which it is counted back. */
  readonly backStep: string;
}

export interface OrderModel {
  readonly layout: Layout;
  readonly rules: SiteRules;
  readonly sites: readonly SiteModel[];
  readonly steps: readonly StepModel[];
  readonly counts: readonly CountModel[];
  /** Which codes have been kept: before, after. */
  readonly codesKept: readonly string[];
  readonly photos: readonly { readonly target: string }[];
  readonly followUps: number;
}

/** What is known of one target; nothing where nobody has said anything. */
export const fieldsOf = (record: JobRecord, target: string): Fields =>
  Object.hasOwn(record, target) ? (record[target] ?? {}) : {};

/** One site as the rules read it. */
export const siteIn = (record: JobRecord, id: string): SiteRecord => siteRecord(fieldsOf(record, siteTarget(id)));

/** Whether a step is open, done or marked as not done. */
export const stepStateIn = (record: JobRecord, key: string): 'open' | 'done' | 'not_done' => {
  const { state } = fieldsOf(record, stepTarget(key));
  return state === 'done' || state === 'not_done' ? state : 'open';
};

/** A typed quantity of a site, mm or N·m; null where nothing is typed or it cannot be read. */
export function quantityIn(
  { sites }: Pick<OrderModel, 'sites'>,
  site: string,
  field: SiteQuantity,
  text: string,
  units: PersonUnits,
): number | null {
  const known = sites.find(({ id }) => id === site)?.measured[field];
  if (known && known.text === text) return known.si;
  const read = readSiteQuantity(field, text, units);
  return read.ok ? read.value : null;
}

/**
 * Why a site cannot be called done yet, by field.
 *
 * @param over fields that a press would write besides
 */
export function siteFaultsIn(
  model: OrderModel,
  record: JobRecord,
  id: string,
  units: PersonUnits,
  over: Fields = {},
): Faults {
  const texts = siteRecord({ ...fieldsOf(record, siteTarget(id)), ...over });
  const si = (field: SiteQuantity): number | null => quantityIn(model, id, field, texts[field], units);
  const fitted = model.sites.flatMap((other) => {
    const { done, newNumber } = siteIn(record, other.id);
    return other.id !== id && done && newNumber ? [partKey(newNumber)] : [];
  });
  return siteFaults(texts, { newGapMm: si('newGap'), installedTorqueNm: si('installedTorque') }, model.rules, fitted);
}

const numberOf = (json: Json | undefined): number | null => (typeof json === 'number' ? json : null);

/** Each count as far as it has been made. */
export const countsIn = (
  { counts }: Pick<OrderModel, 'counts'>,
  record: JobRecord,
): readonly (CountState & CountModel)[] =>
  counts.map((count) => {
    const { out, back } = fieldsOf(record, countTarget(count.key));
    return { ...count, out: numberOf(out), back: numberOf(back) };
  });

/** Why the engine is not ready to start; empty when it is. */
export function startFaultsIn(model: OrderModel, record: JobRecord): readonly string[] {
  const sites = model.sites.map(({ id, name }) => ({ name, at: siteIn(record, id) }));
  // A cover that goes on after the first start has its screws counted then.
  const late = new Set(model.steps.filter(({ kind }) => kind === 'lids').map(({ key }) => key));
  return startFaults({
    sitesOpen: sites.filter(({ at }) => !at.done).map(({ name }) => name),
    counts: countsIn(model, record).filter(({ backStep }) => !late.has(backStep)),
    soaked: sites.some(({ at }) => at.soakedAt !== null),
    cleared: model.steps.some(({ kind, key }) => kind === 'clear' && stepStateIn(record, key) === 'done'),
  });
}

/**
 * What keeps a step from being ticked, in words.
 *
 * @param nowMs by the clock of whoever ticks it
 */
export function stepFaultsIn(model: OrderModel, record: JobRecord, key: string, nowMs: number): readonly string[] {
  const step = model.steps.find((own) => own.key === key);
  if (!step) return [];
  const target = stepTarget(key);
  const fields = fieldsOf(record, target);
  const asked = askFaults(step.asks, {
    nowMs,
    answers: Object.fromEntries(step.asks.map((ask) => [ask.key, String(fields[answerField(ask.key)] ?? '')])),
    counts: countsIn(model, record),
    codesKept: model.codesKept,
    photos: model.photos.filter((photo) => photo.target === target).length,
    partsUnchecked: model.sites.flatMap(({ id, name }) => {
      const { newNumber, newGap } = siteIn(record, id);
      return newNumber && newGap ? [] : [name];
    }),
    followUps: model.followUps,
  });
  return step.kind === 'start' ? [...startFaultsIn(model, record), ...asked] : asked;
}

/**
 * Findings that stop the work, from what the record says: told at once, with the network gone too, by the rules of the desk.
 *
 * @param decided keys of findings on which a supervisor has spoken
 */
export function stopsIn(layout: Layout, record: JobRecord, decided: readonly string[]): readonly Finding[] {
  const sites = layout.sites.map((site) => {
    const { cylinder, position } = site;
    const { seen, breakawayFeel } = siteIn(record, siteId(site));
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
