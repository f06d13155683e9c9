import type { PlainDate } from '../calendar/plain-date';
import { groupBy } from '../shared/group-by';
import {
  coverage,
  forkedBy,
  KEYS,
  keyFits,
  narrowerThan,
  type Scope,
  type ScopeKey,
  scopeText,
  type VehicleKeys,
} from './scope';

/** Sources by rank: a lower place in the list yields to a higher one. Memory never releases work. */
export const SOURCE_RANKS = ['service_information', 'bulletin', 'part_maker', 'box', 'forum', 'memory'] as const;
export type SourceKind = (typeof SOURCE_RANKS)[number];

export interface Candidate extends Scope {
  readonly id: string;
  readonly sourceKind: SourceKind;
  readonly sourceDated: PlainDate | null;
  readonly revision: number;
  /** Its source has been withdrawn or its date has passed: it yields to any valid sheet of its rank. */
  readonly expired: boolean;
}

export type QuestionKey = 'engine-family' | ScopeKey | 'sheet';

interface Question {
  readonly key: QuestionKey;
  readonly choices: readonly string[];
}

export type Fitment<C extends Candidate> =
  | { readonly kind: 'match'; readonly spec: C }
  | ({ readonly kind: 'needs-answer'; readonly candidates: readonly C[] } & Question)
  | { readonly kind: 'no-spec'; readonly reason: 'no-sheet' | 'only-memory' };

/**
 * The one spec sheet in force for a vehicle, the one question that splits the candidates best, or "no spec: do not fit".
 *
 * A sheet that surely covers the vehicle beats every sheet of a lower rank, and every one of its own rank with a wider
 * scope. Among sheets of one scope the highest rank, then valid before expired, the newest date and the highest revision
 * is in force. `match` is never given while two candidates remain, or while an answer not yet given could change it.
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
  return matchWithin(
    vehicle,
    inForce(sheets.filter((sheet) => sheet.engineFamilyId === vehicle.engineFamilyId)),
    variants,
  );
}

/** The same for many vehicles: the sheets are sorted out by family once. */
export function matcher<C extends Candidate>(
  sheets: readonly C[],
  variantsOf: ReadonlyMap<string, readonly string[]>,
): (vehicle: VehicleKeys) => Fitment<C> {
  const byFamily = new Map(
    [...groupBy(sheets, (sheet) => sheet.engineFamilyId)].map(([id, list]) => [id, inForce(list)]),
  );
  return (vehicle) => {
    const family = vehicle.engineFamilyId;
    if (family === null) return match(vehicle, [], []);
    return matchWithin(vehicle, byFamily.get(family) ?? NOTHING, variantsOf.get(family) ?? []);
  };
}

interface InForce<C> {
  /** One a scope, in force first. */
  readonly usable: readonly C[];
  /** For each of them, the others that it beats once it surely covers the vehicle. */
  readonly beats: readonly (readonly boolean[])[];
  readonly fromMemory: readonly C[];
}
const NOTHING: InForce<never> = { usable: [], beats: [], fromMemory: [] };

function inForce<C extends Candidate>(sheets: readonly C[]): InForce<C> {
  const best = new Map<string, C>();
  const fromMemory: C[] = [];
  for (const sheet of inOrderOfForce(sheets)) {
    if (sheet.sourceKind === 'memory') fromMemory.push(sheet);
    else if (!best.has(scopeText(sheet))) best.set(scopeText(sheet), sheet);
  }
  const usable = [...best.values()];
  return { usable, beats: usable.map((a) => usable.map((b) => beats(a, b))), fromMemory };
}

