/* What a device at the vehicle sends: one entry is one field of one target, with what the device knew of it before. */

export type Json = string | number | boolean | null | { readonly [key: string]: Json } | readonly Json[];

/** A field of one target: `site 3A` / `newGap`, `step clean` / `state`, `count rags_1` / `back`, `order` / `trayFirst`. */
export interface Entry {
  /** Made by the device: sent twice, it is kept once. */
  readonly id: string;
  readonly target: string;
  readonly field: string;
  readonly value: Json;
  /** What the device knew the field to be when the person changed it. */
  readonly base: Json;
  /** By the device's clock, ISO 8601. */
  readonly at: string;
  /** Resolves a difference that a person was shown; null or absent: it does not. */
  readonly resolves?: string | null;
}

export type Merge =
  | { readonly kind: 'kept'; readonly value: Json }
  | { readonly kind: 'same' }
  /** Someone else said otherwise meanwhile: theirs stands, ours is kept beside it until a person chooses. */
  | { readonly kind: 'differs'; readonly current: Json };

/**
 * Brings one entry into the record. Fields merge one by one; a map (conditions with their severity) merges by its keys, so
 * that two people who look at one plug add to each other. Nothing is ever overwritten that the device did not know of.
 */
export function mergeEntry(current: Json, { base, value }: Pick<Entry, 'base' | 'value'>): Merge {
  if (sameJson(current, value)) return { kind: 'same' };
  if (isMap(value)) {
    const merged = mergeMaps(asMap(current), asMap(base), value);
    return sameJson(current, merged) ? { kind: 'same' } : { kind: 'kept', value: merged };
  }
  return sameJson(current, base) ? { kind: 'kept', value } : { kind: 'differs', current };
}

type JsonMap = Readonly<Record<string, Json>>;
const isMap = (value: Json): value is JsonMap => typeof value === 'object' && value !== null && !Array.isArray(value);
const asMap = (value: Json): JsonMap => (isMap(value) ? value : {});
/** What a map holds itself: a name such as “toString” is there only where somebody put it. */
const ownValue = (map: JsonMap, key: string): Json => (Object.hasOwn(map, key) ? (map[key] ?? null) : null);

/** What the device added, changed or took away since `base`, done to `current`. */
function mergeMaps(current: JsonMap, base: JsonMap, value: JsonMap): JsonMap {
  const taken = Object.keys(base).filter((key) => !Object.hasOwn(value, key));
  const changed = Object.entries(value).filter(([key, v]) => !sameJson(ownValue(base, key), v));
  const kept = Object.entries(current).filter(([key]) => !taken.includes(key));
  return Object.fromEntries([...kept, ...changed].sort(([a], [b]) => a.localeCompare(b)));
}

/** Equal in content, whatever the order of keys. */
export function sameJson(a: Json, b: Json): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((v, i) => sameJson(v, b[i] ?? null));
  if (!isMap(a) || !isMap(b)) return false;
  const [left, right] = [Object.keys(a), Object.keys(b)];
  return (
    left.length === right.length &&
    left.every((key) => Object.hasOwn(b, key) && sameJson(ownValue(a, key), ownValue(b, key)))
  );
}

/** Fields of one target by name. */
export type Fields = Readonly<Record<string, Json>>;
export type JobRecord = Readonly<Record<string, Fields>>;

/** The record as a person at this device sees it: what the server last said, with what is not yet sent laid over it. */
export function withEntries(record: JobRecord, waiting: readonly Entry[]): JobRecord {
  const seen: Record<string, Fields> = { ...record };
  for (const { target, field, value, base } of waiting) {
    const fields = Object.hasOwn(seen, target) ? (seen[target] ?? {}) : {};
    const merged = mergeEntry(ownValue(fields, field), { base, value });
    // Their own word is shown to them even where it will differ: the difference comes with the server's answer.
    seen[target] = { ...fields, [field]: merged.kind === 'kept' ? merged.value : value };
  }
  return seen;
}
