import { type Bounds, overlap } from '../gap/bands';
import type { Mm, Nm } from '../shared/kinds';
import type { Candidate, SourceKind } from './match';
import { coversAll, scopeText } from './scope';

export interface Sourced extends Candidate {
  readonly sourceDocument: string;
  readonly partId: string;
}

export interface RangedSheet extends Sourced {
  readonly gapMinMm: Mm;
  readonly gapMaxMm: Mm;
  readonly torqueMinNm: Nm;
  readonly torqueMaxNm: Nm;
}

/** The ranges that a sheet of any component may give, in SI; null: it gives none. */
export type Ranges = {
  readonly [end in
    | 'gapMinMm'
    | 'gapMaxMm'
    | 'torqueMinNm'
    | 'torqueMaxNm'
    | 'primaryMinOhm'
    | 'primaryMaxOhm'
    | 'secondaryMinOhm'
    | 'secondaryMaxOhm'
    | 'minOhm'
    | 'maxOhm']: number | null;
};
export const ENDS: readonly (readonly [keyof Ranges, keyof Ranges])[] = [
  ['gapMinMm', 'gapMaxMm'],
  ['torqueMinNm', 'torqueMaxNm'],
  ['primaryMinOhm', 'primaryMaxOhm'],
  ['secondaryMinOhm', 'secondaryMaxOhm'],
  ['minOhm', 'maxOhm'],
];

interface Agreement {
  /** Where all agree, mm and N·m; null: nowhere. */
  readonly gapMm: Bounds | null;
  readonly torqueNm: Bounds | null;
}

/** The makers of vehicle and part: for the same part the sheets of both hold. */
const MAKERS: ReadonlySet<SourceKind> = new Set(['service_information', 'part_maker']);

/**
 * Other documents that hold today beside the sheet, not below it: those of its rank and scope, and those of the other maker for
 * the same part and at least the same vehicles.
 */
export const rivalsOf = <S extends Sourced>(sheet: S, sheets: readonly S[]): readonly S[] =>
  sheets.filter(
    (other) =>
      other.sourceDocument !== sheet.sourceDocument &&
      !other.expired &&
      (other.sourceKind === sheet.sourceKind
        ? scopeText(other) === scopeText(sheet)
        : MAKERS.has(other.sourceKind) &&
          MAKERS.has(sheet.sourceKind) &&
          other.partId === sheet.partId &&
          coversAll(other, sheet)),
  );

/** Two makers' ranges: work where they overlap; where they do not, stop and ask. */
export function agreement(sheets: readonly RangedSheet[]): Agreement {
  return {
    gapMm: overlap(sheets.map((s) => ({ min: s.gapMinMm, max: s.gapMaxMm }))),
    torqueNm: overlap(sheets.map((s) => ({ min: s.torqueMinNm, max: s.torqueMaxNm }))),
  };
}

/** The sheet and a rival of its own rank leave no common range of a gap, torque or resistance that both of them give. */
export function disputed<S extends Sourced & Ranges>(sheet: S, sheets: readonly S[]): boolean {
  return rivalsOf(sheet, sheets).some((rival) => ENDS.some((ends) => clashes(sheet, rival, ends)));
}

/** What a sheet allows from one end to the other; null: it does not say. */
export function rangeOf(sheet: Ranges, [low, high]: (typeof ENDS)[number]): Bounds | null {
  const [min, max] = [sheet[low], sheet[high]];
  return min === null || max === null ? null : { min, max };
}

function clashes(a: Ranges, b: Ranges, ends: (typeof ENDS)[number]): boolean {
  const ranges = [a, b].flatMap((given) => rangeOf(given, ends) ?? []);
  return ranges.length === 2 && overlap(ranges) === null;
}
