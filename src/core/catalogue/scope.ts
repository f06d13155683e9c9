import type { PlainDate } from '../calendar/plain-date';

/** The keys by which a spec sheet says which vehicles it is for. Null: for all of them. */
export interface Scope {
  readonly engineFamilyId: string;
  readonly variant: string | null;
  readonly modelYearFrom: number | null;
  readonly modelYearTo: number | null;
  readonly builtFrom: PlainDate | null;
  readonly builtTo: PlainDate | null;
  /** Serial part of the VIN, its last six characters as a number. */
  readonly serialFrom: number | null;
  readonly serialTo: number | null;
  readonly fuel: string | null;
  readonly induction: string | null;
  readonly market: string | null;
}

/** What is known of a vehicle. Null: nobody has said. */
export interface VehicleKeys {
  readonly engineFamilyId: string | null;
  readonly variant: string | null;
  readonly modelYear: number | null;
  readonly builtOn: PlainDate | null;
  readonly serial: number | null;
  readonly fuel: string | null;
  readonly induction: string | null;
  readonly market: string | null;
  /** Chosen by a person among sheets that nothing else tells apart. */
  readonly chosenSheetId: string | null;
}

/** In the order in which they are asked where two split equally well: what is seen on the vehicle first. */
export const KEYS = ['variant', 'fuel', 'induction', 'model-year', 'built-on', 'serial', 'market'] as const;
export type ScopeKey = (typeof KEYS)[number];

type Bound = string | number;
interface Span {
  readonly from: Bound | null;
  readonly to: Bound | null;
}

/** A scope's condition on one key: a single value is a span from itself to itself. */
function spanOf(key: ScopeKey, s: Scope): Span {
  switch (key) {
    case 'variant':
      return { from: s.variant, to: s.variant };
    case 'fuel':
      return { from: s.fuel, to: s.fuel };
    case 'induction':
      return { from: s.induction, to: s.induction };
    case 'market':
      return { from: s.market, to: s.market };
    case 'model-year':
      return { from: s.modelYearFrom, to: s.modelYearTo };
    case 'built-on':
      return { from: s.builtFrom, to: s.builtTo };
    case 'serial':
      return { from: s.serialFrom, to: s.serialTo };
  }
}

function answerOn(key: ScopeKey, v: VehicleKeys): Bound | null {
  switch (key) {
    case 'variant':
      return v.variant;
    case 'fuel':
      return v.fuel;
    case 'induction':
      return v.induction;
    case 'market':
      return v.market;
    case 'model-year':
      return v.modelYear;
    case 'built-on':
      return v.builtOn;
    case 'serial':
      return v.serial;
  }
}

/** True or false where it is known; null: the sheet asks for a key that nobody has answered. */
export function keyFits(key: ScopeKey, vehicle: VehicleKeys, scope: Scope): boolean | null {
  const { from, to } = spanOf(key, scope);
  if (from === null && to === null) return true;
  const value = answerOn(key, vehicle);
  if (value === null) return null;
  return (from === null || from <= value) && (to === null || value <= to);
}

type Coverage = 'surely' | 'maybe' | 'no';

/** Whether a scope covers a vehicle on every key; maybe: an answer is still open. */
export function coverage(vehicle: VehicleKeys, scope: Scope): Coverage {
  let open = false;
  for (const key of KEYS) {
    const fits = keyFits(key, vehicle, scope);
    if (fits === false) return 'no';
    if (fits === null) open = true;
  }
  return open ? 'maybe' : 'surely';
}

/** The first scope covers every vehicle that the second does. */
export const coversAll = (outer: Scope, inner: Scope): boolean =>
  outer.engineFamilyId === inner.engineFamilyId &&
  (scopeText(outer) === scopeText(inner) || narrowerThan(inner, outer));

/** The first scope lies within the second on every key, and is not the same. */
export function narrowerThan(a: Scope, b: Scope): boolean {
  return (
    scopeText(a) !== scopeText(b) &&
    KEYS.every((key) => {
      const [inner, outer] = [spanOf(key, a), spanOf(key, b)];
      return (
        (outer.from === null || (inner.from !== null && outer.from <= inner.from)) &&
        (outer.to === null || (inner.to !== null && inner.to <= outer.to))
      );
    })
  );
}

/** The choices that candidates leave open on one key, each with how many sheets stay possible under it. */
export function forkedBy(
  key: ScopeKey,
  candidates: readonly Scope[],
): readonly { readonly label: string; readonly sheets: number }[] {
  const sorted = [...candidates].sort((a, b) => byStart(spanOf(key, a), spanOf(key, b)));
  const labels = [...new Set(sorted.map((scope) => label(key, scope)).filter((text) => text !== null))];
  const open = candidates.filter((scope) => label(key, scope) === null).length;
  return labels.map((text) => ({
    label: text,
    sheets: open + candidates.filter((scope) => label(key, scope) === text).length,
  }));
}

/** Open at the start comes first. */
function byStart(a: Span, b: Span): number {
  if (a.from === b.from) return 0;
  if (a.from === null || b.from === null) return a.from === null ? -1 : 1;
  return a.from < b.from ? -1 : 1;
}

function label(key: ScopeKey, scope: Scope): string | null {
  const { from, to } = spanOf(key, scope);
  if (from === null && to === null) return null;
  if (from === to) return String(from);
  if (from === null) return `up to ${to}`;
  return to === null ? `${from} on` : `${from} to ${to}`;
}

export const scopeText = (s: Scope): string =>
  `${s.engineFamilyId}|${KEYS.map((key) => {
    const { from, to } = spanOf(key, s);
    return `${from ?? ''}~${to ?? ''}`;
  }).join('|')}`;

/** A scope in words: "with deactivation, 2019 on"; "every vehicle of the family" where it has no condition. */
export function scopeWords(scope: Scope): string {
  const words = KEYS.flatMap((key) => {
    const text = label(key, scope);
    if (text === null) return [];
    if (key === 'built-on') return [`built ${text}`];
    return [key === 'serial' ? `serial ${text}` : text];
  });
  return words.length > 0 ? words.join(', ') : 'every vehicle of the family';
}

export const ANY_VEHICLE: Omit<VehicleKeys, 'engineFamilyId'> = {
  variant: null,
  modelYear: null,
  builtOn: null,
  serial: null,
  fuel: null,
  induction: null,
  market: null,
  chosenSheetId: null,
};