function matchWithin<C extends Candidate>(
  vehicle: VehicleKeys,
  { usable, beats: beatsOf, fromMemory }: InForce<C>,
  variants: readonly string[],
): Fitment<C> {
  const covers = usable.map((sheet) => coverage(vehicle, sheet));
  if (covers.every((cover) => cover === 'no')) {
    const memory = fromMemory.some((sheet) => coverage(vehicle, sheet) !== 'no');
    return { kind: 'no-spec', reason: memory ? 'only-memory' : 'no-sheet' };
  }
  const beaten = (i: number): boolean => beatsOf.some((row, j) => row[i] && covers[j] === 'surely');
  const candidates = usable.filter((_, i) => covers[i] !== 'no' && !beaten(i));
  const [only, second] = candidates;
  if (only && !second && coverage(vehicle, only) === 'surely') return { kind: 'match', spec: only };
  const question = bestQuestion(vehicle, candidates, variants);
  if (question) return { kind: 'needs-answer', ...question, candidates };
  const chosen = candidates.find((sheet) => sheet.id === vehicle.chosenSheetId);
  if (chosen) return { kind: 'match', spec: chosen };
  return { kind: 'needs-answer', key: 'sheet', choices: candidates.map((sheet) => sheet.id), candidates };
}

const rank = (sheet: Candidate): number => SOURCE_RANKS.indexOf(sheet.sourceKind);

/** Of two sheets that may cover a vehicle, the first of which surely does. */
const beats = (certain: Candidate, other: Candidate): boolean =>
  certain !== other && (rank(certain) < rank(other) || (rank(certain) === rank(other) && narrowerThan(certain, other)));

/** Sheets side by side, in force first. A total order: the order of the input never matters. */
export const inOrderOfForce = <C extends Candidate>(sheets: readonly C[]): readonly C[] => [...sheets].sort(byForce);

function byForce(a: Candidate, b: Candidate): number {
  return (
    rank(a) - rank(b) ||
    Number(a.expired) - Number(b.expired) ||
    (b.sourceDated ?? '').localeCompare(a.sourceDated ?? '') ||
    b.revision - a.revision ||
    a.id.localeCompare(b.id)
  );
}

/** The unanswered key that leaves the fewest candidates in its worst case. */
function bestQuestion(
  vehicle: VehicleKeys,
  candidates: readonly Candidate[],
  variants: readonly string[],
): Question | null {
  let best: (Question & { readonly left: number }) | null = null;
  for (const key of KEYS) {
    if (candidates.every((sheet) => keyFits(key, vehicle, sheet) !== null)) continue;
    const fork = forkedBy(key, candidates);
    const left = Math.max(...fork.map((choice) => choice.sheets));
    if (best && best.left <= left) continue;
    const choices = fork.map((choice) => choice.label);
    best = { key, left, choices: key === 'variant' ? distinct([...variants, ...choices]) : choices };
  }
  return best && { key: best.key, choices: best.choices };
}

const distinct = (values: readonly string[]): readonly string[] => [...new Set(values)];

/** Part numbers are compared without case, spaces and hyphens, but 0 and O stay different. */
export const partKey = (number: string): string => number.toUpperCase().replace(/[\s\-.\u2010-\u2015]/g, '');

export type ReleaseBlocker = 'unchecked' | 'expired' | 'makers-disagree' | 'boost-between' | 'boost-unknown';

/** Why a sheet releases no work order without a supervisor's reason. */
export function releaseBlockers(sheet: {
  readonly checkedBy: string | null;
  readonly expired: boolean;
  readonly makersDisagree: boolean;
  /** What is known of the gap at the vehicle’s own intake pressure; null: it has its family’s. */
  readonly boost?: 'in-band' | 'between' | 'above-all' | null;
}): readonly ReleaseBlocker[] {
  return [
    ...(sheet.checkedBy === null ? (['unchecked'] as const) : []),
    ...(sheet.expired ? (['expired'] as const) : []),
    ...(sheet.makersDisagree ? (['makers-disagree'] as const) : []),
    ...(sheet.boost === 'between' ? (['boost-between'] as const) : []),
    ...(sheet.boost === 'above-all' ? (['boost-unknown'] as const) : []),
  ];
}
