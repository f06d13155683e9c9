import { siteId } from '../engine/model';
import type { PersonUnits } from '../units/person-units';
import { type Entry, type Fields, type JobRecord, type Json, type Merge, mergeEntry, sameJson } from './entry';
import { stageOfField } from './gate-table';
import { stopBefore } from './gates';
import { countsIn, fieldsOf, type OrderModel, type PlaceModel, quantityIn } from './order-model';
import { placeFaultsIn, stepFaultsIn } from './order-rules';
import { readPlaceQuantity } from './place-done';
import { hasField, isPlaceQuantity } from './place-fields';
import { sayPlaces } from './say-places';
import { answerField, ORDER_TARGET, REMARKS, type Remark, readTarget } from './targets';

/** What became of one entry, and the record after it. */
interface Applied {
  readonly outcome: 'kept' | 'same' | 'differs' | 'refused';
  /** What a person should know of it: why it was refused, or what it undid. */
  readonly message: string | null;
  readonly record: JobRecord;
}

/**
 * Lays one entry into the record of an order, by the rules of the core: what cannot be right is refused with the reason, what
 * somebody else said otherwise meanwhile is left beside it, and a place that no longer holds is open again.
 *
 * @param entry its value has the shape that its field holds
 * @param units in which the person's bare figures are read
 */
export function applyEntry(model: OrderModel, record: JobRecord, entry: Entry, units: PersonUnits): Applied {
  const { kind, key } = readTarget(entry.target);
  const at: At = { model, record, entry, key, units };
  switch (kind) {
    case 'place':
      return applyPlace(at);
    case 'step':
      return applyStep(at);
    case 'count':
      return applyCount(at);
    case ORDER_TARGET:
      return applyOrder(at);
    default:
      return refuse(at, `There is no “${entry.target}” on this order.`);
  }
}

interface At {
  readonly model: OrderModel;
  readonly record: JobRecord;
  readonly entry: Entry;
  readonly key: string;
  readonly units: PersonUnits;
}

const refuse = ({ record }: At, message: string): Applied => ({ outcome: 'refused', message, record });

const withFields = (record: JobRecord, target: string, fields: Fields): JobRecord => ({
  ...record,
  [target]: { ...fieldsOf(record, target), ...fields },
});

/** The record with what was merged, or why nothing changes. */
function merged(at: At, merge: Merge): Applied {
  const { record, entry } = at;
  if (merge.kind !== 'kept') return { outcome: merge.kind, message: null, record };
  return { outcome: 'kept', message: null, record: withFields(record, entry.target, { [entry.field]: merge.value }) };
}

const currentOf = ({ record, entry }: At): Json => fieldsOf(record, entry.target)[entry.field] ?? null;

function applyPlace(at: At): Applied {
  const { model, entry, record, units } = at;
  const place = model.places.find(({ target }) => target === entry.target);
  if (!place || !hasField(place.component, entry.field))
    return refuse(at, `There is no ${entry.field} at “${entry.target}” on this order.`);
  if (place.moved) return refuse(at, `${sayPlaces([place])} went to another visit: record it there.`);
  const current = currentOf(at);
  if (isSameQuantity(at, current)) return { outcome: 'same', message: null, record };
  const merge = mergeEntry(current, entry);
  if (merge.kind === 'kept' && !isTakenBack(merge.value)) {
    const stage = stageOfField(place.component, entry.field);
    const shut = stage ? stopBefore(model, record, stage) : null;
    if (shut) return refuse(at, shut);
  }
  if (merge.kind === 'kept' && isPlaceQuantity(entry.field)) {
    const read = readPlaceQuantity(place.component, entry.field, String(merge.value), units);
    if (!read.ok) return refuse(at, read.message);
  }
  if (merge.kind === 'kept' && entry.field === 'done' && merge.value === true) {
    const faults = Object.values(placeFaultsIn(model, record, entry.target, units));
    if (faults.length > 0) return refuse(at, `${sayPlaces([place])} cannot be done yet. ${faults.join(' ')}`);
  }
  const after = merged(at, merge);
  return after.outcome === 'kept' && entry.field !== 'done' ? reopened(at, place, after) : after;
}

