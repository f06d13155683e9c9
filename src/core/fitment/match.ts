import type { PlainDate } from '../calendar/plain-date';

/** Sources by rank: a lower place in the list yields to a higher one. Memory never releases work. */
export const SOURCE_RANKS = ['service_information', 'bulletin', 'part_maker', 'box', 'forum', 'memory'] as const;
export type SourceKind = (typeof SOURCE_RANKS)[number];

/** The keys by which a spec sheet says which engines it is for. */
export interface Scope {
  readonly engineFamilyId: string;
  /** Null: for every variant. */
  readonly variant: string | null;
  readonly modelYearFrom: number | null;
  readonly modelYearTo: number | null;
}

export interface Candidate extends Scope {
  readonly id: string;
  readonly sourceKind: SourceKind;
  readonly sourceDated: PlainDate | null;
  readonly revision: number;
}

export interface VehicleKeys {
  readonly engineFamilyId: string | null;
  /** Null: nobody has said. */
  readonly variant: string | null;
  readonly modelYear: number | null;
}

export type QuestionKey = 'engine-family' | 'variant' | 'model-year' | 'sheet';

export type Fitment<C extends Candidate> =
  | { readonly kind: 'match'; readonly spec: C }
  | {
      readonly kind: 'needs-answer';
      readonly key: QuestionKey;
      readonly choices: readonly string[];
      readonly candidates: readonly C[];
    }
  | { readonly kind: 'no-spec'; readonly reason: 'no-sheet' | 'only-memory' };

/**
 * The one spec sheet in force for a vehicle, the one question that decides, or "no spec: do not fit".
 *
 * Sheets of the same scope compete: the highest source rank, then the newest date, then the highest revision is in
 * force. Where a sheet for one variant stands beside one for all, the narrower is taken once the variant is known.
 * `match` is never given while two candidates remain.
 *
 * @param variants the family's known variants, offered as choices
 */
export function match<C extends Candidate>(
  vehicle: VehicleKeys,
  sheets: readonly C[],
  variants: readonly string[],
): Fitment<C> {
  if (vehicle.engineFamilyId === null)
    return { kind: 'needs-answer', key: 'engine-family', choices: [], candidates: [] };
  const possible = sheets.filter(
    (sheet) => fitsFamily(vehicle, sheet) && fitsVariant(vehicle, sheet) && fitsYear(vehicle, sheet),
  );
  const usable = possible.filter((sheet) => sheet.sourceKind !== 'memory');
  if (usable.length === 0) return { kind: 'no-spec', reason: possible.length > 0 ? 'only-memory' : 'no-sheet' };
  const inForce = narrowest(vehicle, onePerScope(usable));
  const question = bestQuestion(vehicle, inForce, variants);
  if (question) return { kind: 'needs-answer', ...question, candidates: inForce };
  const [only, second] = inForce;
  if (only && !second) return { kind: 'match', spec: only };
  return { kind: 'needs-answer', key: 'sheet', choices: inForce.map((sheet) => sheet.id), candidates: inForce };
}

const fitsFamily = (vehicle: VehicleKeys, sheet: Scope): boolean => sheet.engineFamilyId === vehicle.engineFamilyId;

const fitsVariant = (vehicle: VehicleKeys, sheet: Scope): boolean =>
  sheet.variant === null || vehicle.variant === null || sheet.variant === vehicle.variant;

const fitsYear = ({ modelYear }: VehicleKeys, sheet: Scope): boolean =>
  modelYear === null || ((sheet.modelYearFrom ?? 0) <= modelYear && modelYear <= (sheet.modelYearTo ?? 9999));

const scopeKey = (s: Scope): string => JSON.stringify([s.engineFamilyId, s.variant, s.modelYearFrom, s.modelYearTo]);

function onePerScope<C extends Candidate>(sheets: readonly C[]): readonly C[] {
  const best = new Map<string, C>();
  for (const sheet of [...sheets].sort(byForce)) if (!best.has(scopeKey(sheet))) best.set(scopeKey(sheet), sheet);
  return [...best.values()];
}

/** In force first. A total order, so that the order of input never matters. */
function byForce(a: Candidate, b: Candidate): number {
  return (
    SOURCE_RANKS.indexOf(a.sourceKind) - SOURCE_RANKS.indexOf(b.sourceKind) ||
    (b.sourceDated ?? '').localeCompare(a.sourceDated ?? '') ||
    b.revision - a.revision ||
    a.id.localeCompare(b.id)
  );
}

function narrowest<C extends Candidate>(vehicle: VehicleKeys, sheets: readonly C[]): readonly C[] {
  const own = sheets.filter((sheet) => sheet.variant !== null);
  return vehicle.variant !== null && own.length > 0 ? own : sheets;
}

function bestQuestion(
  vehicle: VehicleKeys,
  sheets: readonly Candidate[],
  variants: readonly string[],
): { key: QuestionKey; choices: readonly string[] } | null {
  const byVariant = vehicle.variant === null && sheets.some((sheet) => sheet.variant !== null);
  const years = (s: Scope): string => `${s.modelYearFrom ?? 'any'} to ${s.modelYearTo ?? 'any'}`;
  const byYear =
    vehicle.modelYear === null &&
    (sheets.length > 1 || sheets.some((s) => s.modelYearFrom !== null || s.modelYearTo !== null));
  const yearChoices = distinct(sheets.map(years));
  const variantChoices = distinct([...variants, ...sheets.flatMap((s) => s.variant ?? [])]);
  const variantSplit = byVariant ? largestGroup(sheets.map((s) => s.variant ?? '')) : Number.POSITIVE_INFINITY;
  const yearSplit =
    byYear && yearChoices.some((c) => c !== 'any to any') ? largestGroup(sheets.map(years)) : Number.POSITIVE_INFINITY;
  if (variantSplit === Number.POSITIVE_INFINITY && yearSplit === Number.POSITIVE_INFINITY) return null;
  return variantSplit <= yearSplit
    ? { key: 'variant', choices: variantChoices }
    : { key: 'model-year', choices: yearChoices };
}

const distinct = (values: readonly string[]): readonly string[] => [...new Set(values)];

function largestGroup(keys: readonly string[]): number {
  const sizes = new Map<string, number>();
  for (const key of keys) sizes.set(key, (sizes.get(key) ?? 0) + 1);
  return Math.max(...sizes.values());
}

/** Part numbers are compared without case, spaces and hyphens, but 0 and O stay different. */
export const partKey = (number: string): string => number.toUpperCase().replace(/[\s\-.\u2010-\u2015]/g, '');
