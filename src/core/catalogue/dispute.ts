import { type Bounds, overlap } from '../gap/bands';
import type { Mm, Nm } from '../shared/kinds';
import type { Candidate } from './match';
import { scopeText } from './scope';

export interface RangedSheet extends Candidate {
  readonly sourceDocument: string;
  readonly gapMinMm: Mm;
  readonly gapMaxMm: Mm;
  readonly torqueMinNm: Nm;
  readonly torqueMaxNm: Nm;
}

interface Agreement {
  /** Where all agree, mm and N·m; null: nowhere. */
  readonly gapMm: Bounds | null;
  readonly torqueNm: Bounds | null;
}

/** Other documents of the same rank and scope that hold today: they stand beside the sheet, not below it. */
export const rivalsOf = <S extends RangedSheet>(sheet: S, sheets: readonly S[]): readonly S[] =>
  sheets.filter(
    (other) =>
      other.sourceDocument !== sheet.sourceDocument &&
      other.sourceKind === sheet.sourceKind &&
      !other.expired &&
      scopeText(other) === scopeText(sheet),
  );

/** Two makers' ranges: work where they overlap; where they do not, stop and ask. */
export function agreement(sheets: readonly RangedSheet[]): Agreement {
  return {
    gapMm: overlap(sheets.map((s) => ({ min: s.gapMinMm, max: s.gapMaxMm }))),
    torqueNm: overlap(sheets.map((s) => ({ min: s.torqueMinNm, max: s.torqueMaxNm }))),
  };
}

/** The sheet and a rival of its own rank leave no common range of gap or torque. */
export function disputed<S extends RangedSheet>(sheet: S, sheets: readonly S[]): boolean {
  return rivalsOf(sheet, sheets).some((rival) => {
    const { gapMm, torqueNm } = agreement([sheet, rival]);
    return gapMm === null || torqueNm === null;
  });
}