/** What takes something back is never held up. */
const isTakenBack = (value: Json): boolean =>
  value === null || value === '' || value === false || (typeof value === 'object' && Object.keys(value).length === 0);

/** The same quantity in other words is the same. */
function isSameQuantity({ model, entry, units }: At, current: Json): boolean {
  const { target, field, value } = entry;
  if (!isPlaceQuantity(field) || typeof current !== 'string' || typeof value !== 'string' || !current || !value)
    return false;
  const [stands, said] = [current, value].map((text) => quantityIn(model, target, field, text, units));
  return stands !== null && stands === said;
}

/** A place that was done and no longer holds what it has to is open again. */
function reopened({ model, entry, units }: At, place: PlaceModel, after: Applied): Applied {
  const { record } = after;
  if (fieldsOf(record, entry.target).done !== true) return after;
  const faults = Object.values(placeFaultsIn(model, record, entry.target, units));
  if (faults.length === 0) return after;
  return {
    outcome: 'kept',
    message: `${sayPlaces([place])} is open again. ${faults.join(' ')}`,
    record: withFields(record, entry.target, { done: false }),
  };
}

function applyStep(at: At): Applied {
  const { model, record, entry, key, units } = at;
  const step = model.steps.find((candidate) => candidate.key === key);
  if (!step || step.perSite) return refuse(at, `There is no step ${key} to answer on this order.`);
  const isAnswer = [...step.asks.map(({ key: ask }) => ask), ...REMARKS].some(
    (ask) => answerField(ask) === entry.field,
  );
  if (!isAnswer && entry.field !== 'state') return refuse(at, `The step “${step.title}” does not ask for that.`);
  const merge = mergeEntry(currentOf(at) ?? (isAnswer ? null : 'open'), entry);
  if (merge.kind === 'kept' && !isAnswer && merge.value === 'not_done' && !saidAt(at, 'why'))
    return refuse(at, `Say why it is not done: “${step.title}”.`);
  if (merge.kind === 'kept' && merge.value === 'done') {
    const faults = isAnswer ? [] : stepFaultsIn(model, record, key, Date.parse(entry.at), units);
    if (faults.length > 0) return refuse(at, faults.join(' '));
  }
  return merged(at, merge);
}

const saidAt = ({ record, entry }: At, answer: Remark): string =>
  String(fieldsOf(record, entry.target)[answerField(answer)] ?? '').trim();

function applyCount(at: At): Applied {
  const { model, record, entry, key } = at;
  const isSide = entry.field === 'out' || entry.field === 'back';
  if (!isSide || !countsIn(model, record).some((count) => count.key === key))
    return refuse(at, `Nothing called ${key} is counted on this order.`);
  return merged(at, mergeEntry(currentOf(at), entry));
}

function applyOrder(at: At): Applied {
  const { model, entry } = at;
  if (entry.field !== 'trayFirst') return refuse(at, 'There is no such field on this order.');
  const first = entry.value;
  if (first !== null && !model.layout.sites.some((site) => siteId(site) === first))
    return refuse(at, `This engine has no cylinder ${String(first).slice(0, 8)}.`);
  return merged(at, mergeEntry(currentOf(at), entry));
}

/** What one target became: its fields as they were and as they are, where they differ. */
export interface TargetChange {
  readonly target: string;
  readonly from: Fields;
  readonly to: Fields;
}

/** The targets in which two records of one order differ. */
export const changesBetween = (before: JobRecord, after: JobRecord): readonly TargetChange[] =>
  Object.keys(after).flatMap((target) => {
    const [was, is] = [fieldsOf(before, target), fieldsOf(after, target)];
    const changed = Object.keys(is).filter((field) => !sameJson(was[field] ?? null, is[field] ?? null));
    if (changed.length === 0) return [];
    const pick = (fields: Fields): Fields => Object.fromEntries(changed.map((field) => [field, fields[field] ?? null]));
    return [{ target, from: pick(was), to: pick(is) }];
  });
